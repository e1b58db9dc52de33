/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { fieldId, tableProblems, type DecisionTableModel } from '@caderno/core/conditions';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';

/** Judged beside the page, as late as a test wants it. */
const waiting: { readonly model: DecisionTableModel; readonly answer: () => void }[] = [];
jest.unstable_mockModule('../checking/modelCheck.ts', () => ({
  checkTable: (model: DecisionTableModel) => new Promise((resolve) => waiting.push({ model, answer: () => resolve(tableProblems(model)) })),
}));
const { TableEditor } = await import('./TableEditor.tsx');

afterEach(cleanup);

/** One condition of yes and no, and one rule: for yes, or (`-`) for any. */
const newTable = (entry: 'y' | '-'): DecisionTableModel => ({
  kind: 'decisionTable',
  conditions: [{ id: fieldId('member'), name: 'member', values: ['y', 'n'].map((id) => ({ id, value: id, aliases: [] })) }],
  actions: [],
  rules: [{ id: 'r1', entries: entry === '-' ? {} : { member: ['y'] }, impossible: false, actions: {} }],
});

function Page({ first, next }: { readonly first: DecisionTableModel; readonly next: DecisionTableModel }) {
  const [model, setModel] = useState(first);
  return (
    <>
      <button onClick={() => setModel(next)}>Type on</button>
      <span title="Rules">{model.rules.length}</span>
      <TableEditor name="t" model={model} items={[]} canEdit onChange={(change) => setModel(change)} />
    </>
  );
}

test('what is missing is that of the table as it is, also when one types ahead of what was judged', async () => {
  const [half, whole] = [newTable('y'), newTable('-')];
  render(<Page first={half} next={whole} />);
  act(() => waiting.shift()!.answer());
  const add = await screen.findByRole('button', { name: /Add what is missing/ });
  // One types on, so that nothing is missing any more; the judgement of that has not come yet.
  fireEvent.click(screen.getByRole('button', { name: 'Type on' }));
  fireEvent.click(add);
  await waitFor(() => expect(waiting.length).toBeGreaterThan(1));
  await act(async () => {
    for (const { answer } of waiting.splice(0)) answer();
  });
  expect(screen.getByTitle('Rules').textContent).toBe('1');
});

test('what is judged already is added at once', async () => {
  const half = newTable('y');
  render(<Page first={half} next={half} />);
  act(() => waiting.shift()!.answer());
  fireEvent.click(await screen.findByRole('button', { name: /Add what is missing/ }));
  await waitFor(() => expect(screen.getByTitle('Rules').textContent).toBe('2'));
});

test('the next key finds the rule one is at, however late a frame comes', () => {
  const never = jest.spyOn(window, 'requestAnimationFrame').mockReturnValue(0);
  render(<Page first={newTable('y')} next={newTable('-')} />);
  const at = (): string | undefined => (document.activeElement instanceof HTMLElement ? document.activeElement.dataset.cell : undefined);
  const press = (key: string): void => void fireEvent.keyDown(document.activeElement ?? document.body, { key, ctrlKey: true });
  screen.getByRole('grid').querySelector<HTMLElement>('[data-cell="0 0"]')?.focus();
  press('d');
  expect([at(), screen.getByTitle('Rules').textContent]).toEqual(['0 1', '2']);
  // What had the focus goes, and the rule before it is at hand for the key that follows.
  press('Backspace');
  expect([at(), screen.getByTitle('Rules').textContent]).toEqual(['0 0', '1']);
  never.mockRestore();
});
