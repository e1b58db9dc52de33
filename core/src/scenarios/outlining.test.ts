import { describe, expect, it } from '@jest/globals';
import { AstBuilder, GherkinClassicTokenMatcher, Parser, compile } from '@cucumber/gherkin';
import { fieldId } from '../conditions/index.ts';
import { newCover, parameterId, stepId } from '../cases/index.ts';
import { seededRandom } from '../generation/index.ts';
import { scenariosAsCases } from './asCase.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { withNumbers, withText } from './identities.ts';
import { planOutline, type OutlinePlan } from './outlinePlan.ts';
import { withOutline } from './outlining.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);
const scenarios = (content: FeatureContent) => content.parts.filter((p) => p.kind === 'scenario').map((p) => p.id);
function planned(content: FeatureContent, which = scenarios(content)): OutlinePlan {
  const plan = planOutline(content, which);
  if (typeof plan === 'string') throw new Error(`They can be one: expected a plan, got ${plan}`);
  return plan;
}
function outlined(content: FeatureContent, which = scenarios(content), names: Partial<{ name: string; columns: string[] }> = {}): FeatureContent {
  const plan = planned(content, which);
  const result = withOutline(content, which, { name: plan.name, columns: plan.columns.map((c) => c.name), ...names }, newId);
  if (result === null) throw new Error('A plan can be carried out with its own names');
  return result;
}
/** What is executed, by the standard’s own compiler: the judge of what an outline expands to. */
function executed(text: string): string[] {
  let id = 0;
  const builder = new AstBuilder(() => `${(id += 1)}`);
  const document = new Parser(builder, new GherkinClassicTokenMatcher()).parse(text);
  return compile(document, 'a.feature', () => `${(id += 1)}`).map((p) => JSON.stringify([p.name, p.tags.map((t) => t.name).sort(), p.steps.map((s) => [s.type, s.text, s.argument])]));
}

const RECEIPTS = `Feature: Leak allowance
  Background:
    Given a member

  @slow @money
  Scenario: A receipt of 61 days is too old
    # by the treasurer
    Given a repair receipt of 61 days ago
    Then the answer is "no"

  # rare
  @money @later
  Scenario: A receipt of 90 days is too old
    It was once asked for.
    Given a repair receipt of 90 days ago
    Then the answer is "no | never"

  Scenario: Another
    When it rains
`;

describe('scenarios made one outline', () => {
  it('finds what differs: a value in the name and the step is one column, marks stay around the placeholder', () => {
    const content = feature(RECEIPTS);
    expect(planned(content, scenarios(content).slice(0, 2))).toEqual({
      parts: scenarios(content).slice(0, 2),
      name: 'A receipt of <receipt> days is too old',
      columns: [{ name: 'receipt', values: ['61', '90'] }, { name: 'answer', values: ['no', 'no | never'] }],
    });
  });

  it('stands where the first stood, keeps its number, tags and comments, and what is said of the others above their rows', () => {
    const content = feature(RECEIPTS);
    const result = outlined(content, scenarios(content).slice(0, 2), { columns: ['days', 'answer'], name: 'A receipt of <days> days is too old' });
    expect(textOf(result)).toBe(`Feature: Leak allowance
  Background:
    Given a member

  @money
  Scenario Outline: A receipt of <days> days is too old
    # by the treasurer
    Given a repair receipt of <days> days ago
    Then the answer is "<answer>"

    @slow
    Examples:
      | days | answer |
      | 61   | no     |

    @later
    Examples:
      | days | answer      |
      # rare
      # It was once asked for.
      | 90   | no \\| never |

  Scenario: Another
    When it rains
`.replace('| 61  ', '|   61').replace('| 90  ', '|   90'));
    expect(result.parts.map((p) => p.number)).toEqual([0, 0, 1, 3]);
    expect(executed(textOf(result))).toEqual(executed(RECEIPTS));
  });

  it('differs in what is left of the names, in cells of tables, in languages and ends of lines', () => {
    const text = '# language: pt\r\nFuncionalidade: Contas\r\n\r\n  Cenário: um membro paga tarde\r\n    Dado um membro\r\n      | nome | dívida |\r\n      | Rui  | 4      |\r\n    Então recebe <aviso>\r\n\r\n  Cenário: um sócio paga tarde\r\n    Dado um membro\r\n      | nome | dívida |\r\n      | Ana  | 4      |\r\n    Então recebe <aviso>';
    const content = feature(text);
    const result = outlined(content);
    expect(planned(content).columns).toEqual([{ name: 'case', values: ['membro', 'sócio'] }, { name: 'nome', values: ['Rui', 'Ana'] }]);
    expect(textOf(result).split('\r\n').slice(3)).toEqual(['  Esquema do Cenário: um <case> paga tarde', '    Dado um membro', '      | nome | dívida |', '      | <nome>  | 4      |', '    Então recebe <aviso>', '', '    Exemplos:', '      | case   | nome |', '      | membro | Rui  |', '      | sócio  | Ana  |']);
    expect(executed(textOf(result))).toEqual(executed(text));
  });

  it('covers what all of them covered, told of its columns and steps', () => {
    const bare = feature('Feature: a\n  Scenario: x\n    When the clerk enters 4\n    Then it says "ok"\n\n  Scenario: y\n    When the clerk enters 5\n    Then it says "ok"\n');
    const [reading, stored, answer] = ['K-1', 'K-2', fieldId('f1')] as const;
    const cases = scenariosAsCases('F-1', bare);
    const linesOf = (n: number): string[] => cases[n]?.content.steps.map((s) => s.id) ?? [];
    const valueOf = (n: number, step: number) => parameterId(`${linesOf(n)[step]}.0`);
    const covers = [
      [{ ...newCover(reading, 3), fields: [{ id: answer, parameter: valueOf(0, 0) }], outcome: valueOf(0, 1) }],
      [{ ...newCover(reading, 2), fields: [{ id: fieldId('f2'), parameter: valueOf(1, 1) }] }, { ...newCover(stored, 1), expects: [stepId(linesOf(1)[1] ?? '')] }],
    ];
    const content = { ...bare, parts: bare.parts.map((p) => ({ ...p, covers: covers[p.number - 1] ?? [] })) };
    const result = outlined(content, scenarios(content), { columns: ['case', 'amount'], name: '<case>' });
    const [only] = scenariosAsCases('F-1', result);
    const says = parameterId(`${linesOf(0)[1]}.0`);
    expect(only?.content.covers).toEqual([
      { ...newCover(reading, 2), fields: [{ id: answer, parameter: parameterId('amount') }, { id: fieldId('f2'), parameter: says }], outcome: says },
      { ...newCover(stored, 1), expects: [stepId(linesOf(0)[1] ?? '')] },
    ]);
    // What is named is there.
    expect(only?.content.parameters.map((p) => p.id)).toEqual(expect.arrayContaining([parameterId('amount'), says]));
    expect(only?.content.rows.map((r) => Object.values(r.cells))).toEqual([['x', '4'], ['y', '5']]);
  });

  it.each([
    ['too_few', 'Scenario: a\n Given 1'],
    ['all_same', 'Scenario: a\n Given 1\nScenario: a\n Given 1'],
    ['has_examples', 'Scenario: a\n Given 1\nScenario Outline: b\n Given <n>\n Examples:\n | n |\n | 1 |'],
    ['other_rule', 'Scenario: a\n Given 1\nRule: r\nScenario: b\n Given 2'],
    ['other_steps', 'Scenario: a\n Given 1\nScenario: b\n When 2'],
    ['other_table', 'Scenario: a\n Given 1\n | x |\nScenario: b\n Given 2\n | x | y |'],
    ['other_doc_string', 'Scenario: a\n Given 1\n """\n x\n """\nScenario: b\n Given 2\n """\n y\n """'],
  ])('says why not: %s', (refusal, text) => {
    const content = feature(`Feature: f\n${text}\n`);
    expect(planOutline(content, scenarios(content))).toBe(refusal);
    expect(withOutline(content, scenarios(content), { name: 'x', columns: ['a'] }, newId)).toBeNull();
  });

  it.each([[['a', 'a']], [['a|', 'b']], [['<a', 'b']], [['', 'b']], [['a']]])('takes no names that are none: %j', (columns) => {
    const content = feature('Feature: f\nScenario: x\n Given 1 of "a"\nScenario: x\n Given 2 of "b"\n');
    expect(withOutline(content, scenarios(content), { name: 'x', columns }, newId)).toBeNull();
  });

  it.each([11, 12, 13, 14, 15, 16, 17, 18])('expands to exactly the scenarios it was made of (seed %i)', (seed) => {
    const random = seededRandom(seed);
    const one = <T>(...of: readonly T[]): T => of[random(of.length)] as T;
    let outlines = 0;
    for (let round = 0; round < 120; round += 1) {
      const values = (): string => one('"a"', '"b|c"', '"back\\slash"', '" spaced "', '""', "'it'", '4', '-1', '4,5', '<x>', '2026-01-05', '"<case>"');
      const steps = Array.from({ length: 1 + random(3) }, () => [one('Given', 'When', 'And', '*'), one('the reading # is kept', 'it # and #', 'nothing', 'a | bar #'), one(0, 0, 2)] as const);
      const write = (): string => steps.map(([keyword, text, rows]) => `    ${keyword} ${text.replaceAll('#', values)}\n${Array.from({ length: rows }, (_, i) => `      | ${i === 0 ? 'head' : one('x', 'a\\|b', '\\\\', 'two\\nlines', '')} | c |\n`).join('')}`).join('');
      const count = 2 + random(3);
      const text = `@f\nFeature: f\n${Array.from({ length: count }, (_, i) => `${one('', '  # why\n', '  @t\n', `  @t @u${i}\n`)}  Scenario: ${one('same', 'the 4 case', `the ${i} case`, `${i}`, 'a "b" c', '')}\n${write()}${one('', '\n', '\n\n')}`).join('')}`;
      const content = feature(text);
      const plan = planOutline(content, scenarios(content));
      if (typeof plan === 'string') continue;
      outlines += 1;
      const result = outlined(content);
      expect(executed(textOf(result)).sort()).toEqual(executed(text).sort());
    }
    expect(outlines).toBeGreaterThan(10);
  });
});
