/**
 * Which of a row of moments is counted next, so that a coarse curve is there soon and becomes finer: the last, the
 * first, then the middle of the longest stretch of which nothing is known. Null: all are counted.
 * @returns the place of the moment in the row.
 */
export function nextToCount(counted: readonly boolean[]): number | null {
  const last = counted.length - 1;
  if (last < 0) return null;
  if (counted[last] !== true) return last;
  if (counted[0] !== true) return 0;
  let best: { readonly from: number; readonly length: number } | null = null;
  let from = 0;
  counted.forEach((isCounted, place) => {
    if (!isCounted) return;
    const length = place - from - 1;
    if (length > (best?.length ?? 0)) best = { from, length };
    from = place;
  });
  return best === null ? null : middle(best);
}

function middle({ from, length }: { readonly from: number; readonly length: number }): number {
  return from + Math.ceil(length / 2);
}
