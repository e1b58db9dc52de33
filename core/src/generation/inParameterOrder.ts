import { liesIn } from '../conditions/index.ts';
import type { CoveringTask } from './coveringTask.ts';
import { TupleCounts } from './tupleCounts.ts';

/** A value not chosen yet. */
const OPEN = -1;

/**
 * Rows for a task, factor by factor (in-parameter-order: Lei and Tai): every row takes the value that shows most new
 * tuples, then rows are filled or added for what is left. Complete and valid, not small: a start for the search.
 */
export function rowsInParameterOrder(task: CoveringTask): Int32Array[] {
  const order = task.sizes.map((_, f) => f).toSorted((a, b) => (task.sizes[b] ?? 0) - (task.sizes[a] ?? 0) || a - b);
  const counts = new TupleCounts(task);
  const rows: Int32Array[] = [];
  for (const factor of order) {
    for (const row of rows) growAcross(task, counts, row, factor);
    growDown(task, counts, rows, order.slice(0, order.indexOf(factor) + 1));
  }
  for (const row of rows) close(task, counts, row);
  return rows;
}

function growAcross(task: CoveringTask, counts: TupleCounts, row: Int32Array, factor: number): void {
  if (row[factor] !== OPEN) return;
  const gains = Array.from({ length: task.sizes[factor] ?? 0 }, (_, value) => ({ value, gain: counts.change(row, factor, value) }));
  for (const { value, gain } of gains.toSorted((a, b) => b.gain - a.gain || a.value - b.value)) {
    if (gain === 0) return;
    if (!fits(task, row, [factor], [value])) continue;
    counts.set(row, factor, value);
    return;
  }
}

/** Places every wanted tuple of the factors so far: into open cells of a row, else into a new row. */
function growDown(task: CoveringTask, counts: TupleCounts, rows: Int32Array[], factors: readonly number[]): void {
  const known = new Set(factors);
  const left: number[] = [];
  for (let i = 0; i < counts.uncovered; i += 1) if (counts.tuple(counts.uncoveredAt(i)).factors.every((f) => known.has(f))) left.push(counts.uncoveredAt(i));
  for (const number of left.toSorted((a, b) => a - b)) {
    if (counts.counts[number] !== 0) continue;
    const tuple = counts.tuple(number);
    let row = rows.find((r) => tuple.factors.every((f, i) => r[f] === OPEN || r[f] === tuple.values[i]) && fits(task, r, tuple.factors, tuple.values));
    if (row === undefined) rows.push((row = new Int32Array(task.sizes.length).fill(OPEN)));
    for (const [i, f] of tuple.factors.entries()) counts.set(row, f, tuple.values[i] ?? 0);
  }
}

function fits({ feasibility, forbidden }: CoveringTask, row: Int32Array, factors: readonly number[], values: readonly number[]): boolean {
  if (feasibility === null) return true;
  const changed = Int32Array.from(row);
  factors.forEach((f, i) => (changed[f] = values[i] ?? OPEN));
  return !forbidden.some((box) => liesIn(box, changed)) && feasibility.complete(changed) !== null;
}

function close({ sizes, feasibility }: CoveringTask, counts: TupleCounts, row: Int32Array): void {
  const complete = feasibility === null ? null : feasibility.complete(row);
  for (let f = 0; f < sizes.length; f += 1) if (row[f] === OPEN) counts.set(row, f, complete?.[f] ?? 0);
}
