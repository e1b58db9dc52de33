import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CaseId } from '../artefacts/index.ts';
import { NO_ITEMS } from '../coverage/index.ts';
import { testField } from '../fields/testField/index.ts';
import { formatDecimal } from '../values/index.ts';
import { MOST_CELLS, countsOf, drawnFigure, figureOf, groupsOf, measuresOf, ownColumn, valueIn, type Figure, type ListColumn, type Listed, type Measure } from './index.ts';

const now = Date.parse('2026-11-28T10:00:00Z');
const listed = (id: CaseId, part: Partial<Listed> = {}): Listed => ({ kind: 'case', id, title: id, state: 'draft', version: 1, author: '', at: '2026-11-28T09:00:00Z', broken: false, own: {}, modules: [''], ...part });
const fields = [testField('Runs on', 'choices', { choices: ['Phone', 'Kiosk'] }), testField('Cost', 'number')];
const cost = ownColumn(fields[1]!.id);
const project = { fields, modules: ['Zulu', 'Alpha'], priorities: ['must', 'should'] };
const written = (figure: Figure): string => (figure === null ? '–' : figure.kind === 'share' ? `${figure.share.part}/${figure.share.of}` : formatDecimal(figure.amount));

describe('counts of a list', () => {
  test('a table by two columns, in their orders; who has several values stands in several cells, and once in each sum', () => {
    const list = [listed('C-1', { modules: ['Zulu'], tags: ['smoke', 'night'] }), listed('C-2', { modules: ['Alpha'], tags: ['night'] }), listed('C-3', { tags: [] })];
    const counts = countsOf(list, { down: 'module', across: 'tags', measure: 'number' }, now, project)!;
    expect(counts.across.map((c) => [c.value, written(c.figure)])).toEqual([['night', '2'], ['smoke', '1'], [null, '1']]);
    expect(counts.lines.map((l) => [l.value, written(l.figure), l.cells.map((c) => written(c.figure)).join(' ')])).toEqual([['Zulu', '1', '1 1 0'], ['Alpha', '1', '1 0 0'], [null, '1', '0 0 1']]);
    expect(written(counts.whole.figure)).toBe('3');
  });

  test('each cell holds whoever has both values and nobody else, and each sum whoever stands in any of its cells', () => {
    const some = fc.record({ state: fc.constantFrom('draft', 'agreed'), owner: fc.constantFrom('', 'Rui', 'ana'), tags: fc.subarray(['b', 'a', 'c']), modules: fc.subarray(['', 'Zulu', 'Other'], { minLength: 1 }), own: fc.record({ 'runs-on': fc.subarray(['kiosk', 'phone']) }, { requiredKeys: [] }), steps: fc.nat(9) });
    const columns = fc.constantFrom(...groupsOf('case', fields).filter((c) => c !== 'updated'));
    // Slow and obvious: asked of each, cell by cell.
    const has = (l: Listed, column: ListColumn, value: string | null): boolean => {
      const its = [valueIn(column, l, fields) ?? []].flat() as string[];
      return value === null ? its.length === 0 : its.includes(value);
    };
    fc.assert(
      fc.property(fc.array(some, { maxLength: 25 }), columns, columns, (parts, down, across) => {
        const list = parts.map((part, i) => listed(`C-${i + 1}`, part));
        const counts = countsOf(list, { down, across, measure: 'steps' }, now, project)!;
        const steps = (members: readonly Listed[]): string => (members.length === 0 ? '–' : String(members.reduce((sum, l) => sum + l.steps!, 0)));
        for (const line of counts.lines) {
          for (const [i, cell] of line.cells.entries()) {
            const both = list.filter((l) => has(l, down, line.value) && has(l, across, counts.across[i]!.value));
            expect([cell.members, written(cell.figure)]).toEqual([both, steps(both)]);
          }
          expect(new Set(line.cells.flatMap((c) => c.members))).toEqual(new Set(line.members));
          expect(written(line.figure)).toBe(steps(list.filter((l) => has(l, down, line.value))));
        }
        expect(new Set(counts.lines.flatMap((l) => l.members))).toEqual(new Set(list));
        expect([counts.whole.members, written(counts.whole.figure)]).toEqual([list, steps(list)]);
      }),
      { seed: 11 },
    );
  });

  test('sums are exact; minutes are those of all instances; nothing is no figure, and no number is left out', () => {
    const list = [listed('C-1', { own: { cost: '0.1' }, estimate: 0.1, instances: 3 }), listed('C-2', { own: { cost: '0.20' } }), listed('C-3', { own: { cost: 'dear' } }), listed('C-4')];
    expect(written(figureOf(list, cost, fields))).toBe('0.30');
    expect(written(figureOf(list, 'minutes', fields))).toBe('0.3');
    expect([figureOf(list.slice(2), cost, fields), figureOf([], 'minutes', fields)]).toEqual([null, null]);
  });

  test('how much is shown is weighed by items, and asked of nobody who has none', () => {
    const of = (shown: number, gap: number) => ({ standings: { ...NO_ITEMS, shown, gap } });
    const figure = figureOf([listed('C-1', of(1, 0)), listed('C-2', of(0, 9)), listed('C-3')], 'coverage', fields);
    expect([written(figure), drawnFigure(figure)]).toEqual(['1/10', 10]);
    expect(figureOf([listed('C-3'), listed('C-4', of(0, 0))], 'coverage', fields)).toBeNull();
  });

  test('a chart draws no finer than numbers of the machine', () => {
    expect([drawnFigure({ kind: 'amount', amount: { units: -125n, scale: 1 } }), drawnFigure({ kind: 'share', share: { part: 2, of: 3 } }), drawnFigure(null)]).toEqual([-12.5, 66, null]);
  });

  test('what nobody could read is not counted', () => {
    const list = Array.from({ length: MOST_CELLS / 200 + 1 }, (_, i) => listed(`C-${i + 1}`, { owner: `o${i}`, tags: [`t${i}`] }));
    expect(countsOf(list, { down: 'owner', across: 'tags', measure: 'number' }, now, project)).toBeNull();
    expect(countsOf(list, { down: 'owner', across: null, measure: 'number' }, now, project)?.lines).toHaveLength(list.length);
  });

  test('what can be told of a kind', () => {
    const measures: readonly (readonly Measure[])[] = [measuresOf('case', fields), measuresOf('condition', []), measuresOf('question', [])];
    expect(measures).toEqual([['number', 'steps', 'rows', 'instances', 'minutes', cost], ['number', 'coverage'], ['number', 'heldUp']]);
  });
});
