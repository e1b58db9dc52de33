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
const LEAST_LIKE_CASES = 0.8;
const MOST_RUNS = 500;
const MOST_CASES = 500;
/** Places of a run that are told. */
const MOST_PLACES = 100;
/** Cases between two signs of life. */
const SLICE = 200;

/**
 * Runs of steps and cases that are nearly alike, over all cases. Steps are alike that say the same but for values,
 * articles and one other word; each is held against the first of its kind, so that likeness does not wander.
 * Deterministic in the order of the cases; not every run of every subset is told: a run is as long as all its places
 * allow. In time linear in the words. Yields its progress every so often, so that whoever asks can let others in between or stop.
 */
export function* findAlike(cases: readonly Written[]): Generator<AlikeProgress, Alike> {
  const groups = new StepGroups();
  const sequences: number[][] = [];
  for (const [i, { content }] of cases.entries()) {
    if (i % SLICE === 0) yield { done: i, of: cases.length * 2 };
    sequences.push(content.steps.map((s) => groups.groupOf(s)));
  }
  const alikeCases: AlikeCases[] = [];
  const pairs = new AlikePairs(sequences, LEAST_LIKE_CASES);
  for (const [i, sequence] of sequences.entries()) {
    if (i % SLICE === 0) yield { done: cases.length + i, of: cases.length * 2 };
    for (const { other, likeness: alike } of pairs.add(sequence)) {
      const [first, second] = [cases[other]?.id, cases[i]?.id];
      if (first !== undefined && second !== undefined && alikeCases.length < MOST_CASES) alikeCases.push({ first, second, likeness: alike });
    }
  }
  return { runs: repeatedRuns(sequences).map((run) => withIds(run, cases)), cases: alikeCases.toSorted((a, b) => b.likeness - a.likeness) };
}

/** Words that change nothing of what is done. */
const EMPTY_WORDS = new Set(['a', 'an', 'the', 'this', 'that', 'its', 'of', 'to', 'in', 'on', 'at', 'and', 'then', 'please', 'again']);
/** Shorter steps must be the same word for word: with one word other they are about something else. */
const FEWEST_WORDS = 4;

/**
 * Steps put into groups: each joins the first step that says the same but for values, articles and one other word.
 * Two lists of words that differ in one word are the same list once a word is taken out of each, so that all lists with
 * a word taken out, kept by what is left, find each other without being compared (deletion neighbourhood).
 */
class StepGroups {
  readonly #known = new Map<string, number>();
  readonly #withOneOut = new Map<string, number>();
  readonly #signs = new Map<string, string>();
  #last = 0;

  groupOf(step: Step): number {
    const signs = isUse(step) ? [this.#signOf(usedBy(step))] : wordsOf(step).filter((w) => !EMPTY_WORDS.has(w)).map((w) => this.#signOf(/^[<\p{N}]/u.test(w) ? '' : w));
    const whole = signs.join('');
    const known = this.#known.get(whole);
    if (known !== undefined) return known;
    const near = signs.length < FEWEST_WORDS ? [] : withOneOut(signs, whole);
    const group = this.#nearest(whole, near) ?? this.#newGroup(near);
    this.#known.set(whole, group);
    return group;
  }

  #nearest(whole: string, near: readonly string[]): number | null {
    if (near.length === 0) return null;
    let first = this.#withOneOut.get(whole) ?? Number.POSITIVE_INFINITY;
    for (const key of near) first = Math.min(first, this.#known.get(key) ?? first, this.#withOneOut.get(key) ?? first);
    return Number.isFinite(first) ? first : null;
  }

  #newGroup(near: readonly string[]): number {
    const group = (this.#last += 1);
    for (const key of near) if (!this.#withOneOut.has(key)) this.#withOneOut.set(key, group);
    return group;
  }

  /** One sign a word keeps the keys short. Values are all one sign. */
  #signOf(word: string): string {
    const known = this.#signs.get(word);
    if (known !== undefined) return known;
    const { size } = this.#signs;
    // Half pairs are no signs; those beyond take two places, which few projects need.
    const sign = String.fromCodePoint(size < HALF_PAIRS ? size : size - HALF_PAIRS + BEYOND);
    this.#signs.set(word, sign);
    return sign;
  }
}

/** Two sequences nearly the same, by their places in the list. */
export interface AlikePair {
  readonly first: number;
  readonly second: number;
  readonly likeness: number;
}

/** Sequences that are the same to a share of `least` (Dice), each pair once, the likest first; shorter ones than three are like none. */
export function alikeSequences(sequences: readonly (readonly number[])[], least: number, most: number): AlikePair[] {
  const pairs = new AlikePairs(sequences, least);
  const found = sequences.flatMap((sequence, second) => pairs.add(sequence).map(({ other, likeness: alike }): AlikePair => ({ first: other, second, likeness: alike })));
  return found.toSorted((a, b) => b.likeness - a.likeness).slice(0, most);
}

const HALF_PAIRS = 0xd800;
const BEYOND = 0x1_0000;

/** The list without its first sign, without its second, and so on. */
function withOneOut(signs: readonly string[], whole: string): string[] {
  let at = 0;
  return signs.map((sign) => {
    const from = at;
    at += sign.length;
    return whole.slice(0, from) + whole.slice(at);
  });
}

/** Cases that share a telling step are held against each other, the latest of so many. */
const MOST_CANDIDATES = 200;

/**
 * Finds for each sequence of groups those before it that are nearly the same. Two with a likeness of t share at least
 * one group among the first few of each, in whatever order all groups are put (prefix filtering: Chaudhuri, Ganti,
 * Kaushik 2006); rare ones first keep the lists of candidates short.
 */
class AlikePairs {
  readonly #sequences: (readonly number[])[] = [];
  readonly #often = new Map<number, number>();
  readonly #byGroup = new Map<number, number[]>();

  readonly #least: number;

  constructor(all: readonly (readonly number[])[], least: number) {
    this.#least = least;
    for (const sequence of all) for (const group of sequence) this.#often.set(group, (this.#often.get(group) ?? 0) + 1);
  }

  add(sequence: readonly number[]): { other: number; likeness: number }[] {
    const at = this.#sequences.push(sequence) - 1;
    if (sequence.length < SHORTEST_RUN) return [];
    const found = new Map<number, number>();
    for (const group of this.#telling(sequence)) {
      const before = this.#byGroup.get(group) ?? [];
      for (const other of before.slice(-MOST_CANDIDATES)) if (!found.has(other)) found.set(other, likeness(sequence, this.#sequences[other] ?? []));
      if (before.length === 0) this.#byGroup.set(group, [at]);
      else before.push(at);
    }
    return [...found].filter(([, alike]) => alike >= this.#least).map(([other, alike]) => ({ other, likeness: alike }));
  }

  #telling(sequence: readonly number[]): number[] {
    const groups = [...new Set(sequence)].sort((a, b) => (this.#often.get(a) ?? 0) - (this.#often.get(b) ?? 0) || a - b);
    // Of two with Dice t, at least t / (2 - t) of the groups of either are in the other.
    const needed = Math.ceil((this.#least / (2 - this.#least)) * groups.length);
    return groups.slice(0, groups.length - needed + 1);
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
  // By where a run stands first: what is as long there is the same run, met from another window of it.
  const runs = new Map<string, Run>();
  for (const all of windows.values()) {
    if (all.length < 2 || windows.get(windowBefore(all, sequences) ?? '')?.length === all.length) continue;
    const first = earliest(all, sequences);
    const length = longest(first, sequences);
    const places = apart(first, length);
    if (places.length > 1) runs.set(`${places[0]?.sequence} ${places[0]?.from} ${length}`, { places, length });
  }
  return [...runs.values()].toSorted((a, b) => saved(b) - saved(a)).slice(0, MOST_RUNS);
}

/** Steps that need not be written when the run is written once. */
function saved({ places, length }: Run): number {
  return (places.length - 1) * (length - 1);
}

/** The window a step before, where all places have the same there. If it stands nowhere else, the run is told from it. */
function windowBefore(places: readonly Place[], sequences: readonly (readonly number[])[]): string | null {
  const [first] = places;
  if (first === undefined || stepBefore(places, sequences) === null) return null;
  return (sequences[first.sequence] ?? []).slice(first.from - 1, first.from - 1 + SHORTEST_RUN).join(' ');
}

/** The step that stands before all places; null: they differ there, or one is at the beginning. */
function stepBefore(places: readonly Place[], sequences: readonly (readonly number[])[]): number | null {
  const [step = null, ...others] = new Set(places.map(({ sequence, from }) => sequences[sequence]?.[from - 1] ?? null));
  return others.length > 0 ? null : step;
}

/** As far before the places as all have the same. */
function earliest(places: readonly Place[], sequences: readonly (readonly number[])[]): readonly Place[] {
  let first = places;
  while (stepBefore(first, sequences) !== null) first = first.map(({ sequence, from }) => ({ sequence, from: from - 1 }));
  return first;
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
