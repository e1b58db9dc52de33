import type { Comparison } from './tokens.ts';

/** A moment that something is compared to: a day of the calendar (UTC), or so long ago. */
export type Moment = { readonly kind: 'day'; readonly from: number; readonly to: number } | { readonly kind: 'today' } | { readonly kind: 'ago'; readonly ms: number };

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** A month is 30 days and a year 365: an age is not a matter of the calendar. */
const UNIT: Readonly<Record<string, number>> = { h: HOUR, d: DAY, w: 7 * DAY, m: 30 * DAY, y: 365 * DAY };

/** Reads `7d` (h, d, w, m, y), `today` or `2026-11-02`; null when it is none of these. */
export function parseMoment(text: string): Moment | null {
  if (text.toLowerCase() === 'today') return { kind: 'today' };
  const age = /^(\d{1,4})([hdwmy])$/.exec(text.toLowerCase());
  const unit = UNIT[age?.[2] ?? ''];
  if (age !== null && unit !== undefined) return { kind: 'ago', ms: Number(age[1]) * unit };
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return null;
  const from = Date.parse(`${text}T00:00:00Z`);
  // The 31st of a short month is a day for nobody.
  return Number.isNaN(from) || new Date(from).toISOString().slice(0, 10) !== text ? null : { kind: 'day', from, to: from + DAY };
}

/** A span of time from `from` until before `to`, in milliseconds since 1970; null: without a bound. */
export interface Span {
  readonly from: number | null;
  readonly to: number | null;
}

/**
 * When something must have been updated for `updated<7d` (less than seven days ago), `updated>2026-11-02` (after that
 * day) or `updated:today` to hold. `updated:7d` means within the last seven days.
 */
export function spanOf(is: Comparison, than: Moment, now: number): Span {
  if (than.kind === 'ago') {
    const since = now - than.ms;
    return is === '>' || is === '>=' ? { from: null, to: since } : { from: since, to: null };
  }
  const from = than.kind === 'day' ? than.from : now - (now % DAY);
  const to = from + DAY;
  switch (is) {
    case '<':
      return { from: null, to: from };
    case '<=':
      return { from: null, to };
    case '=':
      return { from, to };
    case '>=':
      return { from, to: null };
    case '>':
      return { from: to, to: null };
  }
}

/** The days of the calendar (UTC) that begin within a span: from `from` until the one before `before`. */
export function daysOf({ from, to }: Span): { readonly from: string | null; readonly before: string | null } {
  const day = (at: number | null): string | null => (at === null ? null : new Date(Math.ceil(at / DAY) * DAY).toISOString().slice(0, 10));
  return { from: day(from), before: day(to) };
}
