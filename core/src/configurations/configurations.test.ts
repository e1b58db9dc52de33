import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Configuration } from '../shared/index.ts';
import { alikeConfigurations, madeConfigurations, ruleProblems, rulesOf, type ConfigurationsAsked, type Environment } from './index.ts';

const newIds = (): (() => string) => {
  let n = 0;
  return () => `n${(n += 1)}`;
};
const factors = [{ id: 'b', name: 'browser', values: ['newest', 'oldest allowed', 'on a telephone'] }, { id: 'r', name: 'role', values: ['clerk', 'reader', 'member'] }, { id: 's', name: 'screen size', values: ['small', 'large'] }];
const everything = (environment: Environment, strength: ConfigurationsAsked['strength']): ConfigurationsAsked => ({ factors: environment.factors, strength });
const words = (configurations: readonly Configuration[]): string[] => configurations.map((c) => c.factors.map((f) => f.value).join());

/** The slow way: every combination of the values there are. */
function products(lists: readonly (readonly string[])[]): string[][] {
  return lists.reduce<string[][]>((rows, values) => rows.flatMap((row) => values.map((value) => [...row, value])), [[]]);
}

describe('configurations made of factors', () => {
  test('hold every combination that the rules allow, none that they forbid, and no more than all combinations', () => {
    const some = (values: readonly string[]) => fc.subarray([...values], { minLength: 1 });
    // Each forbids one value beside another: as it is written, and as it is judged.
    const rules = [
      { rule: 'if role = reader then browser = "on a telephone"', forbids: (row: readonly string[]) => row[1] === 'reader' && row[0] !== 'on a telephone' },
      { rule: 'not (role = clerk and "screen size" = small)', forbids: (row: readonly string[]) => row[1] === 'clerk' && row[2] === 'small' },
    ];
    let narrowed = 0;
    let refused = 0;
    fc.assert(
      fc.property(some(['newest', 'oldest allowed', 'on a telephone']), some(['clerk', 'reader', 'member']), some(['small', 'large']), fc.subarray(rules), fc.constantFrom('eachChoice', 'pairs', 'threeWise', 'all'), (b, r, s, held, strength) => {
        const lists = [b, r, s];
        const asked: ConfigurationsAsked = { factors: factors.map((f, i) => ({ id: f.id, values: lists[i] ?? [] })), strength };
        const possible = products(lists).filter((row) => !held.some((rule) => rule.forbids(row)));
        const made = madeConfigurations({ factors, rules: held.map((h) => h.rule).join('\n') }, asked, [], newIds());
        const unreached = lists.some((values, i) => values.some((value) => !possible.some((row) => row[i] === value)));
        if (made.kind !== 'made') {
          refused += 1;
          expect([made.kind, unreached]).toEqual(['problems', true]);
          return;
        }
        expect(unreached).toBe(false);
        const rows = made.configurations.map((c) => c.factors.map((f) => f.value));
        expect(rows.every((row) => possible.some((one) => one.join() === row.join()))).toBe(true);
        expect(new Set(rows.map((row) => row.join())).size).toBe(rows.length);
        const size = { eachChoice: 1, pairs: 2, threeWise: 3, all: 3 }[strength];
        const tuples = (row: readonly string[]): string[] => [0, 1, 2, 3, 4, 5, 6, 7].filter((bits) => [0, 1, 2].filter((i) => (bits >> i) % 2 === 1).length === size).map((bits) => row.map((value, i) => ((bits >> i) % 2 === 1 ? value : '*')).join());
        expect(new Set(rows.flatMap(tuples))).toEqual(new Set(possible.flatMap(tuples)));
        if (rows.length < possible.length) narrowed += 1;
      }),
      { numRuns: 300 },
    );
    expect([narrowed > 30, refused > 10]).toEqual([true, true]);
  });

  test('those that the project has are taken as they are; the same is made again', () => {
    const environment: Environment = { factors, rules: '' };
    const asked: ConfigurationsAsked = { factors: factors.slice(0, 2), strength: 'all' };
    const counter: Configuration = { id: 'k1', name: 'At the counter', factors: [{ name: 'role', value: 'clerk' }, { name: 'browser', value: 'newest' }] };
    const more: Configuration = { id: 'k2', name: 'More is said of it', factors: [...counter.factors, { name: 'screen size', value: 'small' }] };
    const made = madeConfigurations(environment, asked, [more, counter], newIds());
    if (made.kind !== 'made') throw new Error(made.kind);
    expect([made.configurations.length, made.combinations, made.configurations.filter((_, i) => made.isFound[i])]).toEqual([9, 9, [counter]]);
    expect(made.configurations.find((c) => c.id === 'n1')?.name).toMatch(/^[^,]+, [^,]+$/);
    const again = madeConfigurations(environment, asked, made.configurations, newIds());
    expect(again).toEqual({ ...made, isFound: made.configurations.map(() => true) });
  });

  test('rules about factors that are not combined do not count, and are named; what cannot be read is refused', () => {
    const rules = 'if role = reader then browser = newest\n\nnot ("screen size" = small and role = clerk)';
    const asked: ConfigurationsAsked = { factors: factors.slice(0, 2), strength: 'pairs' };
    expect(madeConfigurations({ factors, rules }, asked, [], newIds())).toMatchObject({ kind: 'made', aside: ['not ("screen size" = small and role = clerk)'], combinations: 7 });
    const misread = (text: string) => madeConfigurations({ factors, rules: text }, asked, [], newIds());
    expect(misread('if colour = red then role = clerk')).toMatchObject({ kind: 'problems', problems: [{ code: 'rule_misread', rule: 'if colour = red then role = clerk', problem: { code: 'factor_unknown', found: 'colour' } }] });
    expect(misread('role = cook')).toMatchObject({ problems: [{ code: 'rule_misread', problem: { code: 'value_unknown', found: 'cook' } }] });
    expect(misread('role = clerk\nrole = reader')).toMatchObject({ problems: [{ code: 'nothing_possible' }] });
  });

  test('a value that the rules leave no place for among the chosen ones is named, as are a factor without values and two of one name', () => {
    const telephone: Environment = { factors, rules: 'if role = reader then browser = "on a telephone"' };
    const asked = (browsers: readonly string[]): ConfigurationsAsked => ({ factors: [{ id: 'b', values: browsers }, { id: 'r', values: ['clerk', 'reader'] }], strength: 'pairs' });
    expect(madeConfigurations(telephone, asked(['newest']), [], newIds())).toEqual({ kind: 'problems', problems: [{ code: 'value_impossible', factor: 'role', value: 'reader' }] });
    expect(madeConfigurations(telephone, asked([]), [], newIds())).toMatchObject({ kind: 'problems', problems: [{ code: 'no_values', factor: 'browser' }] });
    expect(madeConfigurations({ factors: [...factors.slice(0, 1), { id: 'x', name: 'browser', values: ['a'] }], rules: '' }, { factors: [...factors.slice(0, 1), { id: 'x', values: ['a'] }], strength: 'pairs' }, [], newIds())).toMatchObject({ problems: [{ code: 'factor_twice', factor: 'browser' }] });
    expect(madeConfigurations(telephone, { factors: [], strength: 'pairs' }, [], newIds())).toEqual({ kind: 'problems', problems: [] });
  });

  test('of one factor each value is one; products in the millions are counted and refused', () => {
    expect(madeConfigurations({ factors, rules: '' }, { factors: factors.slice(1, 2), strength: 'pairs' }, [], newIds())).toMatchObject({ kind: 'made', combinations: 3 });
    const wide: Environment = { factors: Array.from({ length: 8 }, (_, i) => ({ id: `f${i}`, name: `f${i}`, values: Array.from({ length: 10 }, (__, v) => `${v}`) })), rules: '' };
    expect(madeConfigurations(wide, everything(wide, 'all'), [], newIds())).toMatchObject({ kind: 'tooMany', combinations: 100_000_000n });
  });

  test('the same input makes the same, names by their values', () => {
    const environment: Environment = { factors, rules: 'if role = reader then browser = "on a telephone"' };
    const [one, other] = [0, 1].map(() => madeConfigurations(environment, everything(environment, 'pairs'), [], newIds()));
    expect(one).toEqual(other);
    expect(one?.kind === 'made' && words(one.configurations)).toEqual(one?.kind === 'made' && one.configurations.map((c) => c.name.replaceAll(', ', ',')));
  });
});

test('rules that cannot be read are named; lines that say nothing are none', () => {
  expect(rulesOf({ rules: '\n a = b \n\n  \nc = d' })).toEqual(['a = b', 'c = d']);
  expect(ruleProblems({ factors, rules: 'role = clerk\nrole = cook\n\nif role' }).map((p) => [p.rule, p.problem.code])).toEqual([['role = cook', 'value_unknown'], ['if role', 'unexpected']]);
});

test('configurations are alike in a value that several of them have, and not all', () => {
  const of = (id: string, ...values: readonly string[]): Configuration => ({ id, name: id, factors: values.map((value, i) => ({ name: ['device', 'role', 'season'][i] ?? '', value })) });
  expect(alikeConfigurations([of('a', 'telephone', 'clerk', 'dry'), of('b', 'computer', 'clerk', 'dry'), of('c', 'telephone', 'reader', 'dry'), of('d', 'clerk')])).toEqual([
    { factor: 'device', value: 'telephone', ids: ['a', 'c'] }, { factor: 'role', value: 'clerk', ids: ['a', 'b'] }, { factor: 'season', value: 'dry', ids: ['a', 'b', 'c'] },
  ]);
  expect(alikeConfigurations([of('a', 'x', 'x'), of('b', 'x')])).toEqual([]);
});
