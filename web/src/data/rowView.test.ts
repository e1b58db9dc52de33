import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newRow, parameterId, rowId, type Row } from '@caderno/core/cases';
import { AS_KEPT, lookAt, orderOf, type RowView } from './rowView.ts';

const x = { id: parameterId('x'), name: 'x', type: 'whole' as const, default: '', description: '' };
const rowsOf = (...values: number[]): Row[] => values.map((value, i) => newRow(rowId(`r${i}`), `row ${i}`, { x: String(value) }));
const seen = (rows: readonly Row[], order: readonly number[]) => order.map((place) => rows[place]?.cells.x);
const byValue: RowView = { sort: { by: x.id, descending: false }, filters: [] };

test('rows are seen in the order of the view and kept in their own', () => {
  const rows = rowsOf(3, 1, 2);
  expect(seen(rows, orderOf(rows, AS_KEPT))).toEqual(['3', '1', '2']);
  expect(seen(rows, orderOf(rows, lookAt(rows, [x], byValue)))).toEqual(['1', '2', '3']);
  expect(orderOf(rows, lookAt(rows, [x], { sort: null, filters: [{ id: x.id, text: '>1' }] }))).toEqual([0, 2]);
  expect(lookAt(rows, [x], { sort: null, filters: [{ id: x.id, text: ' ' }] }).ids).toBeNull();
});

test('whatever is written, added or removed meanwhile, no row jumps, and each that is there and passed is seen once', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(9), { minLength: 1, maxLength: 6 }), fc.array(fc.tuple(fc.constantFrom('write', 'add', 'remove'), fc.nat(5), fc.nat(9)), { maxLength: 6 }), (values, edits) => {
      let rows = rowsOf(...values);
      const look = lookAt(rows, [x], { ...byValue, filters: [{ id: x.id, text: '<8' }] });
      const before = look.ids ?? [];
      edits.forEach(([what, at, value], i) => {
        if (what === 'write') rows = rows.map((r, j) => (j === at ? { ...r, cells: { x: String(value) } } : r));
        else if (what === 'add') rows = rows.toSpliced(at, 0, newRow(rowId(`new${i}`), '', { x: String(value) }));
        else rows = rows.filter((_, j) => j !== at);
      });
      const ids = orderOf(rows, look).map((place) => rows[place]?.id ?? '');
      expect(ids.filter((id) => !id.startsWith('new'))).toEqual(before.filter((id) => rows.some((r) => r.id === id)));
      expect(ids.filter((id) => id.startsWith('new'))).toEqual(rows.filter((r) => r.id.startsWith('new')).map((r) => r.id));
    }),
  );
});
