import { describe, expect, it } from '@jest/globals';
import { CucumberExpression, ParameterTypeRegistry } from '@cucumber/cucumber-expressions';
import fc from 'fast-check';
import { holesOf, keyOfExpression, piecesOf, takenApart, withValues } from './phrase.ts';

describe('a step taken apart', () => {
  it.each([
    ['meter "M-2207" of a member of the lower town', 'meter {string} of a member of the lower town', ['"M-2207"']],
    ['the clerk enters <reading>', 'the clerk enters {}', ['<reading>']],
    ['the clerk enters -1', 'the clerk enters {}', ['-1']],
    ["the member's meter says 'a \\' b'", "the member's meter says {string}", ["'a \\' b'"]],
    ['12.50 € are due on 2026-03-01 at 10:30', '{} € are due on {} at {}', ['12.50', '2026-03-01', '10:30']],
    ['code 12a and M-12 and x_3 stay', 'code 12a and M-12 and x_3 stay', []],
    ['a {brace} and/or (brackets) \\', 'a \\{brace\\} and\\/or \\(brackets\\) \\\\', []],
    ['from 5 to 7, then 9.', 'from {} to {}, then {}.', ['5', '7', '9']],
  ])('%s', (text, key, values) => {
    const apart = takenApart(text);
    expect(apart.key).toBe(key);
    expect(apart.values.map((v) => v.text)).toEqual(values);
    expect(apart.values.map((v) => text.slice(v.at, v.at + v.text.length))).toEqual(values);
  });

  it.each(['the clerk enters {int}', 'a {} of {string} (maybe) at {word}/{float}', '{string} {nothing} {'])('written as a person writes it it is the same: %s', (text) => {
    const key = keyOfExpression(` ${text} `);
    const pieces = piecesOf(key).map((p) => (p.kind === 'words' ? p.text : p.quoted ? '{string}' : '{}'));
    expect(pieces.join('')).toBe(text.replaceAll(/\{(int|float|word)\}/g, '{}'));
  });

  const word = fc.constantFrom('the', 'ledger', "member's", '{}', '{string}', '\\', '\\\\', '(', 'a/b', '"', "'", '<', '>', '<p>', '"x"', "'y'", '12', '-3', '4,5', '2026-01-02', '٣', 'ção', '  ');
  const step = fc.array(word, { maxLength: 12 }).chain((words) => fc.constantFrom(' ', '').map((between) => words.join(between)));

  it('is the step again with its values put back', () => {
    fc.assert(fc.property(step, (text) => {
      const { key, values } = takenApart(text);
      expect(withValues(key, values.map((v) => v.text))).toBe(text);
      expect(holesOf(key)).toBe(values.length);
      expect(piecesOf(key).every((p, i, all) => p.kind === 'hole' || all[i - 1]?.kind !== 'words')).toBe(true);
    }), { numRuns: 1000 });
  });

  it('has a phrase that an executor of Gherkin takes for the step', () => {
    const types = new ParameterTypeRegistry();
    fc.assert(fc.property(step.filter((text) => text.trim() === text && text !== ''), (text) => {
      const { key, values } = takenApart(text);
      expect(new CucumberExpression(key, types).match(text)).toHaveLength(values.length);
    }), { numRuns: 500 });
  });
});
