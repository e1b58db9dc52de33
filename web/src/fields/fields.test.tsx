/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, describe, expect, test } from '@jest/globals';
import { useState } from 'react';
import type { OwnField, OwnValues } from '@caderno/core/fields';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { ownField } from '../../test/ownField.ts';
import { standInProject } from '../../test/standInProject.ts';
import { OwnFields } from './OwnFields.tsx';

afterEach(cleanup);

let held: OwnValues = {};

function Held({ start, canEdit }: { readonly start: OwnValues; readonly canEdit: boolean }) {
  const [own, setOwn] = useState(start);
  const change = (next: OwnValues): void => {
    held = next;
    setOwn(next);
  };
  return <OwnFields id="C-3" kind="case" own={own} canEdit={canEdit} onChange={change} place="page" />;
}

function show(fields: readonly OwnField[], start: OwnValues = {}, canEdit = true): void {
  held = start;
  standInProject([], [], { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, fields } }), listMembers: () => [{ id: crypto.randomUUID(), name: 'Rui M.', email: 'r@fonte.example', role: 'analyst', sees: null }] as never });
  onThePage(<Held start={start} canEdit={canEdit} />, { canEdit });
}

const typed = async (label: string, value: string): Promise<HTMLElement> => {
  const input = await screen.findByLabelText(label);
  fireEvent.change(input, { target: { value } });
  return input;
};

describe('what is typed', () => {
  test('into a field for numbers is kept as it is, and said when it is none', async () => {
    show([ownField('Cost', 'number')]);
    await typed('Cost of C-3', 'dear');
    expect([held, screen.getByText(/is no number/).textContent, (await screen.findByLabelText('Cost of C-3')).getAttribute('aria-invalid')]).toEqual([{ cost: 'dear' }, '“dear” is no number: digits, with a point before decimals.', 'true']);
    await typed('Cost of C-3', '2.5');
    expect([held, screen.queryByText(/is no number/)]).toEqual([{ cost: '2.5' }, null]);
    await typed('Cost of C-3', '');
    expect(held).toEqual({});
  });
  test('into a link leads there only when it is an address', async () => {
    show([ownField('Story', 'link')], { story: 'javascript:alert(1)' });
    expect((await screen.findByText(/is no address/)).textContent).toContain('javascript');
    expect(screen.queryByRole('link')).toBeNull();
    await typed('Story of C-3', 'https://fonte.example/7');
    expect(screen.getByRole('link').getAttribute('href')).toBe('https://fonte.example/7');
  });
  test('a day that the calendar does not have stays to be seen', async () => {
    show([ownField('Ready', 'date')], { ready: '2026-02-30' });
    const input = (await screen.findByLabelText('Ready of C-3')) as HTMLInputElement;
    expect([input.value, input.type]).toEqual(['2026-02-30', 'text']);
    await typed('Ready of C-3', '2026-03-01');
    expect([held, input.type]).toEqual([{ ready: '2026-03-01' }, 'date']);
  });
});

describe('what is chosen', () => {
  test('several: in the order of the choices, and what is a choice no longer is not lost', async () => {
    show([ownField('Runs on', 'choices', ['Kiosk', 'Phone', 'Web'])], { 'runs-on': ['gone', 'web'] });
    const group = within(await screen.findByRole('group', { name: 'Runs on of C-3' }));
    fireEvent.click(group.getByLabelText('Kiosk'));
    expect(held).toEqual({ 'runs-on': ['kiosk', 'web', 'gone'] });
    fireEvent.click(group.getByLabelText('Web'));
    fireEvent.click(group.getByLabelText('Kiosk'));
    expect([held, screen.getByText(/among the choices/).textContent]).toEqual([{ 'runs-on': ['gone'] }, '“gone” are not all among the choices.']);
  });
  test('one: told by its name where it was a text before, and emptied by the dash', async () => {
    show([ownField('Colour', 'choice', ['Red', 'Blue'])], { colour: 'BLUE' });
    fireEvent.click(await screen.findByRole('button', { name: 'Colour of C-3: Blue' }));
    fireEvent.click(screen.getByRole('option', { name: 'Red' }));
    expect(held).toEqual({ colour: 'red' });
    fireEvent.click(screen.getByRole('button', { name: 'Colour of C-3: Red' }));
    fireEvent.click(screen.getByRole('option', { name: '–' }));
    expect(held).toEqual({});
  });
});

test('a page has the fields of its kind in the order of the project, says what is missing, and only reads what one may not change', async () => {
  show([ownField('Second', 'text', [], { required: true, help: 'Say it' }), ownField('First', 'yesNo', [], { required: true }), ownField('Of others', 'text', [], { of: ['question'] }), ownField('Removed', 'text', [], { removed: true })], { first: 'yes' }, false);
  const terms = await screen.findAllByRole('term');
  expect(terms.map((t) => t.textContent)).toEqual(['Second· required', 'First']);
  expect([screen.getByText('Say it').tagName, (screen.getByLabelText('Second of C-3') as HTMLInputElement).readOnly, screen.getByRole('button', { name: 'First of C-3: Yes' }).hasAttribute('disabled')]).toEqual(['SPAN', true, true]);
});
