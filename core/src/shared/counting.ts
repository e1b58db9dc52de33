import { isUse, type Step, type Use, type Written } from '../cases/index.ts';
import { DEEPEST, keyOfUse, stepsUsed, type Library } from './library.ts';
import { calledRuns, runsOf, type RowSource } from './rows.ts';

/** What a case comes to when all it uses is opened. Counted, not made. */
export interface ExpandedCount {
  /** How often it is executed: its rows, times the rows of every call that runs each of them. */
  readonly instances: bigint;
  /** Steps of one instance. */
  readonly steps: bigint;
  /** How deep uses are nested below it; more than {@link DEEPEST} is not opened. */
  readonly depth: number;
}

interface Count {
  readonly times: bigint;
  readonly steps: bigint;
  readonly depth: number;
}

const NONE: Count = { times: 1n, steps: 0n, depth: 0 };

/** Counts the instances of a case and their steps. A use of what is not in the library counts as one step. */
export function countExpanded(content: Pick<Written, 'steps'> & RowSource, library: Library): ExpandedCount {
  const { times, steps, depth } = countSteps(content.steps, library, new Map());
  return { instances: times * BigInt(runsOf(content, library).length), steps, depth };
}

function countSteps(steps: readonly Step[], library: Library, known: Map<string, Count>): Count {
  let total = NONE;
  for (const step of steps) {
    const count = isUse(step) ? countUse(step, library, known) : null;
    const every = isUse(step) ? timesCalled(step, library) : 1n;
    total = count === null ? { ...total, steps: total.steps + 1n } : { times: total.times * count.times * every, steps: total.steps + count.steps, depth: Math.max(total.depth, count.depth + 1) };
  }
  return total;
}

function countUse(use: Use, library: Library, known: Map<string, Count>): Count | null {
  const key = keyOfUse(use);
  const before = known.get(key);
  if (before !== undefined) return before;
  const used = stepsUsed(library, use);
  if (used === undefined) return null;
  // A circle, which no save lets in, counts as too deep instead of never ending.
  known.set(key, { ...NONE, depth: DEEPEST + 1 });
  const count = countSteps(used.content.steps, library, known);
  known.set(key, count);
  return count;
}

/** How often a call multiplies: a single row, there or gone, does not. */
function timesCalled(use: Use, library: Library): bigint {
  if (use.kind === 'shared' || use.rows.kind === 'own') return 1n;
  const used = stepsUsed(library, use);
  return used?.kind === 'case' ? BigInt(calledRuns(used.content, use.rows, library)?.length ?? 1) : 1n;
}
