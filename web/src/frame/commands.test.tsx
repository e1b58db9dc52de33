/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useMemo } from 'react';
import { useAllCommands, useCommands, type Command } from './commands.ts';

let done: string[] = [];
beforeEach(() => {
  done = [];
});
afterEach(cleanup);

function Page({ dialog = false, saves = true }: { readonly dialog?: boolean; readonly saves?: boolean }) {
  const commands = useMemo<Command[]>(
    () => [
      { id: 'new', title: 'New case', keys: 'n', changes: true, run: () => done.push('new') },
      { id: 'next', title: 'Next case', keys: 'j', run: () => done.push('next') },
      ...(saves ? [{ id: 'save', title: 'Save', keys: '$mod+s', whileTyping: true, run: () => done.push('save') }] : []),
    ],
    [saves],
  );
  useCommands(commands);
  return (
    <>
      <ul>{useAllCommands().map((c) => <li key={c.id}>{c.title}</li>)}</ul>
      <input aria-label="Words" />
      <button>A button</button>
      <a href="#x">A link</a>
      {dialog && <div role="dialog" aria-modal="true"><input aria-label="In the dialog" /></div>}
    </>
  );
}
const press = (target: Element, key: string, more = {}): boolean => fireEvent.keyDown(target, { key, bubbles: true, ...more });

test('letters act on the page and on its links, never while one types; what changes something is no button’s either', () => {
  render(<Page />);
  press(screen.getByLabelText('Words'), 'n');
  press(screen.getByLabelText('Words'), 'j');
  expect(done).toEqual([]);
  press(screen.getByRole('button'), 'n');
  expect(done).toEqual([]);
  press(document.body, 'n');
  press(screen.getByRole('link'), 'n');
  press(screen.getByRole('button'), 'j');
  expect(done).toEqual(['new', 'new', 'next']);
});

test('keys with a modifier act while one types, and nothing reaches under a dialog', () => {
  const { rerender } = render(<Page />);
  press(screen.getByLabelText('Words'), 's', { ctrlKey: true });
  expect(done).toEqual(['save']);
  rerender(<Page dialog />);
  press(screen.getByLabelText('In the dialog'), 's', { ctrlKey: true });
  press(document.body, 'n');
  expect(done).toEqual(['save']);
});

test('what the page no longer offers is neither listed nor done', () => {
  const { rerender, unmount } = render(<Page />);
  expect(screen.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['New case', 'Next case', 'Save']);
  rerender(<Page saves={false} />);
  press(document.body, 's', { ctrlKey: true });
  expect([screen.getAllByRole('listitem').length, done]).toEqual([2, []]);
  unmount();
  press(document.body, 'j');
  expect(done).toEqual([]);
});
