import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_FEATURE, movedToFeature, onlyWrittenFor, scenariosTagged, scenariosWrittenFor, withNumbers, withText, withWrittenFor, withoutWrittenFor, type FeatureContent, type PartId } from './index.ts';
import { featureKind } from './featureKind.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);
const TEXT = 'Feature: f\n  Background:\n    Given x\n  @a\n  Scenario: one\n    Then y\n  @a @b\n  Scenario: two\n    Then y\n  Scenario: three\n    Then y\n';
const scenarios = (content: FeatureContent): PartId[] => content.parts.filter((p) => p.kind === 'scenario').map((p) => p.id);

/** The plain judge: for each scenario whether it is written for the requirement. */
const writtenFor = (content: FeatureContent): boolean[] => scenarios(content).map((id) => content.requirements.some((r) => r.id === 'R-1' && (r.parts.length === 0 || r.parts.includes(id))));

describe('what single scenarios are written for', () => {
  it('is, after any links and unlinks, what was said last of each; a scenario taken out leaves no link behind', () => {
    const step = fc.oneof(
      fc.record({ kind: fc.constantFrom('link', 'unlink', 'only'), at: fc.nat(2) }),
      fc.constant({ kind: 'linkAll', at: 0 }),
      fc.constant({ kind: 'unlinkAll', at: 0 }),
    );
    let narrowed = 0;
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), fc.nat(2), (steps, gone) => {
        let content = feature(TEXT);
        let expected = [false, false, false];
        for (const { kind, at } of steps) {
          const part = scenarios(content)[at]!;
          const linked = expected.some(Boolean);
          if (kind === 'link') [content, expected] = [withWrittenFor(content, { id: 'R-1', seenVersion: 1 }, [part]), expected.with(at, true)];
          if (kind === 'unlink') [content, expected] = [withoutWrittenFor(content, 'R-1', part), expected.with(at, false)];
          // What is linked nowhere cannot be narrowed.
          if (kind === 'only' && linked) [content, expected] = [onlyWrittenFor(content, 'R-1', part), expected.map((_, i) => i === at)];
          if (kind === 'linkAll') [content, expected] = [withWrittenFor(content, { id: 'R-1', seenVersion: 1 }, 'all'), [true, true, true]];
          if (kind === 'unlinkAll') [content, expected] = [withoutWrittenFor(content, 'R-1', 'all'), [false, false, false]];
          expect(writtenFor(content)).toEqual(expected);
          expect(content.requirements.length).toBe(expected.some(Boolean) ? 1 : 0);
        }
        if (content.requirements[0]?.parts.length === 1) narrowed += 1;
        const without = featureKind.settled!({ ...content, parts: content.parts.filter((p) => p.id !== scenarios(content)[gone]) }, content);
        expect(writtenFor(without)).toEqual(expected.toSpliced(gone, 1));
        expect(without.requirements.flatMap((r) => r.parts).every((id) => scenarios(without).includes(id))).toBe(true);
      }),
      { numRuns: 300 },
    );
    expect(narrowed).toBeGreaterThan(20);
  });

  it('is asked by tags: those that a scenario stands under count, an expression that is none finds nothing', () => {
    const content = feature(`@b\n${TEXT}`);
    const [one, two, three] = scenarios(content);
    expect([scenariosTagged(content, '@a and not @c'), scenariosTagged(content, '@b'), scenariosTagged(content, ' '), scenariosTagged(content, '@a and')]).toEqual([[one, two], [one, two, three], 'all', []]);
    expect(withWrittenFor(content, { id: 'R-1', seenVersion: 1 }, [])).toBe(content);
  });

  it('is told by number, and goes along with a scenario that moves to another feature; what the feature is written for does not', () => {
    const plain = feature(TEXT);
    const [, two] = scenarios(plain);
    const content = withWrittenFor(withWrittenFor(plain, { id: 'R-1', seenVersion: 4 }, [two!]), { id: 'R-2', seenVersion: 1 }, 'all');
    expect(scenariosWrittenFor(content)).toEqual([{ requirement: 'R-1', scenarios: [2] }]);
    const moved = movedToFeature(content, feature('Feature: g\n  Scenario: z\n    Then y\n'), two!, newId)!;
    expect(moved.from.requirements).toEqual([{ id: 'R-2', seenVersion: 1, parts: [] }]);
    expect(moved.to.requirements).toEqual([{ id: 'R-1', seenVersion: 4, parts: [two] }]);
    expect(scenariosWrittenFor(withNumbers(moved.to, null))).toEqual([{ requirement: 'R-1', scenarios: [2] }]);
  });
});
