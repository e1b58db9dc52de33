/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { newRow, parameterId, rowId, type Parameter, type Row } from '@caderno/core/cases';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { gridColumns, type DataTable } from './table.ts';
import { useGridInput } from './useGridInput.ts';

afterEach(cleanup);

const parameter = (name: string): Parameter => ({ id: parameterId(name), name, type: 'text', default: '', description: '' });
const [A, B] = [parameter('a'), parameter('b')];
const row = (name: string, a: string, b: string): Row => ({ ...newRow(rowId(name), name), cells: { [A.id]: a, [B.id]: b } });
const TABLE: DataTable = { parameters: [A, B], rows: [row('r1', '1', '2'), row('r2', '', ''), row('r3', '5', '6')] };

let table: DataTable;
let chosen: string | null = null;

const keep = (now: DataTable): DataTable => (table = now);

/** The input of a grid with nothing but its cells. */
function Grid({ first, canEdit = true }: { readonly first: DataTable; readonly canEdit?: boolean }) {
  const [now, setNow] = useState(() => keep(first));
  const columns = gridColumns(now.parameters, new Set(), false);
  const { selection, extent, edit, size, keyDown, copy, cut, paste, onCell } = useGridInput({ rows: now.rows, columns, order: now.rows.map((_, i) => i), canEdit, isWhole: true, update: (change) => setNow((before) => keep(change(before))), onChoose: (id) => (chosen = id) });
  return (
    <div role="grid" onKeyDown={(e) => keyDown(e, null)} onCopy={copy} onCut={cut} onPaste={paste}>
      <output title="Selected">{extent === null ? '' : `${extent.top},${extent.left} to ${extent.bottom},${extent.right}`}</output>
      <output title="Written">{edit ?? '-'}</output>
      {Array.from({ length: size.row * size.column }, (_, i) => ({ row: Math.floor(i / size.column), column: i % size.column })).map((at) => (
        <button key={`${at.row} ${at.column}`} data-cell={`${at.row}/${at.column}`} aria-label={`cell ${at.row} ${at.column}`} aria-selected={selection?.focus.row === at.row} onClick={(e) => onCell.select(at, e.shiftKey)} onDoubleClick={() => onCell.open(at)} onInput={() => onCell.edit('typed')} />
      ))}
    </div>
  );
}

const cell = (r: number, c: number): HTMLElement => screen.getByRole('button', { name: `cell ${r} ${c}` });
const key = (name: string, more = {}): void => void fireEvent.keyDown(cell(0, 0), { key: name, ...more });
const selected = (): string | null => screen.getByTitle('Selected').textContent;
const written = (): string | null => screen.getByTitle('Written').textContent;
const texts = (): string[][] => table.rows.map((r) => [r.name, r.cells[A.id] ?? '', r.cells[B.id] ?? '']);
const clipboard = (text = '') => {
  const kept = { text };
  return { kept, getData: () => kept.text, setData: (_: string, t: string) => void (kept.text = t) };
};

test('typing replaces a cell, Enter keeps it and goes down, Escape gives it up; the last line becomes a row', () => {
  render(<Grid first={TABLE} />);
  fireEvent.click(cell(0, 1));
  expect([selected(), chosen]).toEqual(['0,1 to 0,1', 'r1']);
  key('7');
  expect(written()).toBe('7');
  key('Enter');
  expect([texts()[0], selected(), written()]).toEqual([['r1', '7', '2'], '1,1 to 1,1', '-']);
  key('F2');
  fireEvent.input(cell(1, 1));
  key('Escape');
  expect([texts()[1], written()]).toEqual([['r2', '', ''], '-']);
  fireEvent.click(cell(3, 2));
  key('9');
  key('Enter', { shiftKey: true });
  expect([texts()[3], selected()]).toEqual([['row 4', '', '9'], '2,2 to 2,2']);
});

test('a range is selected, copied as a spreadsheet takes it, cut, emptied; rows from end to end are removed', () => {
  render(<Grid first={TABLE} />);
  fireEvent.click(cell(0, 1));
  key('ArrowRight', { shiftKey: true });
  key('ArrowDown', { shiftKey: true });
  expect(selected()).toBe('0,1 to 1,2');
  const board = clipboard();
  fireEvent.copy(cell(0, 0), { clipboardData: board });
  expect(board.kept.text).toBe('1\t2\n\t');
  fireEvent.cut(cell(0, 0), { clipboardData: clipboard() });
  expect(texts()[0]).toEqual(['r1', '', '']);
  fireEvent.click(cell(2, 2));
  key('Delete');
  expect(texts()[2]).toEqual(['r3', '5', '']);
  fireEvent.click(cell(1, 0));
  key('End', { shiftKey: true });
  key('Backspace');
  expect(table.rows.map((r) => r.name)).toEqual(['r1', 'r3']);
});

test('a paste goes over what is there, makes the rows it needs, and where there is no column yet makes those too', () => {
  render(<Grid first={TABLE} />);
  fireEvent.click(cell(2, 1));
  fireEvent.paste(cell(0, 0), { clipboardData: clipboard('x\ty\nu\tv\n') });
  expect(texts().slice(2)).toEqual([['r3', 'x', 'y'], ['row 4', 'u', 'v']]);
  cleanup();
  render(<Grid first={{ parameters: [], rows: [] }} />);
  fireEvent.click(cell(0, 0));
  fireEvent.paste(cell(0, 0), { clipboardData: clipboard('reading\tmeter\n12\tM-1\n13\tM-2') });
  expect([table.parameters.map((p) => p.name), table.rows.length]).toEqual([['reading', 'meter'], 2]);
});

test('Tab goes cell by cell and out at the end; after Escape it leaves at once; who may only read writes nothing', () => {
  render(<Grid first={TABLE} canEdit={false} />);
  fireEvent.click(cell(0, 2));
  key('Tab');
  expect(selected()).toBe('1,0 to 1,0');
  expect(fireEvent.keyDown(cell(1, 0), { key: 'Escape' })).toBe(false);
  // Not taken: the browser goes on.
  expect(fireEvent.keyDown(cell(1, 0), { key: 'Tab' })).toBe(true);
  key('7');
  key('Delete');
  fireEvent.paste(cell(0, 0), { clipboardData: clipboard('x\ty') });
  expect([texts(), written()]).toEqual([TABLE.rows.map((r) => [r.name, r.cells[A.id], r.cells[B.id]]), '-']);
  key('a', { ctrlKey: true });
  expect(selected()).toBe('0,0 to 2,2');
});
