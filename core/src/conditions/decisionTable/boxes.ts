import type { DecisionTableModel, Rule } from './decisionTable.ts';

/**
 * A set of combinations that is a product of values: by condition, in the order of the table, the values allowed as
 * bits. All judgements on tables are made on boxes; combinations are never listed one by one.
 */
export type Box = readonly number[];

/** The box of all combinations. */
export function wholeBox(model: DecisionTableModel): Box {
  return model.conditions.map((c) => 2 ** c.values.length - 1);
}

export function boxOf(model: DecisionTableModel, rule: Pick<Rule, 'entries'>): Box {
  return model.conditions.map((condition) => {
    const entry = rule.entries[condition.id] ?? [];
    const bits = condition.values.reduce((sum, value, i) => (entry.includes(value.id) ? sum | (1 << i) : sum), 0);
    return bits === 0 ? 2 ** condition.values.length - 1 : bits;
  });
}

/** The entries of a box: conditions it leaves open are absent. */
export function entriesOfBox(model: DecisionTableModel, box: Box): Record<string, string[]> {
  const entries: Record<string, string[]> = {};
  model.conditions.forEach((condition, c) => {
    const values = condition.values.filter((_, i) => ((box[c] ?? 0) >> i) & 1);
    if (values.length < condition.values.length) entries[condition.id] = values.map((v) => v.id);
  });
  return entries;
}

/** What two boxes have in common; null: nothing. */
export function meet(a: Box, b: Box): Box | null {
  const both = a.map((bits, c) => bits & (b[c] ?? 0));
  return both.includes(0) ? null : both;
}

export function contains(outer: Box, inner: Box): boolean {
  return outer.every((bits, c) => (bits & (inner[c] ?? 0)) === inner[c]);
}

/** How many combinations a box holds. */
export function sizeOfBox(box: Box): bigint {
  return box.reduce((product, bits) => product * BigInt(bitsIn(bits)), 1n);
}

function bitsIn(bits: number): number {
  let count = 0;
  for (let left = bits; left !== 0; left &= left - 1) count += 1;
  return count;
}

/** What is left of a box when others are taken away, as boxes without overlap. */
export interface Remainder {
  /** The first ones, at most as many as were asked for. */
  readonly boxes: readonly Box[];
  /** How many combinations are left in all. */
  readonly combinations: bigint;
}

/** How much work may still be done; shared by calls that belong together, and used up by them. */
export interface Effort {
  left: number;
}

/** Enough for any table people write; beyond, a table is too tangled to be judged as one types. */
export function fullEffort(): Effort {
  return { left: 12_000_000 };
}

/**
 * A box without others: condition by condition, values that the same others hold are followed together. Null when the
 * effort does not suffice. Boxes come in the order of the values; with `most` 1 it stops at the first.
 */
export function subtract(from: Box, others: readonly Box[], most: number, effort: Effort = fullEffort()): Remainder | null {
  const found: Box[] = [];
  const search = { combinations: 0n, stop: false };
  const openFrom = others.map((box) => firstOpen(box, from));
  const path: number[] = [];
  const emit = (c: number): void => {
    const box = [...path.slice(0, c), ...from.slice(c)];
    search.combinations += sizeOfBox(box);
    if (found.length < most) found.push(box);
    search.stop = most === 1;
  };
  const walk = (c: number, active: readonly number[]): void => {
    effort.left -= active.length + 1;
    if (effort.left < 0 || search.stop) return;
    for (const r of active) if ((openFrom[r] ?? 0) <= c) return;
    if (active.length === 0) {
      emit(c);
      return;
    }
    for (const { bits, held } of valuesHeldAlike(from[c] ?? 0, c, others, active)) {
      path[c] = bits;
      walk(c + 1, held);
    }
  };
  effort.left -= others.length;
  if (!from.includes(0)) walk(0, others.flatMap((box, r) => (meets(from, box) ? [r] : [])));
  return effort.left < 0 ? null : { boxes: found, combinations: search.combinations };
}

/** Whether two boxes have anything in common. */
function meets(a: Box, b: Box): boolean {
  for (let c = 0; c < a.length; c += 1) if (((a[c] ?? 0) & (b[c] ?? 0)) === 0) return false;
  return true;
}

/** The first condition from which on a box holds everything that is asked about. */
function firstOpen(box: Box, from: Box): number {
  let c = from.length;
  while (c > 0 && ((box[c - 1] ?? 0) & (from[c - 1] ?? 0)) === from[c - 1]) c -= 1;
  return c;
}

function valuesHeldAlike(bits: number, c: number, others: readonly Box[], active: readonly number[]): { bits: number; held: readonly number[] }[] {
  const groups: { bits: number; held: number[] }[] = [];
  for (let left = bits; left !== 0; left &= left - 1) {
    const value = left & -left;
    const held: number[] = [];
    for (const r of active) if (((others[r]?.[c] ?? 0) & value) !== 0) held.push(r);
    const group = groups.find((g) => sameNumbers(g.held, held));
    if (group === undefined) groups.push({ bits: value, held });
    else group.bits |= value;
  }
  return groups;
}

function sameNumbers(a: readonly number[], b: readonly number[]): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i += 1) if (a[i] !== b[i]) return false;
  return true;
}
