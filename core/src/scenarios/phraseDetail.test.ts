import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { newCover, parameterId, plainStep, stepId } from '../cases/index.ts';
import { EMPTY_CONDITION, fieldId, type ConditionContent } from '../conditions/index.ts';
import { CoverageIndex } from '../coverage/index.ts';
import { EMPTY_SHARED, instancesOf, openCase, openedText, type SharedContent, type Used } from '../shared/index.ts';
import { EMPTY_FEATURE, PLAIN_WORDING, keyOfExpression, phraseDetails, phrasesDetailed, scenarioForReading, scenariosAsCases, takenApart, withDetailReworded, withNumbers, withPhraseDetailed, withText, type FeatureContent, type Wording } from './index.ts';

let made = 0;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`), null);
const parameter = (name: string) => ({ id: parameterId(`p-${name}`), name, type: 'text' as const, default: '', description: '' });
const sharing = (steps: readonly [string, string][], ...names: string[]): SharedContent => ({ ...EMPTY_SHARED, title: 'Enter it', steps: steps.map(([action, expected], i) => plainStep(stepId(`s${i}`), action, expected)), parameters: names.map(parameter) });
const detailsOf = (content: SharedContent): Wording => ({ ...PLAIN_WORDING, details: phraseDetails([{ id: 'S-1', state: 'draft', phrases: phrasesDetailed(content) }]) });
const libraryOf = (content: SharedContent): ReadonlyMap<string, Used> => new Map([['S-1', { kind: 'shared', id: 'S-1', version: 1, withdrawn: false, content }]]);

/** What somebody reads, instance by instance: actions, and what is expected behind an arrow. */
function read(content: FeatureContent, number: number, shared: SharedContent): string[][] {
  const scenario = scenarioForReading(content, number, detailsOf(shared));
  if (scenario === null) return [];
  const opened = openCase(scenario, libraryOf(shared));
  if (opened.kind !== 'opened') throw new Error(opened.kind);
  const text = (line: (typeof opened.steps)[number]): string => (line.kind === 'gone' ? 'gone' : [line.step.action, line.step.expected].map((t) => openedText(line.scope.open(t))).join(' → '));
  // Values are those of the instance bound last.
  const instances: string[][] = [];
  for (const _ of instancesOf(opened)) instances.push(opened.steps.map(text));
  return instances;
}

const OUTLINE = 'Feature: f\n  Background:\n    Given the office is open\n  Scenario Outline: o\n    When the clerk enters <reading> for "M-1"\n      | a | b |\n    Then it is "<answer>"\n    Examples:\n      | reading | answer |\n      | 5 | taken |\n      | -1 | refused |\n';

describe('the detail of a phrase', () => {
  const entering = withPhraseDetailed(sharing([['Open <meter>', ''], ['Type <value>', '<value> stands there']], 'value', 'meter'), keyOfExpression('the clerk enters {int} for {string}'), 'd1');

  it('tells what to do behind it, with its values in every instance', () => {
    expect(read(feature(OUTLINE), 1, entering)).toEqual([
      ['Given the office is open → ', 'When the clerk enters 5 for "M-1"\na | b → ', 'Open M-1 → ', 'Type 5 → 5 stands there', ' → Then it is "taken"'],
      ['Given the office is open → ', 'When the clerk enters -1 for "M-1"\na | b → ', 'Open M-1 → ', 'Type -1 → -1 stands there', ' → Then it is "refused"'],
    ]);
    expect(scenarioForReading(feature(OUTLINE), 7, detailsOf(entering))).toBeNull();
  });

  it('is that of the first shared steps of several, and never of withdrawn ones', () => {
    const phrases = [{ phrase: 'a {}', takes: ['x'] }];
    const details = phraseDetails([{ id: 'S-10', state: 'draft', phrases }, { id: 'S-2', state: 'withdrawn', phrases }, { id: 'S-9', state: 'draft', phrases: [...phrases, { phrase: 'b', takes: [] }] }]);
    expect([...details]).toEqual([['a {}', { shared: 'S-9', takes: ['x'] }], ['b', { shared: 'S-9', takes: [] }]]);
  });

  it('gives its values to the parameters in order, also to one that is renamed, and to none that is removed', () => {
    expect(phrasesDetailed(entering)).toEqual([{ phrase: 'the clerk enters {} for {string}', takes: ['value', 'meter'] }]);
    expect(phrasesDetailed({ ...entering, parameters: [{ ...parameter('value'), name: 'reading' }] })[0]?.takes).toEqual(['reading', null]);
    expect(withPhraseDetailed(entering, keyOfExpression('the clerk enters {int} for {string}'), 'd2')).toBe(entering);
  });

  it('stays with its phrase when that is reworded, once', () => {
    const both = withPhraseDetailed(entering, keyOfExpression('a reading {int} of {string} comes in'), 'd2');
    const to = keyOfExpression('a reading {int} of {string} comes in');
    const from = new Set([keyOfExpression('the clerk enters {int} for {string}')]);
    expect(withDetailReworded(entering, from, to).phrases).toEqual([{ id: 'd1', phrase: to, values: entering.phrases[0]?.values }]);
    expect(withDetailReworded(both, from, to).phrases.map((p) => [p.id, p.phrase])).toEqual([['d1', to]]);
    expect(withDetailReworded(entering, from, keyOfExpression('other values {int}'))).toBe(entering);
  });

  it('is given any value exactly as it stands in the step', () => {
    const echo = withPhraseDetailed(sharing([['<v>', '']], 'v'), keyOfExpression('it says {string}'), 'd');
    const said = fc.stringMatching(/^[a-zé<>\\ |0-9()']{1,14}$/).filter((text) => !text.endsWith('\\') && text.trim() === text && takenApart(`it says "${text}"`).values[0]?.text === `"${text}"`);
    let bracketed = 0;
    fc.assert(
      fc.property(said, (text) => {
        // `\<` is a plain bracket in our notation as well as in a feature read by it.
        fc.pre(!text.includes('\\<') && !/^\((missing|empty)\)$/.test(text));
        if (text.includes('<')) bracketed += 1;
        expect(read(feature(`Feature: f\n  Scenario: s\n    When it says "${text}"\n`), 1, echo)[0]?.[1]).toBe(`${text} → `);
      }),
      { numRuns: 300 },
    );
    expect(bracketed).toBeGreaterThan(10);
  });
});

describe('what a scenario shows', () => {
  const reading = fieldId('f');
  const model: ConditionContent['model'] = { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [{ id: reading, name: 'reading', type: { kind: 'whole' }, unit: '', required: false, intervals: [{ id: 'i', from: '0', to: '99999', validity: 'valid', name: 'valid', outcome: '' }], choices: [], classes: [], pattern: null }] } as never;
  const shown = (content: FeatureContent, shared: SharedContent): number => {
    const covering = { ...content, parts: content.parts.map((p) => (p.number === 1 ? { ...p, covers: [{ ...newCover('K-1', 1), fields: [{ id: reading, parameter: parameterId('reading') }] }] } : p)) };
    const index = new CoverageIndex({
      requirements: [{ id: 'R-1', title: 'R', module: '', risk: 'high', state: 'draft', type: 'rule', meaningSince: 1 }],
      conditions: [{ id: 'K-1', state: 'draft', version: 1, meaningSince: 1, content: { ...EMPTY_CONDITION, title: 'K', requirements: [{ id: 'R-1', seenVersion: 1, anchor: null }], model } }],
      cases: scenariosAsCases('F-1', covering, detailsOf(shared)).map(({ id, content: asCase }) => ({ id, state: 'draft', version: 1, content: asCase })),
      questions: [], library: [...libraryOf(shared)].map(([key, used]) => ({ key, used })), riskWeights: { high: 3, medium: 2, low: 1 }, mostItems: 1_000, constants: [],
    });
    return index.coverageOf('K-1')?.items.filter((i) => i.standing === 'shown').length ?? -1;
  };
  const outline = (then: string) => feature(`Feature: f\n  Scenario Outline: o\n    When the clerk enters <reading>\n${then}    Examples:\n      | reading |\n      | 0 |\n      | 99999 |\n`);
  const detailed = (expected: string) => withPhraseDetailed(sharing([['Type <value>', expected]], 'value'), keyOfExpression('the clerk enters {int}'), 'd');

  it('is also what the shared steps expect: a scenario that says no more is told by them', () => {
    expect(shown(outline(''), detailed(''))).toBe(0);
    expect(shown(outline(''), detailed('It is taken'))).toBeGreaterThan(1);
    expect(shown(outline(''), { ...detailed('It is taken'), phrases: [] })).toBe(0);
  });

  it('is never less with a detail than without', () => {
    const own = outline('    Then it is taken\n');
    const without = shown(own, sharing([], 'value'));
    expect(without).toBeGreaterThan(1);
    expect([shown(own, detailed('')), shown(own, detailed('It is taken'))]).toEqual([without, without]);
  });
});
