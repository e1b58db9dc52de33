/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Labelled } from './Labelled.tsx';
import { NumberBox } from './NumberBox.tsx';
import { Select } from './Select.tsx';
import { TextArea, TextBox } from './TextBox.tsx';
import { followPrinting } from './useMedia.ts';

afterEach(cleanup);

/** What was said of a number, in order; that the last stays is shown by the field. */
const said: (number | null)[] = [];
afterEach(() => void said.splice(0));

function Most({ needed = false, withParts = false }: { readonly needed?: boolean; readonly withParts?: boolean }) {
  const [most, setMost] = useState<number | null>(5000);
  const change = (number: number | null): void => {
    said.push(number);
    if (number !== null || !needed) setMost(number);
  };
  return <NumberBox aria-label="Most" min={100} max={10_000} withParts={withParts} value={most} onChange={change} />;
}
const box = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Most' });
const isWrong = () => box().getAttribute('aria-invalid') === 'true';

test('another number is typed in place of the one there, as it is said aloud, though it is too small on its way', async () => {
  render(<Most needed />);
  await userEvent.clear(box());
  expect(box().value).toBe('');
  await userEvent.type(box(), '250');
  expect([box().value, said]).toEqual(['250', [null, 250]]);
  await userEvent.tab();
  expect([box().value, isWrong()]).toEqual(['250', false]);
});

test('what is out of bounds is red while it stands there, and the nearest that is not when one has left', async () => {
  render(<Most needed />);
  await userEvent.clear(box());
  await userEvent.type(box(), '7');
  expect([box().value, isWrong(), said]).toEqual(['7', true, [null]]);
  expect(box().title).toBe('A whole number from 100 to 10,000');
  await userEvent.tab();
  expect([box().value, isWrong(), said]).toEqual(['100', false, [null, 100]]);
  expect(box().title).toBe('');
  await userEvent.clear(box());
  await userEvent.type(box(), '123456');
  await userEvent.tab();
  expect(box().value).toBe('10000');
  await userEvent.clear(box());
  await userEvent.type(box(), '300.6');
  expect(isWrong()).toBe(true);
  await userEvent.tab();
  expect(box().value).toBe('301');
});

test('emptied, it is nothing, or else what it was', async () => {
  const { unmount } = render(<Most />);
  await userEvent.clear(box());
  await userEvent.tab();
  expect([box().value, isWrong(), said]).toEqual(['', false, [null]]);
  unmount();
  render(<Most needed />);
  await userEvent.clear(box());
  await userEvent.tab();
  expect(box().value).toBe('5000');
});

test('parts of one are taken where they may be', async () => {
  render(<Most withParts />);
  await userEvent.clear(box());
  await userEvent.type(box(), '250.5');
  await userEvent.tab();
  expect([box().value, said.at(-1)]).toEqual(['250.5', 250.5]);
});

function Form() {
  const [name, setName] = useState('');
  const [note, setNote] = useState('');
  const [role, setRole] = useState<'reader' | 'lead'>('reader');
  return (
    <>
      <Labelled label="Name" hint="of two words">
        <TextBox value={name} onChange={setName} />
      </Labelled>
      <Labelled label="Note" pale>
        <TextArea value={note} onChange={setNote} />
      </Labelled>
      <Labelled label="Role">
        <Select value={role} options={[{ value: 'reader', name: 'who reads' }, { value: 'lead', name: 'who leads' }]} onChange={setRole} />
      </Labelled>
      <output>{[name, note, role].join('|')}</output>
    </>
  );
}

test('a field is found by its name, and tells what is typed or chosen', async () => {
  render(<Form />);
  await userEvent.type(screen.getByRole('textbox', { name: 'Name of two words' }), 'Night run');
  await userEvent.type(screen.getByRole('textbox', { name: 'Note' }), 'a{Enter}b');
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Role' }), 'who leads');
  expect(screen.getByRole('status').textContent).toBe('Night run|a\nb|lead');
});

test('on paper a line to type into has all of its text, and a password has none; then it is typed into as before', async () => {
  followPrinting();
  const [long, secret] = ['https://billing.example/a/long/way', 'token'];
  const { container } = render(
    <>
      <TextBox aria-label="Address" value={long} onChange={() => {}} className="w-20" />
      <TextBox aria-label="Token" type="password" value={secret} onChange={() => {}} />
    </>,
  );
  const [address, token] = [screen.getByRole('textbox', { name: 'Address' }), screen.getByLabelText('Token')];
  expect([container.textContent, address.className.includes('print:hidden'), token.className.includes('print:hidden')]).toEqual(['', true, false]);
  address.focus();
  act(() => void dispatchEvent(new Event('beforeprint')));
  expect([container.textContent, document.activeElement]).toEqual([long, address]);
  act(() => void dispatchEvent(new Event('afterprint')));
  expect([container.textContent, document.activeElement]).toEqual(['', address]);
});
