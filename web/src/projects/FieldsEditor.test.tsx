/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, describe, expect, test } from '@jest/globals';
import { useState } from 'react';
import type { OwnField } from '@caderno/core/fields';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { ownField } from '../../test/ownField.ts';
import { standInProject } from '../../test/standInProject.ts';
import { rewritten } from './ChoicesEditor.tsx';
import { FieldsEditor } from './FieldsEditor.tsx';

afterEach(cleanup);

let edited: readonly OwnField[] = [];

function Held({ saved }: { readonly saved: readonly OwnField[] }) {
  const [fields, setFields] = useState(saved);
  const change = (next: readonly OwnField[]): void => {
    edited = next;
    setFields(next);
  };
  return <FieldsEditor fields={fields} saved={saved} canEdit onChange={change} />;
}

function show(saved: readonly OwnField[], heads: Parameters<typeof standInProject>[0] = []): void {
  edited = saved;
  standInProject(heads, []);
  onThePage(<Held saved={saved} />);
}

const names = (): string[] => edited.filter((f) => !f.removed).map((f) => f.name);
const rename = (from: string, to: string): void => {
  const input = screen.getByLabelText(`Name of the field ${from}`);
  fireEvent.change(input, { target: { value: to } });
  fireEvent.blur(input);
};

test('a field is added, renamed, moved and removed; brought back it has a name of its own', () => {
  show([ownField('Channel', 'text'), ownField('Due', 'date')]);
  fireEvent.click(screen.getByRole('button', { name: 'add a field' }));
  expect(document.activeElement).toBe(screen.getByLabelText('Name of the field Field 3'));
  rename('Field 3', 'Team');
  fireEvent.click(screen.getByRole('button', { name: 'Move Team up' }));
  expect(names()).toEqual(['Channel', 'Team', 'Due']);
  fireEvent.click(screen.getByRole('button', { name: 'Remove the field Channel' }));
  rename('Due', 'channel');
  fireEvent.click(screen.getByRole('button', { name: 'bring back' }));
  expect(names()).toEqual(['Channel (again)', 'Team', 'channel']);
  expect(edited.find((f) => f.name === 'Channel (again)')?.id).toBe('channel');
});

test('a name that a query could not tell from another is not taken', () => {
  show([ownField('Due date', 'date'), ownField('Team', 'text')]);
  fireEvent.change(screen.getByLabelText('Name of the field Team'), { target: { value: 'due-date' } });
  expect(screen.getByText('Another field is called so.').tagName).toBe('SPAN');
  fireEvent.blur(screen.getByLabelText('Name of the field Team'));
  rename('Team', '→');
  expect(names()).toEqual(['Due date', 'Team']);
});

test('before a type is changed for good it is said what does not fit', async () => {
  const heads = ['12', 'dear', '3.5', 'none', 'much'].map((cost, i) => caseHead(i + 1, { own: { cost } }));
  show([ownField('Cost', 'text')], heads);
  await screen.findByText('filled in 5 artefacts');
  fireEvent.click(screen.getByRole('button', { name: 'Type of Cost: Text' }));
  fireEvent.click(screen.getByRole('option', { name: 'Number' }));
  expect((await screen.findByText(/do not fit/)).textContent).toBe(' · 3 values do not fit and stay as written: C-2 “dear”, C-4 “none”, C-5 “much”');
});

test('what a field begins with, its help and the kinds that have it are behind More; one kind at least has it', () => {
  show([ownField('Channel', 'choice', ['Web'], { of: ['case'] })]);
  fireEvent.click(screen.getByRole('button', { name: 'More' }));
  fireEvent.change(screen.getByLabelText('Help for Channel'), { target: { value: 'Where from' } });
  fireEvent.click(screen.getByLabelText('questions'));
  fireEvent.click(screen.getByLabelText(/^Required/));
  fireEvent.click(screen.getByRole('button', { name: 'What Channel begins with: –' }));
  fireEvent.click(screen.getByRole('option', { name: 'Web' }));
  expect(edited).toMatchObject([{ of: ['case', 'question'], help: 'Where from', required: true, begins: 'web' }]);
  fireEvent.click(screen.getByLabelText('questions'));
  expect((screen.getByLabelText('cases') as HTMLInputElement).disabled).toBe(true);
});

describe('choices after their lines were edited', () => {
  const before = [{ id: 'a', name: 'Kiosk' }, { id: 'b', name: 'Phone' }, { id: 'c', name: 'Web' }];
  const ids = (text: string): string[] => rewritten(before, text).map((c) => `${before.some((b) => b.id === c.id) ? c.id : 'new'} ${c.name}`);
  test.each([
    ['the same', 'Kiosk\nPhone\nWeb', ['a Kiosk', 'b Phone', 'c Web']],
    ['moved, and other capitals', 'web\nkiosk\nPhone', ['c web', 'a kiosk', 'b Phone']],
    ['renamed', 'Kiosk\nTelephone\nWeb', ['a Kiosk', 'b Telephone', 'c Web']],
    ['two renamed', 'Kiosk\nTelephone\nBrowser', ['a Kiosk', 'b Telephone', 'c Browser']],
    ['one more', 'Kiosk\nPhone\nWeb\nAPI', ['a Kiosk', 'b Phone', 'c Web', 'new API']],
    ['one less, blanks and twins', '\n Web \nWEB\nKiosk\n', ['c WEB', 'a Kiosk']],
    // Whether one of two was renamed nobody can tell.
    ['two gone and one new', 'Kiosk\nMail', ['a Kiosk', 'new Mail']],
  ])('%s', (_, text, expected) => expect(ids(text)).toEqual(expected));
});
