import { boxOf, contains, entriesOfBox, meet, subtract, type Box } from './boxes.ts';
import { actionsOf, type DecisionTableModel, type Rule } from './decisionTable.ts';
import { fewestCovering } from './fewestCovering.ts';
import { tableProblems } from './tableCheck.ts';

/** A rule of the smaller table with the rules of the old one that it takes up, wholly or in part. */
export interface MergedRule {
  readonly rule: Rule;
  readonly from: readonly string[];
}

/** A table that decides every combination as the old one does. Missing combinations stay missing. */
export type SmallerTable =
  | { readonly kind: 'smaller'; readonly rules: readonly MergedRule[]; readonly proven: boolean }
  /** `proven`: there is no smaller one; otherwise none was found. */
  | { readonly kind: 'already'; readonly proven: boolean }
  /** Rules contradict each other: nothing is equivalent to that. */
  | { readonly kind: 'contradictory' };

/** Above so many boxes (products of values) the smallest table is not looked for, only pairs of rules are merged. */
const MOST_BOXES = 300_000;

/**
 * The fewest rules that do the same: all largest boxes whose combinations share their actions are made (impossible
 * combinations may lie in any), and the fewest are taken that cover everything (Quine and McCluskey's method for
 * conditions with any number of values). Rules may overlap where they do the same.
 */
export function smallestTable(model: DecisionTableModel): SmallerTable {
  if (tableProblems(model).some((p) => p.code === 'rules_contradict')) return { kind: 'contradictory' };
  const possible = model.rules.filter((r) => !r.impossible).map((rule) => ({ rule, box: boxOf(model, rule), actions: actionsOf(model, rule) }));
  const impossible = model.rules.filter((r) => r.impossible).map((rule) => boxOf(model, rule));
  const boxes = model.conditions.reduce((product, c) => product * (2 ** c.values.length - 1), 1);
  const found = boxes > MOST_BOXES ? { merged: mergedPairs(possible, impossible), proven: false } : exact(model, possible, impossible);
  if (found.merged.length >= possible.length) return { kind: 'already', proven: found.proven };
  return { kind: 'smaller', proven: found.proven, rules: named(model, found.merged, possible) };
}

interface Column {
  readonly rule: Rule;
  readonly box: Box;
  readonly actions: string;
}
type Merged = Pick<Column, 'box' | 'actions'>;

/** Left to right by the first old rule that a new one takes up; a rule that stays as it was keeps its id. */
function named(model: DecisionTableModel, merged: readonly Merged[], columns: readonly Column[]): MergedRule[] {
  const withOrigin = merged.map((m) => {
    const from = columns.filter((c) => c.actions === m.actions && meet(c.box, m.box) !== null);
    const kept = from.find((c) => contains(m.box, c.box)) ?? from[0];
    return { box: m.box, from, kept };
  });
  const taken = new Set<string>();
  const place = (c: Column | undefined): number => (c === undefined ? 0 : columns.indexOf(c));
  return withOrigin
    .toSorted((a, b) => place(a.from[0]) - place(b.from[0]))
    .flatMap(({ box, from, kept }) => {
      if (kept === undefined) return [];
      const id = taken.has(kept.rule.id) ? `${kept.rule.id}-${taken.size}` : kept.rule.id;
      taken.add(id);
      return [{ rule: { ...kept.rule, id, entries: entriesOfBox(model, box) }, from: from.map((c) => c.rule.id) }];
    });
}

/** Merges pairs that differ in one condition and drops contained rules until nothing changes. */
function mergedPairs(columns: readonly Column[], impossible: readonly Box[]): Merged[] {
  let merged: Merged[] = columns.filter((c) => subtract(c.box, impossible, 1)?.combinations !== 0n);
  for (;;) {
    const next = mergeOnce(merged.filter((m, i) => !merged.some((o, j) => i !== j && o.actions === m.actions && contains(o.box, m.box) && (j < i || !contains(m.box, o.box)))));
    if (next.length === merged.length) return next;
    merged = next;
  }
}

function mergeOnce(columns: readonly Merged[]): Merged[] {
  const width = columns[0]?.box.length ?? 0;
  let merged = [...columns];
  for (let c = 0; c < width; c += 1) {
    const groups = new Map<string, Merged>();
    for (const column of merged) {
      const key = `${column.box.filter((_, i) => i !== c).join(' ')}|${column.actions}`;
      const box = column.box.map((bits, i) => (i === c ? bits | (groups.get(key)?.box[c] ?? 0) : bits));
      groups.set(key, { box, actions: column.actions });
    }
    merged = [...groups.values()];
  }
  return merged;
}

/** Marks of boxes: nothing in it matters, or it holds combinations that differ or are missing. */
const FREE = 0;
const MIXED = -1;

function exact(model: DecisionTableModel, columns: readonly Column[], impossible: readonly Box[]): { merged: Merged[]; proven: boolean } {
  const lattice = latticeOf(model, columns, impossible);
  let proven = true;
  const merged = lattice.groups.flatMap((actions, i) => {
    const mark = i + 1;
    const { primes, combinations } = primesOf(lattice, mark);
    const covering = fewestCovering(combinations, primes.map((p) => p.combinations));
    proven &&= covering.proven;
    return covering.chosen.flatMap((at) => (primes[at] === undefined ? [] : [{ box: primes[at].box, actions }]));
  });
  return { merged, proven };
}

/** Every box by number, a mask per condition as its digits, and which rules' actions it has throughout. */
interface Lattice {
  readonly widths: readonly number[];
  readonly places: readonly number[];
  readonly marks: Int16Array;
  readonly groups: readonly string[];
}

function latticeOf(model: DecisionTableModel, columns: readonly Column[], impossible: readonly Box[]): Lattice {
  const widths = model.conditions.map((c) => 2 ** c.values.length - 1);
  const places: number[] = [];
  let size = 1;
  for (const width of widths) {
    places.push(size);
    size *= width;
  }
  const groups = [...new Set(columns.map((c) => c.actions))];
  const marks = new Int16Array(size);
  for (let number = 0; number < size; number += 1) {
    const box = boxAt(widths, places, number);
    const wide = box.findIndex((bits) => (bits & (bits - 1)) !== 0);
    marks[number] = wide < 0 ? markOf(box, columns, impossible, groups) : together(marks, number, box[wide] ?? 0, places[wide] ?? 0);
  }
  return { widths, places, marks, groups };
}

function boxAt(widths: readonly number[], places: readonly number[], number: number): number[] {
  return widths.map((width, c) => (Math.floor(number / (places[c] ?? 1)) % width) + 1);
}

function markOf(box: Box, columns: readonly Column[], impossible: readonly Box[], groups: readonly string[]): number {
  if (impossible.some((i) => contains(i, box))) return FREE;
  const column = columns.find((c) => contains(c.box, box));
  return column === undefined ? MIXED : groups.indexOf(column.actions) + 1;
}

/** The mark of a box from its two parts: the lowest value of one condition, and the rest of that condition's. */
function together(marks: Int16Array, number: number, bits: number, place: number): number {
  const low = bits & -bits;
  const a = marks[number - (bits - low) * place] ?? MIXED;
  const b = marks[number - low * place] ?? MIXED;
  return a === FREE || a === b ? b : b === FREE ? a : MIXED;
}

interface Primes {
  readonly primes: readonly { readonly box: Box; readonly combinations: readonly number[] }[];
  /** How many combinations have the mark; the primes name them 0, 1, …. */
  readonly combinations: number;
}

/** The largest boxes of a mark: no value can be added to any of its conditions. */
function primesOf({ widths, places, marks }: Lattice, mark: number): Primes {
  const numbers = new Map<number, number>();
  const boxes: Box[] = [];
  for (let number = 0; number < marks.length; number += 1) {
    if (marks[number] !== mark) continue;
    const box = boxAt(widths, places, number);
    if (box.every((bits) => (bits & (bits - 1)) === 0)) numbers.set(number, numbers.size);
    if (!box.some((bits, c) => widens(marks, number, bits, widths[c] ?? 0, places[c] ?? 0, mark))) boxes.push(box);
  }
  return { combinations: numbers.size, primes: boxes.map((box) => ({ box, combinations: combinationsIn(box, places, numbers) })) };
}

function widens(marks: Int16Array, number: number, bits: number, width: number, place: number, mark: number): boolean {
  for (let left = width & ~bits; left !== 0; left &= left - 1) if (marks[number + (left & -left) * place] === mark) return true;
  return false;
}

function combinationsIn(box: Box, places: readonly number[], numbers: ReadonlyMap<number, number>): number[] {
  let found = [0];
  box.forEach((bits, c) => {
    const digits: number[] = [];
    for (let left = bits; left !== 0; left &= left - 1) digits.push(((left & -left) - 1) * (places[c] ?? 1));
    found = found.flatMap((base) => digits.map((digit) => base + digit));
  });
  return found.flatMap((number) => numbers.get(number) ?? []);
}
