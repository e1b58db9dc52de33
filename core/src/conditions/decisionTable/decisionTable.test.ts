import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chooseRule, coverageItems, entriesOfBox, fieldId, smallestTable, tableAsGrid, tableFromGrid, tableJudge, tableProblems, valuesSelecting, type DecisionTableModel, type Rule } from '../index.ts';
import { sizeOfBox } from './boxes.ts';
import { fewestCovering } from './fewestCovering.ts';

/** Rules as words: a letter per condition (y, n, – for any), then what is done; `#` for impossible. */
function yesNoTable(...rules: readonly string[]): DecisionTableModel {
  const names = ['a', 'b', 'c', 'd'].slice(0, rules[0]?.split(' ')[0]?.length ?? 0);
  const values = [
    { id: 'y', value: 'yes', aliases: ['sí'] },
    { id: 'n', value: 'no', aliases: [] },
  ];
  return {
    kind: 'decisionTable',
    conditions: names.map((name) => ({ id: fieldId(name), name, values })),
    actions: [{ id: 'do', name: 'do' }],
    rules: rules.map((rule, i): Rule => {
      const [letters = '', done = ''] = rule.split(' ');
      return { id: `r${i + 1}`, entries: Object.fromEntries(names.flatMap((n, at) => (letters[at] === '–' ? [] : [[n, [letters[at] ?? '']]]))), impossible: done === '#', actions: done === '#' ? {} : { do: done } };
    }),
  };
}
const given = (...texts: readonly (string | null)[]) => texts.map((text) => (text === null ? null : ({ kind: 'value', text } as const)));
const codes = (model: DecisionTableModel) => tableProblems(model).map((p) => p.code);

describe('three yes/no conditions with rules YYY, YYN, YN–, N––', () => {
  const table = yesNoTable('yyy 1', 'yyn 2', 'yn– 3', 'n–– 4');
  test('are complete and consistent, and four items', () => {
    expect(tableProblems(table)).toEqual([]);
    expect(coverageItems({ title: '', polarity: 'both', model: table }).map((i) => [i.name, i.extent, i.outcome])).toEqual([
      ['rule 1', 'a yes, b yes, c yes', 'do 1'],
      ['rule 2', 'a yes, b yes, c no', 'do 2'],
      ['rule 3', 'a yes, b no', 'do 3'],
      ['rule 4', 'a no', 'do 4'],
    ]);
  });
  test('lack four combinations without the last', () => {
    const [problem] = tableProblems({ ...table, rules: table.rules.slice(0, 3) });
    expect(problem).toMatchObject({ code: 'combinations_missing', combinations: 4n });
    expect(problem?.code === 'combinations_missing' && problem.boxes.map((b) => entriesOfBox(table, b))).toEqual([{ a: ['n'] }]);
  });
  test('a row selects one rule, by names and aliases; a condition without a value is met by “any” alone', () => {
    const judge = tableJudge(table);
    expect(chooseRule(judge, given('sí', 'no', null))).toEqual({ kind: 'rule', place: 2 });
    expect(chooseRule(judge, given('yes', null, 'yes'))).toEqual({ kind: 'none' });
    expect(chooseRule(judge, given('Yes', 'no', 'no'))).toEqual({ kind: 'unknownValue', condition: 'a', text: 'Yes' });
  });
});

test('what is wrong is said of the rule concerned', () => {
  expect(codes(yesNoTable('y– 1', '–y 2', 'nn 1'))).toEqual(['rules_contradict']);
  expect(tableProblems(yesNoTable('y– 1', '–y 2', 'nn 1', 'yy #'))).toEqual([]);
  expect(tableProblems(yesNoTable('y– 1', 'yn 1', 'n– 2'))).toContainEqual({ code: 'rule_contained', rule: 'r2', within: 'r1' });
  expect(tableProblems(yesNoTable('yy 1', 'yn 1', 'n– 2'))).toContainEqual({ code: 'rules_mergeable', rules: ['r1', 'r2'], condition: 'b' });
  expect(tableProblems(yesNoTable('–y 1', '–n 1', 'y– 1', 'n– 1')).filter((p) => p.code === 'rule_contained')).toEqual([
    { code: 'rule_contained', rule: 'r3', within: null },
    { code: 'rule_contained', rule: 'r4', within: null },
  ]);
  expect(codes(yesNoTable('yy 1', 'yy #', 'y– 1', 'n– 2'))).toContain('rule_impossible');
  expect(codes({ ...yesNoTable('y 1'), rules: [] })).toEqual(['no_rules']);
  expect(codes({ ...yesNoTable('y 1'), conditions: [] })).toEqual(['no_conditions']);
});

/** Tables with up to four conditions of two or three values, any entries, some columns impossible. */
const anyTable: fc.Arbitrary<DecisionTableModel> = fc.array(fc.integer({ min: 2, max: 3 }), { minLength: 1, maxLength: 4 }).chain((sizes) => {
  const conditions = sizes.map((size, c) => ({ id: fieldId(`c${c}`), name: `c${c}`, values: Array.from({ length: size }, (_, v) => ({ id: `v${v}`, value: `value ${v}`, aliases: [] })) }));
  const rule = fc.record({ entries: fc.tuple(...conditions.map((c) => fc.subarray(c.values.map((v) => v.id)))), impossible: fc.constantFrom(false, false, false, true), does: fc.constantFrom('1', '2') });
  return fc.array(rule, { maxLength: 7 }).map((rules): DecisionTableModel => ({
    kind: 'decisionTable',
    conditions,
    actions: [{ id: 'do', name: 'do' }],
    rules: rules.map((r, i) => ({ id: `r${i}`, entries: Object.fromEntries(conditions.map((c, at) => [c.id, r.entries[at] ?? []])), impossible: r.impossible, actions: { do: r.does } })),
  }));
});

/** The definition, combination by combination: the columns that hold, told apart by what they do. */
function decisions(model: DecisionTableModel): { readonly values: readonly string[]; readonly decides: string; readonly does: ReadonlySet<string> }[] {
  let combinations: string[][] = [[]];
  for (const c of model.conditions) combinations = combinations.flatMap((k) => c.values.map((v) => [...k, v.id]));
  const holds = (rule: Rule, values: readonly string[]) => model.conditions.every((c, i) => (rule.entries[c.id] ?? []).length === 0 || rule.entries[c.id]?.includes(values[i] ?? ''));
  return combinations.map((values) => {
    const holding = model.rules.filter((r) => holds(r, values));
    const does = new Set(holding.filter((r) => !r.impossible).map((r) => r.actions.do ?? ''));
    return { values, does, decides: holding.some((r) => r.impossible) ? 'impossible' : does.size > 1 ? 'contradiction' : ([...does][0] ?? 'missing') };
  });
}

describe('against every combination looked at one by one', () => {
  const seen = { missing: 0, contradiction: 0, smaller: 0 };
  test('completeness, consistency, items and the rule a row selects', () => {
    fc.assert(
      fc.property(anyTable, (model) => {
        const all = decisions(model);
        const problems = tableProblems(model);
        const missing = problems.find((p) => p.code === 'combinations_missing');
        const expected = all.filter((d) => d.decides === 'missing').length;
        if (model.rules.length > 0) expect(missing?.combinations ?? 0n).toBe(BigInt(expected));
        expect((missing?.boxes ?? []).reduce((n, b) => n + sizeOfBox(b), 0n)).toBe(missing?.combinations ?? 0n);
        expect(problems.some((p) => p.code === 'rules_contradict')).toBe(all.some((d) => d.decides === 'contradiction'));
        const judge = tableJudge(model);
        for (const { values, decides } of all) {
          const choice = chooseRule(judge, given(...values.map((v) => `value ${v.slice(1)}`)));
          const says = choice.kind === 'rule' ? judge.rules[choice.place]?.rule.actions.do : choice.kind === 'none' ? 'missing' : choice.kind;
          expect(says).toBe(decides);
        }
        judge.rules.forEach((_, place) => {
          const values = valuesSelecting(judge, place);
          if (values !== null) expect(chooseRule(judge, given(...values.map((v) => v.cell)))).toEqual({ kind: 'rule', place });
        });
        seen.missing += expected > 0 && model.rules.length > 0 ? 1 : 0;
        seen.contradiction += all.some((d) => d.decides === 'contradiction') ? 1 : 0;
      }),
      { numRuns: 400 },
    );
  });
  test('a smaller table decides the same with fewer rules', () => {
    fc.assert(
      fc.property(anyTable, (model) => {
        const small = smallestTable(model);
        if (small.kind === 'contradictory') return expect(decisions(model).some((d) => d.decides === 'contradiction')).toBe(true);
        if (small.kind === 'already') return expect(small.proven).toBe(true);
        const impossible = model.rules.filter((r) => r.impossible);
        const made = { ...model, rules: [...small.rules.map((r) => r.rule), ...impossible] };
        expect(decisions(made).map((d) => d.decides)).toEqual(decisions(model).map((d) => d.decides));
        expect(new Set(made.rules.map((r) => r.id)).size).toBe(made.rules.length);
        expect(small.rules.length).toBeLessThan(model.rules.length - impossible.length);
        seen.smaller += 1;
      }),
      { numRuns: 300 },
    );
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(10);
  });
});

test('the fewest sets that cover everything, against all choices of sets', () => {
  fc.assert(
    fc.property(fc.array(fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { maxLength: 4 }), { maxLength: 7 }), (sets) => {
      const wanted = new Set(sets.flat());
      const { chosen, proven } = fewestCovering(7, sets);
      expect(new Set(chosen.flatMap((s) => sets[s] ?? []))).toEqual(wanted);
      const sizes = Array.from({ length: 2 ** sets.length }, (_, mask) => sets.filter((_s, i) => (mask >> i) & 1)).filter((some) => new Set(some.flat()).size === wanted.size).map((some) => some.length);
      expect([chosen.length, proven]).toEqual([Math.min(...sizes), true]);
    }),
  );
});

describe('as a grid', () => {
  let n = 0;
  const newId = () => `new${(n += 1)}`;
  test('what is written is read again as the same table', () => {
    fc.assert(
      fc.property(anyTable, (model) => {
        const read = tableFromGrid(tableAsGrid(model), model, newId);
        if (!('model' in read)) throw new Error(JSON.stringify(read));
        const whole = (m: DecisionTableModel) => decisions(m).map((d) => d.decides);
        expect(whole(read.model)).toEqual(whole(model));
        expect(read.model.conditions).toEqual(model.conditions);
      }),
    );
  });
  test('a table copied from a spreadsheet: head line, Y and N, actions below an empty line', () => {
    const empty = { ...yesNoTable('y 1'), conditions: [], actions: [], rules: [] };
    const read = tableFromGrid([['', '1', '2', '3'], ['in arrears', 'Y', 'N', 'N'], ['household', '–', '1–2', '3–4 / 5+'], ['', '', '', ''], ['discount', '', '10 %', '30 %']], empty, newId);
    if (!('model' in read)) throw new Error(JSON.stringify(read));
    expect(read.model.conditions.map((c) => [c.name, c.values.map((v) => v.value)])).toEqual([['in arrears', ['yes', 'no']], ['household', ['1–2', '3–4', '5+']]]);
    expect(tableAsGrid(read.model).slice(1).map((line) => line.slice(1))).toEqual([['in arrears', 'yes', 'no', 'no'], ['household', '–', '1–2', '3–4 / 5+'], ['discount', '', '10 %', '30 %']]);
    expect(tableFromGrid([], empty, newId)).toEqual({ code: 'no_condition_lines' });
  });
});
