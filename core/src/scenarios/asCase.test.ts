import { describe, expect, it } from '@jest/globals';
import { newCover, parameterId, stepId, type Cover } from '../cases/index.ts';
import { CoverageIndex, type Design } from '../coverage/index.ts';
import { EMPTY_CONDITION, fieldId, type ConditionContent } from '../conditions/index.ts';
import { scenariosAsCases } from './asCase.ts';
import { EMPTY_FEATURE, type FeatureContent } from './feature.ts';
import { withNumbers, withText } from './identities.ts';

let made = 0;
const TEXT = `Feature: Readings
  Background:
    Given meter "M-1"

  Rule: whole numbers
    Background:
      Given it is daytime

    Scenario Outline: outside
      When the clerk enters <reading>
      Then the form answers <answer>
      And the ledger stays

      Examples: low
        | reading | answer |
        | -1      | "no"   |

      Examples:
        | reading | answer |
        | 100000  |        |

  Rule: other
    Scenario: inside
      When the clerk enters 4182
      Then it is stored
`;

function feature(covers: Readonly<Record<number, readonly Cover[]>> = {}): FeatureContent {
  const content = withNumbers(withText({ ...EMPTY_FEATURE, path: 'r.feature' }, TEXT, () => `i${(made += 1)}`), null);
  return { ...content, parts: content.parts.map((p) => ({ ...p, covers: covers[p.number] ?? [] })) };
}
const lineOf = (content: FeatureContent, words: string): string => content.parts.flatMap((p) => p.lines).find((l) => l.text.includes(words))?.id ?? '';

describe('a scenario taken as a case', () => {
  const content = feature();
  const [outside, inside] = scenariosAsCases('F-2', content);

  it('has the steps of the backgrounds above it, and what was done stands with what is expected', () => {
    expect([outside?.id, inside?.id]).toEqual(['F-2/1', 'F-2/2']);
    expect(outside?.content.steps.map((s) => s.kind === 'step' && [s.action, s.expected])).toEqual([
      ['meter "M-1"', ''],
      ['it is daytime', ''],
      ['the clerk enters <reading>', ''],
      ['the clerk enters <reading>', 'the form answers <answer>'],
      ['the clerk enters <reading>', 'the ledger stays'],
    ]);
    expect(inside?.content.steps).toHaveLength(3);
    expect(inside?.content.steps[1]?.id).toBe(lineOf(content, 'enters 4182'));
  });

  it('has a row for each of all examples, and parameters for columns and for values in steps', () => {
    expect(outside?.content.rows.map((r) => [r.id, r.name, r.cells])).toEqual([
      [lineOf(content, '-1 '), 'low: -1', { reading: '-1', answer: 'no' }],
      [lineOf(content, '100000'), '100000', { reading: '100000', answer: '""' }],
    ]);
    expect(outside?.content.parameters.map((p) => [p.id, p.default])).toEqual([['reading', ''], ['answer', ''], [`${lineOf(content, '"M-1"')}.0`, 'M-1']]);
    expect(inside?.content.parameters.map((p) => p.default)).toEqual(['M-1', '4182']);
  });
});

describe('what scenarios show', () => {
  const reading = fieldId('f');
  const model: ConditionContent['model'] = { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [{ id: reading, name: 'reading', type: { kind: 'whole' }, unit: '', required: false, intervals: [{ id: 'i', from: '0', to: '99999', validity: 'valid', name: 'valid', outcome: '' }], choices: [], classes: [], pattern: null }] } as never;
  const condition = (n: 1 | 2, more: Partial<ConditionContent>) => ({ id: `K-${n}` as const, state: 'draft' as const, version: 1, meaningSince: 1, content: { ...EMPTY_CONDITION, title: `K${n}`, requirements: [{ id: 'R-1' as const, seenVersion: 1, anchor: null }], ...more } });
  const designOf = (content: FeatureContent): Design => ({
    requirements: [{ id: 'R-1', title: 'R', module: '', risk: 'high', state: 'draft', type: 'rule', meaningSince: 1 }],
    conditions: [condition(1, { model }), condition(2, {})],
    cases: scenariosAsCases('F-2', content).map(({ id, content: asCase }) => ({ id, state: 'draft', version: 1, content: asCase })),
    questions: [], library: [], riskWeights: { high: 3, medium: 2, low: 1 }, mostItems: 1_000, constants: [],
  });
  const shownBy = (content: FeatureContent, id: 'K-1' | 'K-2') => new CoverageIndex(designOf(content)).coverageOf(id)?.items.flatMap((i) => (i.standing === 'shown' ? i.instances : [])) ?? [];

  it('are the values of their examples and of their steps', () => {
    const plain = feature();
    expect(shownBy(plain, 'K-1')).toEqual([]);
    const linked = (number: number, parameter: string, base = plain) => ({ ...base, parts: base.parts.map((p) => (p.number === number ? { ...p, covers: [{ ...newCover('K-1', 1), fields: [{ id: reading, parameter: parameterId(parameter) }] }] } : p)) });
    const byColumn = linked(1, 'reading');
    expect(shownBy(byColumn, 'K-1').length).toBeGreaterThan(1);
    const both = linked(2, `${lineOf(plain, 'enters 4182')}.0`, byColumn);
    expect(shownBy(both, 'K-1').length).toBeGreaterThan(shownBy(byColumn, 'K-1').length);
  });

  it('are of a plain condition the steps that its link names, where something was done before', () => {
    const content = feature();
    const cover = (line: string) => ({ ...content, parts: content.parts.map((p) => (p.number === 2 ? { ...p, covers: [{ ...newCover('K-2', 1), expects: [stepId(lineOf(content, line))] }] } : p)) });
    expect(shownBy(cover('it is stored'), 'K-2')).toHaveLength(1);
    expect(shownBy(cover('enters 4182'), 'K-2')).toEqual([]);
  });
});
