/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { newRow, parameterId, rowId, type Parameter, type Row } from '@caderno/core/cases';
import { combinedRows, randomRows } from '@caderno/core/making';
import type { MakingWorker } from './making.worker.ts';

let made = 0;
const id = (): string => `made-${(made += 1)}`;
/** Beside the page, where jsdom has no threads. */
const beside: MakingWorker = { combine: (combining, rows) => combinedRows(combining, rows, id), byChance: (columns, count, seed, rows) => randomRows(columns, count, seed, rows, id) };
jest.unstable_mockModule('comlink', () => ({ wrap: () => beside, expose: () => undefined }));
const { MakeRows } = await import('./MakeRows.tsx');

afterEach(cleanup);

const meter: Parameter = { id: parameterId('meter'), name: 'meter', type: 'text', default: '', description: '' };
const inside: Parameter = { id: parameterId('inside'), name: 'inside', type: 'yesNo', default: '', description: '' };
const there: Row = newRow(rowId('one'), 'one', { [meter.id]: 'M-1' });

function open(rows: readonly Row[], parameters: readonly Parameter[]): { readonly added: Row[] } {
  const added: Row[] = [];
  render(<MakeRows rows={rows} parameters={parameters} checks={new Map()} gained={() => new Map()} estimate={null} onAdd={(some) => added.push(...some)} onClose={() => undefined} />);
  return { added };
}
const focused = (): string | null => document.activeElement?.getAttribute('aria-label') ?? null;

test('one begins with the values of the first column, or with whether it is taken', async () => {
  open([there], [meter, inside]);
  await waitFor(() => expect(focused()).toBe('Values of meter'));
  cleanup();
  open([], [meter, inside]);
  await waitFor(() => expect(focused()).toBe('Take meter'));
  expect(screen.getByRole('status').textContent).toBe('Choose at least one column.');
});

test('values are combined with what stands there, and only what is new is added', async () => {
  const { added } = open([there], [meter, inside]);
  await userEvent.type(await screen.findByLabelText('Values of meter'), ', M-2');
  await userEvent.click(screen.getByLabelText('Take inside'));
  expect(screen.getByLabelText<HTMLInputElement>('Values of inside').value).toBe('yes, no');
  await userEvent.click(await screen.findByRole('button', { name: 'Add 4 rows' }));
  expect(added.map((row) => [row.cells[meter.id], row.cells[inside.id]].join(' ')).sort()).toEqual(['M-1 no', 'M-1 yes', 'M-2 no', 'M-2 yes']);
});

test('by chance, as many are made as are typed in place of the number there; the same seed makes the same again, another makes others', async () => {
  const { added } = open([there], [meter]);
  await userEvent.click(screen.getByRole('button', { name: /^Made of/ }));
  await userEvent.click(await screen.findByRole('option', { name: 'by chance' }));
  await userEvent.clear(screen.getByLabelText('Values of meter'));
  const many = screen.getByRole('spinbutton', { name: 'how many' });
  await userEvent.clear(many);
  await userEvent.type(many, '25');
  await userEvent.click(await screen.findByRole('button', { name: 'Add 25 rows' }));
  const first = added.map((row) => row.cells[meter.id]);
  await userEvent.type(screen.getByRole('spinbutton', { name: 'seed' }), '7');
  await userEvent.click(await screen.findByRole('button', { name: 'Add 25 rows' }));
  await userEvent.clear(screen.getByRole('spinbutton', { name: 'seed' }));
  await userEvent.type(screen.getByRole('spinbutton', { name: 'seed' }), '1');
  await userEvent.click(await screen.findByRole('button', { name: 'Add 25 rows' }));
  const [other, again] = [added.slice(25, 50), added.slice(50)].map((rows) => rows.map((row) => row.cells[meter.id]));
  expect([new Set(first).size, again]).toEqual([25, first]);
  expect(other).not.toEqual(first);
});
