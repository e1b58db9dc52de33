import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CONDITION, Feasibility, combinationJudge, combinationProblems, completeConstraint, countItems, coverageItems, explainTuple, fieldId, readConstraint, type CombinationModel, type Factor, type Strength } from '../conditions/index.ts';
import { fillGap } from '../coverage/index.ts';
import { RowSearch, type CoveringRow, type CoveringTask } from './index.ts';

/** Factors as words: `Channel: letter SMS !fax`, an exclamation mark for an invalid value. */
function combination(strength: Strength, factors: readonly string[], constraints: readonly string[] = [], groups: CombinationModel['groups'] = []): CombinationModel {
  return {
    kind: 'combination',
    strength,
    groups,
    seed: 1,
    constraints: constraints.map((text, i) => ({ id: `c${i + 1}`, text })),
    factors: factors.map((line): Factor => {
      const [name = '', values = ''] = line.split(': ');
      return { id: fieldId(name), name, values: values.split(' ').map((v) => ({ id: v.replace('!', ''), value: v.replace('!', ''), aliases: [], valid: !v.startsWith('!'), base: false, outcome: v.startsWith('!') ? 'refused' : '' })) };
    }),
  };
}
const content = (model: CombinationModel) => ({ ...EMPTY_CONDITION, model });
const sized = (strength: Strength, sizes: readonly number[]) => combination(strength, sizes.map((n, f) => `f${f}: ${Array.from({ length: n }, (_, v) => `v${v}`).join(' ')}`));

/** What a model means, by trying: all complete rows of valid values that meet the constraints, written out as functions. */
function allRows(model: CombinationModel, allowed: (row: Readonly<Record<string, string>>) => boolean): Record<string, string>[] {
  let rows: Record<string, string>[] = [{}];
  for (const f of model.factors) rows = rows.flatMap((r) => f.values.filter((v) => v.valid).map((v) => ({ ...r, [f.name]: v.value })));
  return rows.filter(allowed);
}
/** All t-tuples in some rows. */
function tuplesOf(rows: readonly Readonly<Record<string, string>>[], size: number): Set<string> {
  const found = new Set<string>();
  for (const row of rows) {
    const parts = Object.entries(row).map(([k, v]) => `${k}=${v}`);
    const pick = (from: number, chosen: readonly string[]): void => {
      if (chosen.length === size) found.add(chosen.join('&'));
      else for (let i = from; i < parts.length; i += 1) pick(i + 1, [...chosen, parts[i] ?? '']);
    };
    pick(0, []);
  }
  return found;
}
/** The rows made, read by names. */
const madeRows = (model: CombinationModel) => {
  const keys = coverageItems(content(model)).map((i) => i.key);
  const filling = fillGap(content(model), keys);
  return { filling, rows: filling.rows.map((r) => Object.fromEntries(r.values.map((v) => [v.field, v.cell]))) };
};

test('3,3,3,3 by pairs: 54 tuples, 9 rows; a hundred yes/no factors: 10 rows', () => {
  const four = sized('pairs', [3, 3, 3, 3]);
  expect([countItems(four), coverageItems(content(four)).length, madeRows(four).rows.length]).toEqual([54n, 54, 9]);
  const task = taskOf(Array<number>(100).fill(2), 2);
  const search = new RowSearch(task);
  expect(search.best).toHaveLength(10);
  expect(uncovered(search.best, task)).toBe(0);
});

test('two constraints together exclude a pair that neither excludes alone, and both are named', () => {
  const model = combination('pairs', ['a: 0 1', 'b: 0 1', 'c: 0 1'], ['if a = 1 then b = 1', 'if b = 1 then c = 1']);
  const judge = combinationJudge(model);
  expect(judge.infeasible.map((t) => [t.factors, t.values])).toEqual([[[0, 1], [1, 0]], [[0, 2], [1, 0]], [[1, 2], [1, 0]]]);
  expect(explainTuple(model, { factors: [0, 2], values: [1, 0] })).toEqual(['c1', 'c2']);
  expect(explainTuple(model, { factors: [0, 1], values: [1, 0] })).toEqual(['c1']);
  expect(explainTuple(model, { factors: [0, 1], values: [1, 1] })).toEqual([]);
});

describe('constraints as text', () => {
  const { factors } = combination('pairs', ['Channel: letter e-mail SMS', 'Consent: yes no', 'Kind: full associate']);
  const named = [...factors, { ...factors[0]!, name: 'if you, (really) "want"', values: [{ ...factors[0]!.values[0]!, value: 'and = {x}' }] }, { ...factors[1]!, name: 'Kind of member' }];
  const rowsAllowed = (text: string) => {
    const judge = combinationJudge({ ...combination('pairs', ['Channel: letter e-mail SMS', 'Consent: yes no', 'Kind: full associate'], [text]), strength: 'all' });
    return judge.tuples.map((t) => t.values.map((v, f) => factors[f]?.values[v]?.value).join(' '));
  };
  const all = allRows({ ...combination('all', []), factors }, () => true);
  test.each<[string, (r: Record<string, string>) => boolean]>([
    ['if Channel = SMS then Consent = yes', (r) => r.Channel !== 'SMS' || r.Consent === 'yes'],
    ['IF channel in {SMS, e-mail} AND Kind ≠ full THEN not (Consent = no)', (r) => !(r.Channel !== 'letter' && r.Kind !== 'full') || r.Consent !== 'no'],
    ['not (Channel = letter and Consent = yes)', (r) => !(r.Channel === 'letter' && r.Consent === 'yes')],
    ['Channel = letter or Consent = yes and Kind = full', (r) => r.Channel === 'letter' || (r.Consent === 'yes' && r.Kind === 'full')],
    ['not Channel = SMS', (r) => r.Channel !== 'SMS'],
    ['Kind != full or Channel not in {letter}', (r) => r.Kind !== 'full' || r.Channel !== 'letter'],
    ['not (not (Channel <> SMS))', (r) => r.Channel !== 'SMS'],
  ])('%s', (text, means) => {
    expect(rowsAllowed(text)).toEqual(all.filter(means).map((r) => Object.values(r).join(' ')));
  });
  test.each([
    ['if Chanel = SMS then Consent = yes', { code: 'factor_unknown', start: 3, end: 9, found: 'Chanel', expected: 'factor' }],
    ['Channel = fax', { code: 'value_unknown', start: 10, end: 13, found: 'fax', factor: 'Channel' }],
    ['if Channel = SMS', { code: 'unexpected', start: 16, end: 16, expected: 'then' }],
    ['Channel in {SMS, letter', { code: 'unexpected', start: 23, expected: 'closing' }],
    ['Channel = SMS Consent = yes', { code: 'unexpected', start: 14, found: 'Consent', expected: 'end' }],
    ['(Channel = SMS', { expected: 'closing' }],
    ['Channel SMS', { start: 8, expected: 'comparison' }],
  ])('%s is answered at its place', (text, problem) => {
    expect(readConstraint(text, factors)).toMatchObject({ kind: 'problem', problem });
  });
  test('names with signs and words of the language are quoted; the longest name is taken', () => {
    expect(readConstraint('"if you, (really) ""want""" = "and = {x}"', named)).toEqual({ kind: 'condition', condition: { kind: 'is', factor: 3, values: [0] } });
    expect(readConstraint('Kind of member = no', named)).toMatchObject({ condition: { factor: 4 } });
    expect(readConstraint('  ', named)).toEqual({ kind: 'empty' });
  });
  test.each([
    ['', ['if', 'not', 'Channel', 'Consent', 'Kind']],
    ['if Ch', ['Channel', 'Consent', 'Kind', 'not']],
    ['if Channel ', ['=', '≠', 'in {']],
    ['if Channel = S', ['letter', 'e-mail', 'SMS']],
    ['if Channel = SMS ', ['then', 'and', 'or']],
    ['if Channel = SMS then Consent = yes ', ['and', 'or']],
    ['Channel in {SMS, ', ['letter', 'e-mail', 'SMS']],
    ['Chanel = ', []],
  ])('after “%s” these are offered', (text, words) => {
    expect(completeConstraint(text, factors).words).toEqual(words);
  });
});

test('what a model cannot have is said at its place', () => {
  const codes = (model: CombinationModel) => combinationProblems(model).map((p) => p.code);
  expect(codes(combination('pairs', []))).toEqual(['no_factors']);
  expect(codes(combination('pairs', ['a: !x', 'b: 0 1']))).toEqual(['no_valid_value']);
  expect(codes(combination('pairs', ['a: 0 1', 'b: 0 1'], ['a = 1', 'not a = 1']))).toEqual(['nothing_possible']);
  expect(combinationProblems(combination('pairs', ['a: 0 1', 'b: 0 1', 'c: 0 1'], ['if a = 1 then b = 1', 'if a = 1 then b = 0', 'c = 1']))).toEqual([
    { code: 'value_impossible', factor: 'a', value: '1', constraints: ['c1', 'c2'] },
    { code: 'value_impossible', factor: 'c', value: '0', constraints: ['c3'] },
  ]);
  expect(countItems(sized('sixWise', Array<number>(100).fill(10)))).toBe(1_192_052_400n * 1_000_000n);
});

describe('invalid values, each choice and base choice', () => {
  test('an invalid value stands alone among valid ones, and hides the tuples beside it', () => {
    const model = combination('pairs', ['a: 0 1 !bad', 'b: 0 1 !worse'], ['if a = bad then b = 1']);
    const { rows, filling } = madeRows(model);
    expect(filling.unreachable).toEqual([]);
    expect(rows.filter((r) => r.a === 'bad' || r.b === 'worse')).toEqual([{ a: 'bad', b: '1' }, { a: '0', b: 'worse' }]);
    expect(filling.rows.at(-1)).toMatchObject({ outcome: 'refused', shows: ['invalid:b=worse'] });
  });
  test('each choice needs as many rows as the largest factor; base choice one more than all other values', () => {
    expect(madeRows(sized('eachChoice', [4, 2, 3])).rows).toHaveLength(4);
    const base = madeRows(sized('baseChoice', [4, 2, 3])).rows;
    expect(base).toHaveLength(1 + 3 + 1 + 2);
    expect(base.filter((r) => Object.values(r).filter((v) => v !== 'v0').length > 1)).toEqual([]);
  });
  test('chosen factors are combined more than the rest', () => {
    const model = { ...sized('pairs', [2, 2, 2, 2]), groups: [{ id: 'g', factors: ['f0', 'f1', 'f2'].map(fieldId), size: 3 }] };
    expect(coverageItems(content(model))).toHaveLength(24 + 8);
    expect(tuplesOf(madeRows(model).rows.map(({ f0 = '', f1 = '', f2 = '' }) => ({ f0, f1, f2 })), 3).size).toBe(8);
  });
});

const anyModel = fc
  .record({ sizes: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 2, maxLength: 5 }), strength: fc.constantFrom('eachChoice' as const, 'pairs' as const, 'threeWise' as const), seed: fc.nat(99) })
  .chain(({ sizes, strength, seed }) => {
    const pick = fc.record({ f: fc.nat(sizes.length - 1), g: fc.nat(sizes.length - 1), v: fc.nat(2), w: fc.nat(2), is: fc.boolean() });
    return fc.array(pick, { maxLength: 4 }).map((picks) => {
      const rules = picks.map(({ f, g, v, w, is }) => ({ f, g, v: v % (sizes[f] ?? 1), w: w % (sizes[g] ?? 1), is }));
      const model = { ...sized(strength, sizes), seed, constraints: rules.map((r, i) => ({ id: `c${i}`, text: `if f${r.f} = v${r.v} then f${r.g} ${r.is ? '=' : '≠'} v${r.w}` })) };
      return { model, allowed: (row: Readonly<Record<string, string>>) => rules.every((r) => row[`f${r.f}`] !== `v${r.v}` || (row[`f${r.g}`] === `v${r.w}`) === r.is) };
    });
  });

test('items are the tuples of all allowed rows; rows made are allowed and hold them all; the same seed makes the same', () => {
  let constrained = 0;
  fc.assert(
    fc.property(anyModel, ({ model, allowed }) => {
      const size = Math.min(model.strength === 'pairs' ? 2 : model.strength === 'threeWise' ? 3 : 1, model.factors.length);
      const wanted = tuplesOf(allRows(model, allowed), size);
      const items = coverageItems(content(model));
      expect(new Set(items.map((i) => i.key.replace('tuple:', '')))).toEqual(wanted);
      const { rows, filling } = madeRows(model);
      expect(rows.filter((r) => !allowed(r))).toEqual([]);
      expect(tuplesOf(rows, size)).toEqual(wanted);
      expect(filling.unreachable).toEqual([]);
      expect(madeRows(model).rows).toEqual(rows);
      if (combinationJudge(model).infeasible.length > 0 && items.length > 0) constrained += 1;
    }),
    { numRuns: 200 },
  );
  expect(constrained).toBeGreaterThan(40);
});

test('only what is missing is made', () => {
  const model = sized('pairs', [3, 3, 3]);
  const missing = coverageItems(content(model)).slice(0, 2).map((i) => i.key);
  expect(fillGap(content(model), missing).rows).toHaveLength(2);
});

test('feasibility is put back after every answer, whatever was asked before', () => {
  fc.assert(
    fc.property(anyModel, fc.array(fc.array(fc.integer({ min: -1, max: 2 }), { minLength: 5, maxLength: 5 }), { maxLength: 6 }), ({ model }, questions) => {
      const judge = combinationJudge(model);
      const fresh = () => new Feasibility(model.factors.map((f) => f.values.map(() => true)), judge.forbidden);
      const asked = questions.map((q) => model.factors.map((f, i) => Math.min(q[i] ?? -1, f.values.length - 1)));
      const reused = fresh();
      expect(asked.map((row) => reused.complete(row))).toEqual(asked.map((row) => fresh().complete(row)));
    }),
  );
});

/** Checks rows against a task by hand: shares nothing with the search. */
function uncovered(rows: readonly CoveringRow[], task: CoveringTask): number {
  return task.sets.reduce((sum, set) => sum + set.reduce((n, f) => n * (task.sizes[f] ?? 0), 1) - new Set(rows.map((r) => set.map((f) => r[f]).join(' '))).size, 0);
}
function taskOf(sizes: readonly number[], strength: 2 | 3): CoveringTask {
  const sets: number[][] = [];
  for (let a = 0; a < sizes.length; a += 1) for (let b = a + 1; b < sizes.length; b += 1) if (strength === 2) sets.push([a, b]);
    else for (let c = b + 1; c < sizes.length; c += 1) sets.push([a, b, c]);
  return { sizes, sets, wanted: () => true, forbidden: [], feasibility: null, seed: 7 };
}

test.each<[string, readonly number[], 2 | 3, number]>([
  ['3^13 by pairs', Array<number>(13).fill(3), 2, 15],
  ['4^6 three at a time', Array<number>(6).fill(4), 3, 64],
  ['5^6 three at a time', Array<number>(6).fill(5), 3, 125],
  ['9 8 7 5 by pairs, from the field of nine', [9, 8, 7, 5], 2, 72],
  ['3^6 three at a time', Array<number>(6).fill(3), 3, 33],
])('%s: complete, in few rows', (_, sizes, strength, most) => {
  const task = taskOf(sizes, strength);
  const search = new RowSearch(task);
  expect(uncovered(search.best, task)).toBe(0);
  for (let i = 0; i < 60 && search.best.length > most; i += 1) search.improve(2_000);
  expect(search.best.length).toBeLessThanOrEqual(most);
  expect(uncovered(search.best, task)).toBe(0);
});
