import type { FeatureId } from '../artefacts/index.ts';
import type { FeatureContent } from './feature.ts';
import { PHRASE_KINDS, type PhraseKind, type PhraseUse } from './phraseUse.ts';
import { NO_OWN_KINDS, type OwnKinds } from './ownKinds.ts';
import { isOwnKind, piecesOf, takenApart, withValues, type BuiltInKind, type ValueKind } from './phrase.ts';
import type { PhraseKey } from './phraseKey.ts';
import { outlineOf } from './scenario.ts';
import { writtenTwice, type WrittenTwice } from './writtenTwice.ts';

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

/** What the uses of a phrase come to: by what they are said as, and for each hole by what stands in it. */
interface Sum {
  readonly users: Set<FeatureId>;
  readonly kinds: Record<PhraseKind, number>;
  readonly holes: Map<ValueKind, number>[];
  /** As it was asked for last; null: it has changed since. */
  phrase: Phrase | null;
}

/** All phrases of a project with where each is used. A feature that changed is put anew; nothing of the others is gone through again. */
export class Phrasebook {
  readonly #features = new Map<FeatureId, readonly PhraseUse[]>();
  readonly #sums = new Map<PhraseKey, Sum>();

  put(id: FeatureId, uses: readonly PhraseUse[]): void {
    this.remove(id);
    this.#features.set(id, uses);
    for (const use of uses) this.#add(use, 1).users.add(id);
  }

  remove(id: FeatureId): void {
    for (const use of this.#features.get(id) ?? []) {
      const { users } = this.#add(use, -1);
      users.delete(id);
      if (users.size === 0) this.#sums.delete(use.key);
    }
    this.#features.delete(id);
  }

  /** Every phrase, the most used first; of as many uses in the order of the alphabet. */
  phrases(): Phrase[] {
    const all = [...this.#sums].map(([key, sum]) => (sum.phrase ??= phraseOf(key, sum)));
    return all.toSorted((a, b) => b.uses - a.uses || (a.key < b.key ? -1 : 1));
  }

  /** Where phrases are used, feature by feature in the order of their numbers. */
  usesOf(keys: ReadonlySet<PhraseKey>): { readonly feature: FeatureId; readonly uses: readonly PhraseUse[] }[] {
    const users = new Set([...keys].flatMap((key) => [...(this.#sums.get(key)?.users ?? [])]));
    return [...users].toSorted((a, b) => Number(a.slice(2)) - Number(b.slice(2))).map((feature) => ({ feature, uses: (this.#features.get(feature) ?? []).filter((use) => keys.has(use.key)) }));
  }

  /** Scenarios that say the same, or nearly. */
  writtenTwice(): WrittenTwice {
    return writtenTwice([...this.#features].map(([feature, uses]) => ({ feature, uses })).toSorted((a, b) => Number(a.feature.slice(2)) - Number(b.feature.slice(2))));
  }

  #add({ key, kind, holes }: PhraseUse, by: 1 | -1): Sum {
    const sum = this.#sums.get(key) ?? { users: new Set<FeatureId>(), kinds: { given: 0, when: 0, then: 0, other: 0 }, holes: [], phrase: null };
    this.#sums.set(key, sum);
    sum.phrase = null;
    sum.kinds[kind] += by;
    for (const [i, hole] of holes.entries()) {
      const counts = (sum.holes[i] ??= new Map<ValueKind, number>());
      counts.set(hole, (counts.get(hole) ?? 0) + by);
    }
    return sum;
  }
}

function phraseOf(key: PhraseKey, { users, kinds, holes }: Sum): Phrase {
  return { key, holes: holes.map(standingIn), uses: PHRASE_KINDS.reduce((sum, kind) => sum + kinds[kind], 0), features: users.size, kinds: { ...kinds } };
}

/** What several values are together: whole numbers are numbers, what differs more is a word; placeholders count where nothing else stands. */
function standingIn(counts: ReadonlyMap<ValueKind, number>): ValueKind {
  const [first = 'placeholder', ...others] = [...counts].flatMap(([kind, count]) => (count > 0 && kind !== 'placeholder' ? [kind] : []));
  if (others.length === 0) return first;
  return [first, ...others].every((kind) => kind === 'int' || kind === 'float') ? 'float' : 'word';
}

/** A phrase as it is shown, and as code that executes steps is bound to it: a cucumber expression. */
export function expressionOf({ key, holes }: Pick<Phrase, 'key' | 'holes'>): string {
  let next = 0;
  return key.replaceAll(/(?<!\\)((?:\\\\)*)\{\}/g, (_, slashes: string) => `${slashes}${holeShown(holes[holeAt(key, (next += 1) - 1)] ?? 'placeholder')}`);
}

/** A hole as cucumber expressions have it. */
export function holeShown(kind: ValueKind): string {
  return isOwnKind(kind) ? kind : HOLE_SHOWN[kind];
}

const HOLE_SHOWN: Record<BuiltInKind, string> = { string: '{string}', int: '{int}', float: '{float}', word: '{word}', placeholder: '{}' };

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
export function reworded(content: FeatureContent, from: ReadonlySet<PhraseKey>, to: PhraseKey, own: OwnKinds = NO_OWN_KINDS): FeatureContent {
  const steps = new Map(outlineOf(content).scenarios.flatMap((s) => s.steps.map((step) => [step.line, step.text] as const)));
  let at = 0;
  const parts = content.parts.map((part) => {
    const lines = part.lines.map((line) => {
      const text = steps.get((at += 1) - 1);
      const made = text === undefined ? null : wordedAs(text, from, to, own);
      return text === undefined || made === null ? line : { ...line, text: withLast(line.text, text, made) };
    });
    return lines.every((line, i) => line === part.lines[i]) ? part : { ...part, lines };
  });
  return parts.every((part, i) => part === content.parts[i]) ? content : { ...content, parts };
}

/** The text of a step stands last in its line; the same letters may stand in the keyword before it. */
function withLast(line: string, text: string, made: string): string {
  const at = line.lastIndexOf(text);
  return line.slice(0, at) + made + line.slice(at + text.length);
}

/** A step of one of some phrases in the words of another; null where it is none, or has other values. */
export function wordedAs(text: string, from: ReadonlySet<PhraseKey>, to: PhraseKey, own: OwnKinds = NO_OWN_KINDS): string | null {
  const { key, values } = takenApart(text, own);
  if (key === to || !from.has(key) || !canBeWordedAs(key, to)) return null;
  return withValues(to, values.map((v) => v.text));
}
