let last = 0;

/** Counts drafts on over all windows of this browser and, as well as clocks agree, all of a person: later is more. */
export function nextSequence(now = Date.now()): number {
  last = Math.max(last + 1, now);
  return last;
}
