import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { artefactId } from '../artefacts/index.ts';
import { CELL_STANDINGS, type MatrixCells } from '../coverage/index.ts';
import { PLAIN_VIEW, arranged, axisLines, byPartner, cellAt, cellStanding, firstFrom, groupedLike, itemLines, matrixOf, type AxisItem, type AxisView } from './index.ts';

const SIZE = 5;
const counts = fc.array(fc.nat(3), { minLength: CELL_STANDINGS.length, maxLength: CELL_STANDINGS.length });
const someCells = fc.uniqueArray(fc.tuple(fc.nat(SIZE - 1), fc.nat(SIZE - 1), counts), { selector: ([a, b]) => `${a} ${b}`, maxLength: 12 }).map(
  (list): MatrixCells => ({ conditions: Array.from({ length: SIZE }, (_, i) => artefactId('condition', i + 1)), columns: Array.from({ length: SIZE }, (_, i) => `C-${i + 1}`), cells: list.flatMap(([a, b, of]) => [a, b, ...of]) }),
);
const someItems = fc.array(fc.record({ group: fc.constantFrom('', 'readings', 'bills'), places: fc.uniqueArray(fc.nat(SIZE - 1), { maxLength: 3 }) }), { maxLength: 6 }).map((list) => list.map((item, i): AxisItem => ({ id: `x${i}`, ...item })));
const folding = fc.uniqueArray(fc.constantFrom('', 'readings', 'bills')).map((groups) => new Set<string>(groups));

test('a matrix says of every row and column the sum of what both stand for, either way round', () => {
  fc.assert(
    fc.property(someCells, someItems, someItems, folding, folding, fc.boolean(), (cells, downItems, acrossItems, foldedDown, foldedAcross, turned) => {
      const [down, across] = [axisLines(downItems, foldedDown), axisLines(acrossItems, foldedAcross)];
      const matrix = matrixOf(cells, down, across, turned);
      const met = across.map(() => 0);
      down.forEach((row, r) => {
        across.forEach((column, c) => {
          const [conditions, columns] = turned ? [column.places, row.places] : [row.places, column.places];
          const found: number[][] = [];
          for (let at = 0; at < cells.cells.length; at += 7) if (conditions.includes(cells.cells[at] ?? -1) && columns.includes(cells.cells[at + 1] ?? -1)) found.push(cells.cells.slice(at + 2, at + 7));
          const cell = cellAt(matrix.rows[r] ?? [], c);
          expect(cell?.counts).toEqual(found.length === 0 ? undefined : CELL_STANDINGS.map((_, i) => found.reduce((sum, of) => sum + (of[i] ?? 0), 0)));
          if (cell !== undefined) met[c] = (met[c] ?? 0) + 1;
          expect(firstFrom(matrix.rows[r] ?? [], c)).toBe((matrix.rows[r] ?? []).filter((x) => x.at < c).length);
        });
      });
      expect(matrix.met).toEqual(met);
    }),
  );
});

test('items stand below the heading of their group, once each; folded, a heading stands for all that they stand for', () => {
  fc.assert(
    fc.property(someItems, folding, (items, folded) => {
      const lines = axisLines(items, folded);
      const groups = [...new Set(items.map((i) => i.group))];
      if (groups.length < 2) return expect(lines).toEqual(itemLines(items));
      expect(lines.flatMap((l) => (l.kind === 'heading' ? [l.group] : []))).toEqual(groups);
      let heading = '';
      for (const line of lines) {
        if (line.kind === 'heading') {
          heading = line.group;
          const of = items.filter((i) => i.group === heading);
          expect(line).toMatchObject({ items: of.length, folded: folded.has(heading) });
          expect([...line.places].sort()).toEqual(folded.has(heading) ? [...new Set(of.flatMap((i) => i.places))].sort() : []);
        } else expect([line.item.group, folded.has(heading)]).toEqual([heading, false]);
      }
      const like = groupedLike(items, [...items].reverse());
      expect([...new Set(like.map((i) => i.group))]).toEqual([...new Set([...items].reverse().map((i) => i.group))]);
      for (const group of groups) expect(like.filter((i) => i.group === group)).toEqual(items.filter((i) => i.group === group));
      expect(lines.flatMap((l) => (l.kind === 'item' ? [l.item.id] : [])).sort()).toEqual(items.filter((i) => !folded.has(i.group)).map((i) => i.id).sort());
    }),
  );
});

test('a cell looks like the best that is in it; by a partner, those that show most stand first and those without it stay as they were', () => {
  const cell = (...of: readonly number[]) => ({ at: 0, counts: of });
  expect([cell(1, 0, 0, 7, 0), cell(0, 1, 2, 0, 0), cell(0, 0, 0, 3, 1), cell(0, 0, 0, 0, 2)].map(cellStanding)).toEqual(['shown', 'suspect', 'linked', 'leftOut']);
  expect(byPartner([undefined, cell(0, 0, 0, 2, 0), cell(1, 0, 0, 9, 0), undefined, cell(4, 0, 0, 0, 0), cell(0, 0, 0, 0, 1)])).toEqual([4, 2, 1, 5, 0, 3]);
});

test('an axis is seen by what it meets of the other: only that, the most first, by one of them, or what meets nothing', () => {
  const item = (id: string, group: string, ...places: readonly number[]): AxisItem => ({ id, group, places });
  // K-1 meets C-1 and C-2, K-2 only C-2; K-3 and C-3 meet nothing.
  const cells: MatrixCells = { conditions: ['K-1', 'K-2', 'K-3'], columns: ['C-1', 'C-2'], cells: [0, 0, 1, 0, 0, 0, 0, 0, 1, 2, 0, 0, 0, 0, 1, 1, 0, 0, 0, 3, 0] };
  const requirements = [item('R-1', 'a', 2), item('R-2', 'b', 1), item('R-3', 'a', 0), item('R-4', 'b')];
  const cases = [item('C-1', '', 0), item('C-2', '', 1), item('C-3', '')];
  const down = { all: requirements, found: requirements };
  const across = { all: cases, found: cases };
  const seen = (view: Partial<AxisView>, axis = down, other = across, turned = false): string[] => arranged(cells, axis, other, { ...PLAIN_VIEW, ...view }, turned).map((l) => (l.kind === 'heading' ? `${l.group}:` : l.item.id));
  expect(seen({})).toEqual(['a:', 'R-1', 'R-3', 'b:', 'R-2', 'R-4']);
  expect(seen({ folded: new Set(['a']) })).toEqual(['a:', 'b:', 'R-2', 'R-4']);
  expect(seen({ order: { kind: 'most' } })).toEqual(['R-3', 'R-2', 'R-1', 'R-4']);
  expect(seen({ order: { kind: 'fewest' } })).toEqual(['R-1', 'R-4', 'R-2', 'R-3']);
  expect(seen({ order: { kind: 'partner', id: 'C-2' } })).toEqual(['R-3', 'R-2', 'R-1', 'R-4']);
  expect(seen({ order: { kind: 'partner', id: 'C-9' } })).toEqual(seen({}));
  expect(seen({ alone: true })).toEqual(['a:', 'R-1', 'b:', 'R-4']);
  expect(seen({ meets: 'C-1' })).toEqual(['R-3']);
  expect(seen({ meets: 'R-2' }, across, down, true)).toEqual(['C-2']);
  expect(seen({ alone: true }, across, down, true)).toEqual(['C-3']);
  // Where nothing but C-1 could be met, K-2 meets nothing; what a query leaves away is met all the same.
  expect(seen({ alone: true, order: { kind: 'most' } }, down, { all: [item('C-1', '', 0)], found: [] })).toEqual(['R-1', 'R-2', 'R-4']);
  expect(seen({ alone: true, order: { kind: 'most' } }, down, { all: cases, found: [] })).toEqual(['R-1', 'R-4']);
  // By one that the query of its own axis leaves out it is ordered all the same.
  expect(seen({ order: { kind: 'partner', id: 'C-2' } }, down, { all: cases, found: [] })[0]).toBe('R-3');
});
