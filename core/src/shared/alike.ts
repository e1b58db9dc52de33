import type { CaseId } from '../artefacts/index.ts';
import { isUse, usedBy, type CaseContent, type Step, type StepId } from '../cases/index.ts';
import { likeness, wordsOf } from './wordsOfSteps.ts';

/** A run of steps that stands in several places, word for word or nearly. */
export interface AlikeRun {
  readonly places: readonly { readonly id: CaseId; readonly steps: readonly StepId[] }[];
  /** Steps of the run. */
  readonly length: number;
}

/** Two cases whose steps are nearly the same. */
export interface AlikeCases {
  readonly first: CaseId;
  readonly second: CaseId;
  /** The share of steps in common, of both (Dice). */
  readonly likeness: number;
}

export interface Alike {
  /** Those first that would save most steps when written once. */
  readonly runs: readonly AlikeRun[];
  readonly cases: readonly AlikeCases[];
}

export interface AlikeProgress {
  readonly done: number;
  readonly of: number;
}

interface Written {
  readonly id: CaseId;
  readonly content: Pick<CaseContent, 'steps'>;
}

/** Shorter runs stand in many cases without being worth a name. */
const SHORTEST_RUN = 3;
const LEAST_LIKE_STEPS = 0.75;
const LEAST_LIKE_CASES = 0.8;
const MOST_RUNS = 500;
const MOST_CASES = 500;
/** Places of a run that are told. */
const MOST_PLACES = 100;
/** Cases between two signs of life. */
const SLICE = 200;

/**
 * Runs of steps and cases that are nearly alike, over all cases. Steps are alike when three quarters of their words
 * are; each is held against those before it that stand for others (leader clustering), so that likeness does not
 * wander. Deterministic in the order of the cases; not every run of every subset is told: a run is as long as all its
 * places allow. Yields its progress every so often, so that whoever asks can let others in between or stop.
 */
export function* findAlike(cases: readonly Written[]): Generator<AlikeProgress, Alike> {
  const groups = new StepGroups();
  const sequences: number[][] = [];
  for (const [i, { content }] of cases.entries()) {
    if (i % SLICE === 0) yield { done: i, of: cases.length * 2 };
    sequences.push(content.steps.map((s) => groups.groupOf(s)));
  }
  const alikeCases: AlikeCases[] = [];
  const pairs = new AlikePairs();
  for (const [i, sequence] of sequences.entries()) {
    if (i % SLICE === 0) yield { done: cases.length + i, of: cases.length * 2 };
    for (const { other, likeness: alike } of pairs.add(sequence)) {
      const [first, second] = [cases[other]?.id, cases[i]?.id];
      if (first !== undefined && second !== undefined && alikeCases.length < MOST_CASES) alikeCases.push({ first, second, likeness: alike });
    }
  }
  return { runs: repeatedRuns(sequences).map((run) => withIds(run, cases)), cases: alikeCases.toSorted((a, b) => b.likeness - a.likeness) };
}

/** Steps put into groups of nearly the same words; a use is alike to uses of the same only. */
class StepGroups {
  readonly #known = new Map<string, number>();
  readonly #leaders = new PrefixIndex(LEAST_LIKE_STEPS);
  #last = 0;

  groupOf(step: Step): number {
    const key = isUse(step) ? `use ${usedBy(step)}` : wordsOf(step).join(' ');
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const words = isUse(step) ? [key] : wordsOf(step);
    const leader = this.#leaders.likest(words);
    const group = leader ?? (this.#last += 1);
    if (leader === null) this.#leaders.add(group, words);
    this.#known.set(key, group);
    return group;
  }
}

/** Leaders of a group are looked for among so many at most that share a telling word. */
const MOST_CANDIDATES = 400;

/**
 * Lists of words, found again by a list that is nearly the same. Two lists with a likeness of t share at least one
 * word among the first few of each, in whatever order all words are put (prefix filtering: Chaudhuri, Ganti, Kaushik
 * 2006); rare words first keep the lists of candidates short.
 */
class PrefixIndex {
  readonly #least: number;
  readonly #lists = new Map<number, readonly string[]>();
  readonly #byWord = new Map<string, number[]>();

  constructor(least: number) {
    this.#least = least;
  }

  add(id: number, words: readonly string[]): void {
    this.#lists.set(id, words);
    for (const word of prefixOf(words, this.#least)) {
      const known = this.#byWord.get(word);
      if (known === undefined) this.#byWord.set(word, [id]);
      else known.push(id);
    }
  }

  likest(words: readonly string[]): number | null {
    let best: { id: number; alike: number } | null = null;
    for (const word of prefixOf(words, this.#least)) {
      for (const id of (this.#byWord.get(word) ?? []).slice(-MOST_CANDIDATES)) {
        const alike = likeness(words, this.#lists.get(id) ?? []);
        if (alike >= this.#least && (best === null || alike > best.alike || (alike === best.alike && id < best.id))) best = { id, alike };
      }
    }
    return best?.id ?? null;
  }
}

/** Longer words are rarer, and words of one length have an order of their own: the same order for every list. */
function prefixOf(words: readonly string[], least: number): string[] {
  const sorted = [...new Set(words)].sort((a, b) => b.length - a.length || (a < b ? -1 : 1));
  // Of two lists with Dice t, the shorter has at least t / (2 - t) of its words in the longer.
  const needed = Math.ceil((least / (2 - least)) * sorted.length);
  return sorted.slice(0, Math.max(1, sorted.length - needed + 1));
}

/** Finds for each sequence those before it that have nearly the same steps. */
class AlikePairs {
  readonly #sequences: (readonly number[])[] = [];
  readonly #byGroup = new Map<number, number[]>();

  add(sequence: readonly number[]): { other: number; likeness: number }[] {
    const at = this.#sequences.push(sequence) - 1;
    if (sequence.length < SHORTEST_RUN) return [];
    const found = new Map<number, number>();
    const groups = [...new Set(sequence)].sort((a, b) => b - a);
    const needed = Math.ceil((LEAST_LIKE_CASES / (2 - LEAST_LIKE_CASES)) * groups.length);
    // Groups that came late are rarer than those that came early.
    for (const group of groups.slice(0, groups.length - needed + 1)) {
      const before = this.#byGroup.get(group) ?? [];
      for (const other of before.slice(-MOST_CANDIDATES)) {
        if (found.has(other)) continue;
        found.set(other, likeness(sequence, this.#sequences[other] ?? []));
      }
      if (before.length === 0) this.#byGroup.set(group, [at]);
      else before.push(at);
    }
    return [...found].filter(([, alike]) => alike >= LEAST_LIKE_CASES).map(([other, alike]) => ({ other, likeness: alike }));
  }
}

interface Place {
  readonly sequence: number;
  readonly from: number;
}

interface Run {
  readonly places: readonly Place[];
  readonly length: number;
}

function repeatedRuns(sequences: readonly (readonly number[])[]): Run[] {
  const windows = new Map<string, Place[]>();
  for (const [sequence, groups] of sequences.entries()) {
    for (let from = 0; from + SHORTEST_RUN <= groups.length; from += 1) {
      const key = groups.slice(from, from + SHORTEST_RUN).join(' ');
      const places = windows.get(key);
      if (places === undefined) windows.set(key, [{ sequence, from }]);
      else places.push({ sequence, from });
    }
  }
  const runs: Run[] = [];
  for (const all of windows.values()) {
    if (all.length < 2 || !isFirst(all, sequences)) continue;
    const length = longest(all, sequences);
    const places = apart(all, length);
    if (places.length > 1) runs.push({ places, length });
  }
  return runs.toSorted((a, b) => saved(b) - saved(a)).slice(0, MOST_RUNS);
}

/** Steps that need not be written when the run is written once. */
function saved({ places, length }: Run): number {
  return (places.length - 1) * (length - 1);
}

/** Whether the places have not all the same step before them: otherwise the run is told from there. */
function isFirst(places: readonly Place[], sequences: readonly (readonly number[])[]): boolean {
  const before = new Set(places.map(({ sequence, from }) => sequences[sequence]?.[from - 1] ?? null));
  return before.size > 1 || before.has(null);
}

function longest(places: readonly Place[], sequences: readonly (readonly number[])[]): number {
  for (let length = SHORTEST_RUN; ; length += 1) {
    const next = new Set(places.map(({ sequence, from }) => sequences[sequence]?.[from + length] ?? null));
    if (next.size > 1 || next.has(null)) return length;
  }
}

/** Without places that overlap one before them in the same case. */
function apart(places: readonly Place[], length: number): Place[] {
  const kept: Place[] = [];
  for (const place of places) {
    const last = kept.at(-1);
    if (last?.sequence !== place.sequence || last.from + length <= place.from) kept.push(place);
  }
  return kept;
}

function withIds({ places, length }: Run, cases: readonly Written[]): AlikeRun {
  return {
    length,
    places: places.slice(0, MOST_PLACES).flatMap(({ sequence, from }) => {
      const found = cases[sequence];
      return found === undefined ? [] : [{ id: found.id, steps: found.content.steps.slice(from, from + length).map((s) => s.id) }];
    }),
  };
}
