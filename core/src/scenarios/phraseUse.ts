import type { FeatureContent } from './feature.ts';
import type { OwnKinds } from './ownKinds.ts';
import { takenApartAnew, type ValueKind } from './phrase.ts';
import type { PhraseKey } from './phraseKey.ts';
import { outlineOf } from './scenario.ts';

/** What a step says: what holds, what happens, what can be seen; `And` and `But` go on with what stands above. */
export const PHRASE_KINDS = ['given', 'when', 'then', 'other'] as const;
export type PhraseKind = (typeof PHRASE_KINDS)[number];

/** A step of a feature with its phrase. */
export interface PhraseUse {
  readonly key: PhraseKey;
  readonly kind: PhraseKind;
  /** The number of its scenario; 0: a background. */
  readonly scenario: number;
  /** In the file, from 1. */
  readonly line: number;
  readonly text: string;
  /** What stands in its holes. */
  readonly holes: readonly ValueKind[];
}

/** All steps of a feature with their phrases, in the order of the file. */
export function phraseUses(content: Pick<FeatureContent, 'parts'>, own?: OwnKinds): PhraseUse[] {
  return outlineOf(content).scenarios.flatMap(({ steps, number }) => {
    let kind: PhraseKind = 'other';
    return steps.map((step): PhraseUse => {
      if (step.kind !== 'and') kind = step.kind;
      const { key, values } = takenApartAnew(step.text, own);
      return { key, kind, scenario: number, line: step.line + 1, text: step.text, holes: values.map((v) => v.kind) };
    });
  });
}
