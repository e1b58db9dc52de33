import type { CaseContent } from '../cases/index.ts';
import { countExpanded, runsOf, type Library } from '../shared/index.ts';

/** What a case comes to when all it uses is opened; beyond the largest exact whole number, that one. */
export interface CaseCounts {
  readonly instances: number;
  readonly steps: number;
}

const NOTHING_USED: Library = { get: () => undefined };
const ofContents = new WeakMap<CaseContent, CaseCounts>();

/** The counts of a case that uses nothing: its content alone says them, and never changes. */
export function ownCounts(content: CaseContent): CaseCounts {
  const known = ofContents.get(content);
  if (known !== undefined) return known;
  const counts = { instances: runsOf(content, NOTHING_USED).length, steps: content.steps.length };
  ofContents.set(content, counts);
  return counts;
}

/** The counts of a case with all it uses opened: its rows times those that calls run, and the steps they lead through. */
export function openedCounts(content: CaseContent, library: Library): CaseCounts {
  const { instances, steps } = countExpanded(content, library);
  return { instances: safeNumber(instances), steps: safeNumber(steps) };
}

/** A product of calls may be larger than any number that is exact. */
function safeNumber(count: bigint): number {
  return count > BigInt(Number.MAX_SAFE_INTEGER) ? Number.MAX_SAFE_INTEGER : Number(count);
}
