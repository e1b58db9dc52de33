import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { FeatureId } from '../artefacts/index.ts';
import { alikePhrases } from './alikePhrases.ts';
import { ambiguousPhrases } from './ambiguousPhrases.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { withText } from './identities.ts';
import { takenApart } from './phrase.ts';
import { phraseUses } from './phraseUse.ts';
import { Phrasebook, canBeWordedAs, expressionOf, reworded } from './phrasebook.ts';
import { outlineOf } from './scenario.ts';
import { withFeatureTag, withFeatureTagsRenamed } from './tagging.ts';

let made = 0;
function feature(text: string): FeatureContent {
  return withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`);
}
const scenario = (...steps: readonly string[]): string => `Feature: f\n\n  Scenario: s\n${steps.map((s) => `    ${s}\n`).join('')}`;
const keyOf = (text: string) => takenApart(text).key;

function bookOf(...texts: readonly string[]): Phrasebook {
  const book = new Phrasebook();
  texts.forEach((text, i) => book.put(`F-${i + 1}`, phraseUses(feature(text))));
  return book;
}

describe('the phrasebook', () => {
  it('counts each phrase with what its steps are and what stands in its holes; And goes on with what stands above', () => {
    const book = bookOf(scenario('Given a meter "M-1" at 12', 'And the clerk enters <n>', 'When the clerk enters 4', 'Then 1.5 € are due', 'But 2 € are due', '* the clerk enters 5'), scenario('Given a meter <m> at 3'));
    expect(book.phrases().map((p) => [expressionOf(p), p.uses, p.features, p.kinds])).toEqual([
      ['the clerk enters {int}', 3, 1, { given: 1, when: 1, then: 0, other: 1 }],
      ['{float} € are due', 2, 1, { given: 0, when: 0, then: 2, other: 0 }],
      ['a meter {string} at {int}', 1, 1, { given: 1, when: 0, then: 0, other: 0 }],
      ['a meter {} at {int}', 1, 1, { given: 1, when: 0, then: 0, other: 0 }],
    ]);
    expect(book.usesOf(new Set([keyOf('the clerk enters 9')]))).toEqual([{ feature: 'F-1', uses: [4, 5, 8 + 1].map((line, i) => expect.objectContaining({ line: line + (i < 2 ? 1 : 0), scenario: 0 })) }]);
  });

  it('kept up to date is the one that is made anew', () => {
    const steps = fc.array(fc.constantFrom('Given a 1', 'When b "x"', 'Then c <p>', 'And a 2.5', 'Given d'), { maxLength: 6 });
    const acts = fc.array(fc.tuple(fc.integer({ min: 1, max: 4 }), fc.option(steps)), { maxLength: 20 });
    fc.assert(
      fc.property(acts, (all) => {
        const [kept, latest] = [new Phrasebook(), new Map<FeatureId, string>()];
        for (const [number, lines] of all) {
          const id: FeatureId = `F-${number}`;
          if (lines === null) latest.delete(id);
          else latest.set(id, scenario(...lines));
          if (lines === null) kept.remove(id);
          else kept.put(id, phraseUses(feature(scenario(...lines))));
          if (number === 1) kept.phrases();
        }
        const anew = new Phrasebook();
        for (const [id, text] of latest) anew.put(id, phraseUses(feature(text)));
        expect(kept.phrases()).toEqual(anew.phrases());
      }),
    );
  });
});

describe('one wording for several', () => {
  it('is written in every use, and no value changes or moves', () => {
    const word = fc.constantFrom('the', 'clerk', 'enters', '"x y"', '12', '<p>', '3.5', 'and', '(maybe)', "'q'");
    const sentence = fc.array(word, { minLength: 1, maxLength: 7 }).map((words) => words.join(' '));
    fc.assert(
      fc.property(fc.array(sentence, { minLength: 1, maxLength: 6 }), sentence, (steps, wanted) => {
        const before = feature(scenario(...steps.map((s) => `Given ${s}`)));
        const after = reworded(before, new Set(steps.map(keyOf)), keyOf(wanted));
        const read = (content: FeatureContent) => outlineOf(content).scenarios.flatMap((s) => s.steps.map((step) => takenApart(step.text)));
        read(before).forEach((was, i) => {
          const now = read(after)[i];
          expect(now?.values.map((v) => v.text)).toEqual(was.values.map((v) => v.text));
          expect(now?.key).toBe(canBeWordedAs(was.key, keyOf(wanted)) ? keyOf(wanted) : was.key);
        });
        expect(after.parts.map((p) => [p.id, p.lines.map((l) => l.id)])).toEqual(before.parts.map((p) => [p.id, p.lines.map((l) => l.id)]));
      }),
      { numRuns: 300 },
    );
  });

  it('leaves what it does not mean byte for byte, and is the very same where nothing is meant', () => {
    const text = 'Feature: the ledger is unchanged\r\n  # the ledger is unchanged\r\n  Scenario: s\r\n    Given the ledger is unchanged   \r\n      | the ledger is unchanged |\r\n';
    const before = feature(text);
    expect(textOf(reworded(before, new Set([keyOf('the ledger is unchanged')]), keyOf('the ledger stays as it was')))).toBe(text.replace('Given the ledger is unchanged', 'Given the ledger stays as it was'));
    expect(reworded(before, new Set([keyOf('something else')]), keyOf('x'))).toBe(before);
    expect(textOf(reworded(feature(scenario('Given en', 'Then he')), new Set([keyOf('en'), keyOf('he')]), keyOf('it')))).toBe(scenario('Given it', 'Then it'));
  });
});

it('phrases are alike that differ in small words and forms, or in one word of many; others are not', () => {
  const book = bookOf(
    scenario('Then the ledger is unchanged', 'Then the ledger is unchanged', 'Then the ledger remains unchanged', 'Then a ledger was unchanged', 'When the clerk enters 1', 'When the reader enters 2', 'Given meter "M" of a member of the lower town', 'Given meter "M" of a member of the upper town', 'Given the member of the lower town has meter "M"', 'Then it is stored', 'Then it is refused', 'When "a" follows "b"', 'When "a" is followed by "b"'),
  );
  expect(alikePhrases(book.phrases()).map(({ why, keys }) => [why, ...keys])).toEqual([
    ['sameWords', 'the ledger is unchanged', 'a ledger was unchanged', 'the ledger remains unchanged'],
    ['sameWords', 'meter {string} of a member of the lower town', 'the member of the lower town has meter {string}'],
    ['oneWord', 'meter {string} of a member of the lower town', 'meter {string} of a member of the upper town'],
  ]);
});

describe('a tag', () => {
  const text = '\uFEFF# language: en\r\nFeature: f\r\n\r\n  @Smoke @slow # why\r\n  Scenario: s\r\n    Given a @smoke\r\n    Examples:\r\n';
  it('is put above the feature once, and taken away wherever it stands', () => {
    const added = withFeatureTag(feature(text), 'bill', true)!;
    expect(textOf(added)).toBe(text.replace('Feature', '@bill\r\nFeature'));
    expect(textOf(withFeatureTag(added, '@more', true)!)).toBe(text.replace('Feature', '@bill @more\r\nFeature'));
    expect(withFeatureTag(added, '@BILL', true)).toBe(added);
    expect(textOf(withFeatureTag(added, 'bill', false)!)).toBe(text);
    expect(textOf(withFeatureTag(feature(text), 'smoke', false)!)).toBe(text.replace('@Smoke ', ''));
    expect(withFeatureTag(feature(text), 'two words', true)).toBeNull();
    expect(textOf(withFeatureTag(feature('Feature: x'), 'a', true)!)).toBe('@a\nFeature: x');
  });

  it('is called otherwise, and joined with another', () => {
    const rename = (from: string[], to: string | null) => textOf(withFeatureTagsRenamed(feature(text), from, to)!);
    expect(rename(['smoke'], 'quick')).toBe(text.replace('@Smoke', '@quick'));
    expect(rename(['smoke', 'slow'], 'one')).toBe(text.replace('@Smoke @slow', '@one '));
    expect(rename(['smoke'], null)).toBe(text.replace('@Smoke ', ''));
  });
});

it('phrases that differ only in whether a value is quoted are ambiguous; braces that are words are not', () => {
  const found = (...steps: string[]) => ambiguousPhrases(bookOf(scenario(...steps)).phrases()).map((group) => group.toSorted());
  expect(found('Given a meter "M-1"', 'And a meter 4', 'And a meter {x} "a"', 'And a meter {x} 4', 'And a bill')).toEqual([['a meter \\{x\\} {string}', 'a meter \\{x\\} {}'], ['a meter {string}', 'a meter {}']]);
  expect(found('Given a meter "M-1"', 'And a meter <m>')).toEqual([]);
});
