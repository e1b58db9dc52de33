import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fitsType, newRow, parameterId, rowId, type Parameter, type ParameterType, type Row } from '../cases/index.ts';
import { combinedRows, randomRows } from './index.ts';

const column = (name: string, type: ParameterType = 'text'): Parameter => ({ id: parameterId(name), name, type, default: '', description: '' });
const ids = () => {
  let n = 0;
  return () => `n${(n += 1)}`;
};
const NAMES = ['a', 'b', 'c', 'd'];

describe('combined', () => {
  test('every pair that is allowed stands in a row, of before or made; none that is not; no row twice', () => {
    const value = fc.constantFrom('1', '2', '3');
    let made = 0;
    fc.assert(
      fc.property(fc.uniqueArray(value, { minLength: 1 }), fc.uniqueArray(value, { minLength: 1 }), fc.uniqueArray(value, { minLength: 1 }), fc.array(fc.tuple(value, value, value), { maxLength: 3 }), fc.boolean(), (a, b, c, before, isConstrained) => {
        const columns = [a, b, c].map((values, i) => ({ parameter: column(NAMES[i] ?? ''), values }));
        const rows: Row[] = before.map(([x, y, z], i) => newRow(rowId(`r${i}`), '', { a: x, b: y, c: z }));
        const isForbidden = (cells: Readonly<Record<string, string>>) => isConstrained && cells.a === '1' && cells.b === '2';
        const constraints = isConstrained && a.includes('1') && b.includes('2') ? 'not (a = 1 and b = 2)' : '';
        const answer = combinedRows({ columns, strength: 'pairs', constraints, seed: 3 }, rows, ids());
        if (answer.kind !== 'made') {
          expect(answer).toMatchObject({ kind: 'problems' });
          return;
        }
        made += answer.rows.length;
        const all = [...rows.filter((r) => !isForbidden(r.cells)), ...answer.rows];
        const wanted = [[0, 1], [0, 2], [1, 2]].flatMap(([i = 0, j = 0]) => (columns[i]?.values ?? []).flatMap((x) => (columns[j]?.values ?? []).map((y) => ({ [NAMES[i] ?? '']: x, [NAMES[j] ?? '']: y }))));
        for (const pair of wanted.filter((p) => !isForbidden(p))) {
          // A pair is impossible too when every third value is excluded with it.
          const isPossible = a.some((x) => b.some((y) => c.some((z) => !isForbidden({ a: x, b: y }) && Object.entries(pair).every(([k, v]) => ({ a: x, b: y, c: z })[k] === v))));
          if (isPossible) expect(all.some((r) => Object.entries(pair).every(([k, v]) => r.cells[k] === v))).toBe(true);
        }
        expect(answer.rows.some((r) => isForbidden(r.cells))).toBe(false);
        const keys = [...rows, ...answer.rows].map((r) => NAMES.map((n) => r.cells[n] ?? '').join());
        expect(new Set(answer.rows.map((r) => NAMES.map((n) => r.cells[n] ?? '').join())).size).toBe(answer.rows.length);
        for (const row of answer.rows) expect(keys.filter((k) => k === NAMES.map((n) => row.cells[n] ?? '').join())).toHaveLength(1);
      }),
    );
    expect(made).toBeGreaterThan(100);
  });

  test('everything with everything leaves out what is there; more than the limit is counted and refused; what is misread is told', () => {
    const columns = [column('a'), column('b')].map((parameter) => ({ parameter, values: ['1', '2', '3'] }));
    const there = [newRow(rowId('r'), '', { a: '2', b: '3' })];
    const answer = combinedRows({ columns, strength: 'all', constraints: '', seed: 1 }, there, ids());
    expect(answer).toMatchObject({ kind: 'made', combinations: 9, shownBefore: 1 });
    expect(answer.kind === 'made' && answer.rows.length).toBe(8);
    expect(combinedRows({ columns, strength: 'all', constraints: '', seed: 1 }, [], ids(), 8)).toEqual({ kind: 'tooMany', combinations: 9n, most: 8 });
    expect(combinedRows({ columns, strength: 'pairs', constraints: 'if z = 1 then a = 2', seed: 1 }, [], ids())).toMatchObject({ kind: 'problems', problems: [{ code: 'constraint_misread', problem: { code: 'factor_unknown', found: 'z' } }] });
  });
});

describe('by chance', () => {
  const bounded = (type: ParameterType, from: string, to: string) => [{ parameter: column('a', type), values: [], from, to }];
  test.each<[ParameterType, string, string, RegExp]>([
    ['whole', '-3', '99999999999999999999', /^-?\d+$/],
    ['decimal', '0.5', '1.25', /^(0\.(5|[5-9]\d)\d?|1\.([01]\d|2[0-5]))$/],
    ['date', '2026-02-27', '2026-03-02', /^2026-0(2-2[78]|3-0[12])$/],
    ['time', '08:00', '08:05', /^08:0[0-5]$/],
    ['dateTime', '', '', /^2026-\d\d-\d\d \d\d:\d\d$/],
    ['text', '3', '5', /^[a-z]{3,5}$/],
    ['yesNo', '', '', /^(yes|no)$/],
  ])('%s between %s and %s', (type, from, to, pattern) => {
    fc.assert(
      fc.property(fc.nat(1000), (seed) => {
        const answer = randomRows(bounded(type, from, to), 3, seed, [], ids());
        if (answer.kind !== 'made') throw new Error(answer.kind);
        expect(answer.rows.length).toBeGreaterThan(0);
        for (const row of answer.rows) {
          expect(row.cells.a).toMatch(pattern);
          expect(fitsType(type, row.cells.a ?? '')).toBe(true);
        }
        expect(new Set(answer.rows.map((r) => r.cells.a)).size).toBe(answer.rows.length);
        expect(randomRows(bounded(type, from, to), 3, seed, [], ids())).toEqual(answer);
      }),
      { numRuns: 30 },
    );
  });
  test('no more rows than there can be, and none like one that is there', () => {
    const answer = randomRows(bounded('whole', '1', '5'), 100, 7, [newRow(rowId('r'), '', { a: '3' })], ids());
    expect(answer.kind === 'made' && answer.rows.map((r) => r.cells.a).sort()).toEqual(['1', '2', '4', '5']);
  });
  test('bounds that are none are told', () => {
    expect(randomRows(bounded('whole', '5', '1'), 1, 1, [], ids())).toEqual({ kind: 'badBounds', column: 'a' });
    expect(randomRows(bounded('date', '2026-02-30', ''), 1, 1, [], ids())).toEqual({ kind: 'badBounds', column: 'a' });
  });
});
