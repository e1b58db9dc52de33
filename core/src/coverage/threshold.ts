import type { Ratio } from './standing.ts';

/** A share that is asked for, in hundredths of a percent: whole numbers, so that nothing is decided by rounding. */
export type Hundredths = number;

/** `80` or `79.5` as hundredths of a percent; null: it is no percentage from 0 to 100 with at most two digits behind the point. */
export function readPercent(text: string): Hundredths | null {
  const found = /^(\d{1,3})(?:\.(\d{1,2}))?\s*%?$/.exec(text.trim());
  if (found === null) return null;
  const hundredths = Number(found[1]) * 100 + Number((found[2] ?? '').padEnd(2, '0'));
  return hundredths <= 10_000 ? hundredths : null;
}

/** Whether so much is reached. Where there is nothing to show nothing is reached, not even 0 %: nobody looked yet. */
export function reaches({ part, of }: Ratio, asked: Hundredths): boolean {
  return of > 0 && part * 10_000 >= asked * of;
}
