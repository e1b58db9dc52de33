import { describe, expect, it } from '@jest/globals';
import { CucumberExpression, ParameterType, ParameterTypeRegistry } from '@cucumber/cucumber-expressions';
import fc from 'fast-check';
import { newCover, parameterId } from '../cases/index.ts';
import { EMPTY_SHARED, type SharedContent } from '../shared/index.ts';
import {
  EMPTY_FEATURE,
  OwnKinds,
  PLAIN_WORDING,
  Phrasebook,
  expressionOf,
  isOwnKindName,
  isOwnKindPattern,
  keyOfExpression,
  keyUnder,
  ownKindId,
  phraseDetails,
  phraseUses,
  planOutline,
  sameScenarios,
  outlineOf,
  scenariosAsCases,
  takenApart,
  textOf,
  withDetailReworded,
  withNumbers,
  withOutline,
  withPhraseDetailed,
  withText,
  withValues,
  withoutPhraseDetailed,
  wordedAs,
  type FeatureContent,
} from './index.ts';

const kinds = (...pairs: readonly (readonly [string, string])[]): OwnKinds => new OwnKinds(pairs.map(([name, pattern], i) => ({ id: ownKindId(`k${i}`), name, pattern })));
const SEASON = kinds(['season', 'wet|dry|dry and hot']);
let made = 0;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`), null);

describe('values of own kinds', () => {
  it.each([
    ['in the dry season', SEASON, ['dry'], ['k0.0']],
    ['dry and hot, not dry, never dryer or half_wet', SEASON, ['dry and hot', 'dry'], ['k0.0', 'k0.1']],
    // Within texts and placeholders nothing is looked for, and a number keeps its turn.
    ['the "dry" month <dry> has 5 wet days', SEASON, ['"dry"', '<dry>', '5', 'wet'], ['0', '1', '2', 'k0.0']],
    // A number that lies within goes with it, and gives it its place; one that would be cut stays.
    ['pay 12 reis and 3', kinds(['money', '[0-9]+ reis']), ['12 reis', '3'], ['0', '1']],
    ['on 2026-03-01 at 10', kinds(['year', '2026|10']), ['2026-03-01', '10'], ['0', '1']],
    // Where two meet, the upper one is meant.
    ['meter M-1042', kinds(['meter', 'M-\\d{4}'], ['digits', '\\d+']), ['M-1042'], ['k0.0']],
    ['nothing is found by what is no pattern', kinds(['broken', '(']), [], []],
    ['estação seca', kinds(['estação', 'seca|chuvosa']), ['seca'], ['k0.0']],
  ])('%s', (text, own, values, places) => {
    const apart = takenApart(text, own);
    expect(apart.values.map((v) => v.text)).toEqual(values);
    expect(apart.values.map((v) => v.place)).toEqual(places);
  });

  it('leave the step as it is, and every other value its name', () => {
    const word = fc.constantFrom('the', 'dry', 'wet', 'dry and hot', '"dry"', '<dry>', '5', '12 reis', 'M-1042', '{}', "member's", '(', '\\');
    const own = fc.subarray([['season', 'wet|dry|dry and hot'], ['money', '[0-9]+ reis'], ['meter', 'M-[0-9]+'], ['many', 'e+']] as const).map((some) => kinds(...some));
    fc.assert(fc.property(fc.array(word, { maxLength: 9 }).map((words) => words.join(' ')), own, (text, those) => {
      const { key, values } = takenApart(text, those);
      expect(withValues(key, values.map((v) => v.text))).toBe(text);
      expect(new Set(values.map((v) => v.place)).size).toBe(values.length);
      const plain = new Map(takenApart(text).values.map((v) => [v.place, v]));
      for (const value of values) {
        const before = plain.get(value.place);
        if (before !== undefined) expect(value.at <= before.at && value.text.includes(before.text)).toBe(true);
        else expect(value.place).toMatch(/^k\d\.\d+$/);
      }
    }), { numRuns: 1_000 });
  });

  it('are what an executor of Gherkin takes for a parameter type of that name', () => {
    const types = new ParameterTypeRegistry();
    types.defineParameterType(new ParameterType('season', /wet|dry/, null, (s) => s, true, false));
    const book = new Phrasebook();
    const own = kinds(['season', 'wet|dry']);
    book.put('F-1', phraseUses(feature('Feature: f\n  Scenario: s\n    Given the dry season of 5 weeks\n    And the <x> season of 7 weeks\n'), own));
    const [phrase, ...others] = book.phrases();
    expect(others).toEqual([]);
    expect(phrase).toMatchObject({ key: 'the {} season of {} weeks', holes: ['{season}', 'int'], uses: 2 });
    const shown = expressionOf(phrase!);
    expect(shown).toBe('the {season} season of {int} weeks');
    expect(new CucumberExpression(shown, types).match('the wet season of 9 weeks')?.map((a) => a.getValue(null))).toEqual(['wet', 9]);
    expect(keyOfExpression(shown, own)).toBe(phrase?.key);
    expect(keyOfExpression(shown)).not.toBe(phrase?.key);
  });

  it('have names and patterns that can be meant', () => {
    expect(['season', 'época', 'a_b-1', 'string', 'Int', '1a', 'two words', '', 'a}'].map(isOwnKindName)).toEqual([true, true, true, false, false, false, false, false, false]);
    expect(['wet|dry', 'M-\\d+', '', '  ', '(', 'x*', '|', '(?=a)b'].map(isOwnKindPattern)).toEqual([true, true, false, false, false, false, false, false]);
  });

  it('are found in a time that grows with the text alone', () => {
    const started = performance.now();
    expect(kinds(['hard', '(a+)+b']).foundIn('a'.repeat(20_000))).toEqual([]);
    expect(performance.now() - started).toBeLessThan(20_000);
  });
});

describe('phrases that were kept before a kind was made', () => {
  it('are those that steps say now', () => {
    const kept = keyOfExpression('in the dry season {int} days of {string}');
    expect(keyUnder(kept, SEASON)).toEqual({ key: 'in the {} season {} days of {string}', was: [null, 0, 1] });
    expect(keyUnder(kept, SEASON).key).toBe(takenApart('in the wet season 5 days of "rain"', SEASON).key);
    expect(keyUnder(keyOfExpression('he says \\{dry} {'), kinds())).toEqual({ key: 'he says \\\\\\{dry} \\{'.replace('dry}', 'dry\\}'), was: [] });
  });

  it('keep their detail, value by value, when it is read, reworded, written anew and taken away', () => {
    const value = parameterId('p');
    const shared: SharedContent = { ...withPhraseDetailed({ ...EMPTY_SHARED, parameters: [{ id: value, name: 'days', type: 'text', default: '', description: '' }] }, keyOfExpression('the dry season has {int} days'), 'd') };
    const now = keyOfExpression('the {} season has {} days');
    expect(phraseDetails([{ id: 'S-1', state: 'draft', phrases: [{ phrase: shared.phrases[0]?.phrase ?? '', takes: ['days'] }] }], SEASON)).toEqual(new Map([[now, { shared: 'S-1', takes: [null, 'days'] }]]));
    expect(withPhraseDetailed(shared, now, 'other', SEASON).phrases).toEqual([{ id: 'd', phrase: now, values: [null, value] }]);
    const to = keyOfExpression('{} weather for {} days');
    expect(withDetailReworded(shared, new Set([now]), to, SEASON).phrases).toEqual([{ id: 'd', phrase: to, values: [null, value] }]);
    expect(withoutPhraseDetailed(shared, now, SEASON).phrases).toEqual([]);
    expect(withoutPhraseDetailed(shared, now)).toEqual(shared);
    expect(wordedAs('the wet season has 5 days', new Set([now]), to, SEASON)).toBe('wet weather for 5 days');
  });
});

describe('scenarios with values of own kinds', () => {
  const TWO = feature('Feature: f\n  Scenario: a\n    When the dry meter reads 5 of 9\n    Then it is stored\n\n  Scenario: b\n    When the wet meter reads 7 of 9\n    Then it is stored\n');

  it('give evidence with them, and what was linked stays so', () => {
    const values = (own: OwnKinds): string[][] => scenariosAsCases('F-1', TWO, { ...PLAIN_WORDING, own }).map((s) => s.content.parameters.map((p) => `${p.id.slice(p.id.indexOf('.'))} ${p.default}`));
    expect(values(PLAIN_WORDING.own)[0]).toEqual(['.0 5', '.1 9']);
    expect(values(SEASON)[0]).toEqual(['.k0.0 dry', '.0 5', '.1 9']);
  });

  it('are one outline where only these differ, and cover what they covered', () => {
    const parts = TWO.parts.filter((p) => p.kind === 'scenario').map((p) => p.id);
    expect(planOutline(TWO, parts)).toBe('other_steps');
    expect(sameScenarios(outlineOf(TWO))).toEqual([]);
    expect(sameScenarios(outlineOf(TWO), SEASON).map((group) => group.length)).toEqual([2]);
    const [first] = scenariosAsCases('F-1', TWO, { ...PLAIN_WORDING, own: SEASON });
    const nine = first?.content.parameters[2]?.id ?? parameterId('');
    const content = { ...TWO, parts: TWO.parts.map((p) => (p.number === 1 ? { ...p, covers: [{ ...newCover('K-1', 1), outcome: nine }] } : p)) };
    const outline = withOutline(content, parts, { name: '<case>', columns: ['case', 'season', 'reading'] }, () => `i${(made += 1)}`, SEASON);
    expect(textOf(outline ?? TWO)).toContain('When the <season> meter reads <reading> of 9\n');
    const [only] = scenariosAsCases('F-1', outline ?? TWO, { ...PLAIN_WORDING, own: SEASON });
    // The value that is left stands behind two placeholders now: its name tells so.
    expect(only?.content.parameters.find((p) => p.id === only.content.covers[0]?.outcome)?.default).toBe('9');
  });
});
