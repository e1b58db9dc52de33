import { describe, expect, it } from '@jest/globals';
import { newCover, stepId } from '../cases/index.ts';
import { seededRandom } from '../generation/index.ts';
import { sharedBeginnings, withBackground } from './backgrounds.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { withNumbers, withText } from './identities.ts';
import { outlineOf } from './scenario.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);
/** What each scenario does with the backgrounds above it. */
function executed(content: FeatureContent): string[][] {
  const { scenarios } = outlineOf(content);
  return scenarios.filter((s) => s.kind === 'scenario').map((s) => [...scenarios.filter((b) => b.kind === 'background' && (b.rule === null || b.rule === s.rule)), s].flatMap((x) => x.steps.map((step) => JSON.stringify([step.text, step.table, step.docString]))));
}

const BILLS = `Feature: Bills

  # first
  Scenario: one
    Given a member
      | name |
      | Rui  |
    # who owes
    And a debt of 4 €
    And it is May
    When a bill is made

  Scenario: two
    # also
    Given a member
      | name |
      | Rui  |

    And a debt of 4 €
    When it rains
`;

describe('what all scenarios begin with', () => {
  it('becomes their background, with the comments that stood there; what went on with it begins now', () => {
    const content = feature(BILLS);
    expect(sharedBeginnings(content).map((s) => [s.rule, s.scenarios, s.steps.map((x) => x.text)])).toEqual([[null, 2, ['a member', 'a debt of 4 €']]]);
    const result = withBackground(content, null, newId);
    expect(textOf(result)).toBe(`Feature: Bills

  Background:
    Given a member
      | name |
      | Rui  |
    # who owes
    And a debt of 4 €

  # first
  Scenario: one
    Given it is May
    When a bill is made

  Scenario: two
    # also
    When it rains
`);
    expect(executed(result)).toEqual(executed(content));
    expect(sharedBeginnings(result)).toEqual([]);
    expect(withBackground(result, null, newId)).toBe(result);
  });

  it('goes to the end of a background that is there; each rule by itself; in the language and with the ends of lines of the file', () => {
    const content = feature('# language: pt\r\nFuncionalidade: a\r\n  Regra: r\r\n    Contexto:\r\n      Dado um dia\r\n\r\n    Exemplo: x\r\n      Dado um membro\r\n      Quando 1\r\n\r\n    Exemplo: y\r\n      Dado um membro\r\n      Quando 2\r\n  Regra: s\r\n    Exemplo: z\r\n      Dado um membro\r\n      Quando 3\r\n    Exemplo: w\r\n      Dado um membro\r\n      Quando 4\r\n');
    const rules = content.parts.filter((p) => p.kind === 'rule').map((p) => p.id);
    expect(sharedBeginnings(content).map((s) => s.rule)).toEqual(rules);
    const both = rules.reduce((c, rule) => withBackground(c, rule, newId), content);
    expect(textOf(both)).toBe('# language: pt\r\nFuncionalidade: a\r\n  Regra: r\r\n    Contexto:\r\n      Dado um dia\r\n      Dado um membro\r\n\r\n    Exemplo: x\r\n      Quando 1\r\n\r\n    Exemplo: y\r\n      Quando 2\r\n  Regra: s\r\n    Contexto:\r\n      Dado um membro\r\n\r\n    Exemplo: z\r\n      Quando 3\r\n    Exemplo: w\r\n      Quando 4\r\n');
    expect(executed(both)).toEqual(executed(content));
  });

  it.each([
    ['one scenario', 'Scenario: a\n Given x\n When y'],
    ['nothing would be left of one', 'Scenario: a\n Given x\nScenario: b\n Given x\n When y'],
    ['what happens is no background', 'Scenario: a\n When x\n Then y\nScenario: b\n When x\n Then z'],
    ['a value of examples', 'Scenario Outline: a\n Given <x>\n When y\n Examples:\n | x |\n | 1 |\nScenario: b\n Given <x>\n When y'],
    ['another table', 'Scenario: a\n Given x\n | 1 |\n When y\nScenario: b\n Given x\n | 2 |\n When y'],
  ])('is offered only where it can be: %s', (_, text) => {
    expect(sharedBeginnings(feature(`Feature: f\n${text}\n`))).toEqual([]);
  });

  it('what the others cover by these steps, they cover by the background', () => {
    const bare = feature(BILLS);
    const lines = bare.parts.flatMap((p) => p.lines);
    const [first, second] = lines.filter((l) => l.text.includes('a debt of')).map((l) => stepId(l.id));
    const content = { ...bare, parts: bare.parts.map((p) => (p.number === 2 ? { ...p, covers: [{ ...newCover('K-1', 1), expects: [second ?? stepId('')] }] } : p)) };
    expect(withBackground(content, null, newId).parts.at(-1)?.covers).toEqual([{ ...newCover('K-1', 1), expects: [first] }]);
  });

  it.each([21, 22, 23, 24])('leaves what is executed as it is, whatever they begin with (seed %i)', (seed) => {
    const random = seededRandom(seed);
    const one = <T>(...of: readonly T[]): T => of[random(of.length)] as T;
    let offered = 0;
    for (let round = 0; round < 60; round += 1) {
      const end = one('\n', '\r\n');
      const step = (): string => `    ${one('Given', 'And', '*', 'When')} ${one('a', 'b', 'c <n>')}${end}${one('', '', `      | x |${end}`, `      """${end}      text${end}      """${end}`, `    # remark${end}`)}`;
      const beginning = Array.from({ length: random(3) }, (_, i) => `    ${i === 0 ? 'Given' : one('Given', 'And', 'But')} ${one('p', 'q')}${end}${one('', `      | ${one('1', '2')} |${end}`)}`);
      const background = one('', `  Background:${end}    Given z${end}${end}`);
      const text = `Feature: f${end}${background}${Array.from({ length: 1 + random(4) }, (_, i) => `  Scenario: ${i}${end}${one(beginning.join(''), beginning.join(''), '')}${step()}${one('', step())}${one('', end)}`).join('')}`;
      const content = feature(text);
      const beginnings = sharedBeginnings(content);
      const result = withBackground(content, null, newId);
      if (beginnings.length === 0) expect(result).toBe(content);
      else {
        offered += 1;
        expect(executed(result)).toEqual(executed(content));
        expect(outlineOf(result).problems).toEqual(outlineOf(content).problems.length === 0 ? [] : expect.anything());
        expect(textOf(result).match(/# remark/g)).toEqual(textOf(content).match(/# remark/g));
      }
    }
    expect(offered).toBeGreaterThan(4);
  });
});
