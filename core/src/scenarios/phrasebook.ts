import type { FeatureId } from '../artefacts/index.ts';
import type { FeatureContent } from './feature.ts';
import { piecesOf, takenApart, withValues, type PhraseKey, type ValueKind } from './phrase.ts';
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
}

/** A phrase of a project. */
export interface Phrase {
  readonly key: PhraseKey;
  /** What stands in each hole, of all its uses; a placeholder only where nothing else does. */
  readonly holes: readonly ValueKind[];
  readonly uses: number;
  readonly features: number;
  /** How often it is used as what. */
  readonly kinds: Readonly<Record<PhraseKind, number>>;
}

/** All steps of a feature with their phrases, in the order of the file. */
export function phraseUses(content: Pick<FeatureContent, 'parts'>): PhraseUse[] {
  return outlineOf(content).scenarios.flatMap(({ steps, number }) => {
    let kind: PhraseKind = 'other';
    return steps.map((step): PhraseUse => {
      if (step.kind !== 'and') kind = step.kind;
      return { key: takenApart(step.text).key, kind, scenario: number, line: step.line + 1, text: step.text };
    });
  });
}

/** All phrases of a project with where each is used. A feature that changed is put anew; nothing else is read again. */
export class Phrasebook {
  readonly #features = new Map<FeatureId, readonly PhraseUse[]>();
  readonly #users = new Map<PhraseKey, Set<FeatureId>>();
  readonly #phrases = new Map<PhraseKey, Phrase>();

  put(id: FeatureId, uses: readonly PhraseUse[]): void {
    this.remove(id);
    this.#features.set(id, uses);
    for (const { key } of uses) {
      const users = this.#users.get(key);
      if (users === undefined) this.#users.set(key, new Set([id]));
      else users.add(id);
      this.#phrases.delete(key);
    }
  }

  remove(id: FeatureId): void {
    for (const { key } of this.#features.get(id) ?? []) {
      const users = this.#users.get(key);
      users?.delete(id);
      if (users?.size === 0) this.#users.delete(key);
      this.#phrases.delete(key);
    }
    this.#features.delete(id);
  }

  /** Every phrase, the most used first; of as many uses in the order of the alphabet. */
  phrases(): Phrase[] {
    const left = [...this.#users.keys()].filter((key) => !this.#phrases.has(key));
    const uses = this.#usesOf(new Set(left));
    for (const key of left) this.#phrases.set(key, summed(key, uses.get(key) ?? [], this.#users.get(key)?.size ?? 0));
    return [...this.#phrases.values()].toSorted((a, b) => b.uses - a.uses || (a.key < b.key ? -1 : 1));
  }

  /** Where phrases are used, feature by feature in the order of their numbers. */
  usesOf(keys: ReadonlySet<PhraseKey>): { readonly feature: FeatureId; readonly uses: readonly PhraseUse[] }[] {
    const users = new Set([...keys].flatMap((key) => [...(this.#users.get(key) ?? [])]));
    return [...users].toSorted((a, b) => Number(a.slice(2)) - Number(b.slice(2))).map((feature) => ({ feature, uses: (this.#features.get(feature) ?? []).filter((use) => keys.has(use.key)) }));
  }

  /** Uses by phrase, of these alone: only features that have one are gone through. */
  #usesOf(keys: ReadonlySet<PhraseKey>): Map<PhraseKey, PhraseUse[]> {
    const found = new Map<PhraseKey, PhraseUse[]>();
    for (const { uses } of this.usesOf(keys)) {
      for (const use of uses) {
        const known = found.get(use.key);
        if (known === undefined) found.set(use.key, [use]);
        else known.push(use);
      }
    }
    return found;
  }
}

function summed(key: PhraseKey, uses: readonly PhraseUse[], features: number): Phrase {
  const kinds: Record<PhraseKind, number> = { given: 0, when: 0, then: 0, other: 0 };
  const holes: (ValueKind | undefined)[] = [];
  for (const { kind, text } of uses) {
    kinds[kind] += 1;
    for (const [i, value] of takenApart(text).values.entries()) holes[i] = common(holes[i], value.kind);
  }
  return { key, holes: holes.map((hole) => hole ?? 'placeholder'), uses: uses.length, features, kinds };
}

/** The kind that two values have together: whole numbers are numbers, and what differs more is a word. */
function common(a: ValueKind | undefined, b: ValueKind): ValueKind {
  if (a === undefined || a === 'placeholder' || a === b) return b;
  if (b === 'placeholder') return a;
  return (a === 'int' || a === 'float') && (b === 'int' || b === 'float') ? 'float' : 'word';
}

/** A phrase as it is shown, and as code that executes steps is bound to it: a cucumber expression. */
export function expressionOf({ key, holes }: Pick<Phrase, 'key' | 'holes'>): string {
  let next = 0;
  return key.replaceAll(/(?<!\\)((?:\\\\)*)\{\}/g, (_, slashes: string) => `${slashes}${HOLE_SHOWN[holes[holeAt(key, (next += 1) - 1)] ?? 'placeholder']}`);
}

const HOLE_SHOWN: Record<ValueKind, string> = { string: '{string}', int: '{int}', float: '{float}', word: '{word}', placeholder: '{}' };

/** Which of all holes the n-th unquoted one is. */
function holeAt(key: PhraseKey, unquoted: number): number {
  let seen = -1;
  return piecesOf(key)
    .filter((piece) => piece.kind === 'hole')
    .findIndex((piece) => !piece.quoted && (seen += 1) === unquoted);
}

/** Whether steps of one phrase can be worded as the other: as many values, in quotation marks where those are. */
export function canBeWordedAs(from: PhraseKey, to: PhraseKey): boolean {
  const holes = (key: PhraseKey): boolean[] => piecesOf(key).flatMap((piece) => (piece.kind === 'hole' ? [piece.quoted] : []));
  const [a, b] = [holes(from), holes(to)];
  return a.length === b.length && a.every((quoted, i) => quoted === b[i]);
}

/** The feature with every step of some phrases worded as another one; values stay, in their order. The very same where none is. */
export function reworded(content: FeatureContent, from: ReadonlySet<PhraseKey>, to: PhraseKey): FeatureContent {
  const steps = new Map(outlineOf(content).scenarios.flatMap((s) => s.steps.map((step) => [step.line, step.text] as const)));
  let at = 0;
  const parts = content.parts.map((part) => {
    const lines = part.lines.map((line) => {
      const text = steps.get((at += 1) - 1);
      const made = text === undefined ? null : wordedAs(text, from, to);
      return made === null ? line : { ...line, text: line.text.replace(text ?? '', () => made) };
    });
    return lines.every((line, i) => line === part.lines[i]) ? part : { ...part, lines };
  });
  return parts.every((part, i) => part === content.parts[i]) ? content : { ...content, parts };
}

/** A step of one of some phrases in the words of another; null where it is none, or has other values. */
export function wordedAs(text: string, from: ReadonlySet<PhraseKey>, to: PhraseKey): string | null {
  const { key, values } = takenApart(text);
  if (key === to || !from.has(key) || !canBeWordedAs(key, to)) return null;
  return withValues(to, values.map((v) => v.text));
}
