const SECONDS_A_DAY = 86_400n;
const MS_A_DAY = 86_400_000;

const DATE = /^(\d{4,5})-(\d{2})-(\d{2})$/;
const TIME = /^(\d{2}):(\d{2})(?::(\d{2}))?$/;

/** Has the look of a date, whether or not the calendar has such a day (2026-02-30). */
export function looksLikeDate(text: string): boolean {
  return DATE.test(text.slice(0, 10)) && (text.length === 10 || /^[T ]/.test(text.slice(10)));
}

/** Days since 1970-01-01 of an ISO date in the proleptic Gregorian calendar; null when there is no such day. */
export function parseDate(text: string): bigint | null {
  const parts = DATE.exec(text);
  if (!parts) return null;
  const [year, month, day] = [Number(parts[1]), Number(parts[2]), Number(parts[3])];
  // Date.UTC maps the years 0 to 99 to 1900 and after; setUTCFullYear does not.
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  const exists = date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
  return exists ? BigInt(Math.round(date.getTime() / MS_A_DAY)) : null;
}

/** The ISO date of a day count; a day outside the years 0000 to 99999 has no text. */
export function formatDate(days: bigint): string | null {
  const date = new Date(Number(days) * MS_A_DAY);
  const year = date.getUTCFullYear();
  if (Number.isNaN(year) || year < 0 || year > 99_999) return null;
  return `${String(year).padStart(4, '0')}-${two(date.getUTCMonth() + 1)}-${two(date.getUTCDate())}`;
}

/** Seconds since midnight of `HH:MM` or `HH:MM:SS`. Hour 24 is read, so that the value just outside a day can be written. */
export function parseTime(text: string): bigint | null {
  const parts = TIME.exec(text);
  if (!parts) return null;
  const [hours, minutes, seconds] = [Number(parts[1]), Number(parts[2]), Number(parts[3] ?? '0')];
  if (hours > 24 || minutes > 59 || seconds > 59) return null;
  return BigInt(hours * 3600 + minutes * 60 + seconds);
}

/** The time of a count of seconds, without seconds where `step` is whole minutes; null before midnight. */
export function formatTime(seconds: bigint, step: number): string | null {
  if (seconds < 0n) return null;
  const total = Number(seconds);
  const clock = `${two(Math.floor(total / 3600))}:${two(Math.floor(total / 60) % 60)}`;
  return step % 60 === 0 ? clock : `${clock}:${two(total % 60)}`;
}

/** Seconds since 1970-01-01 00:00 of `YYYY-MM-DD HH:MM[:SS]`, or with a T between, without a time zone. */
export function parseDateTime(text: string): bigint | null {
  const [day, time, more] = text.split(/[T ]/);
  if (day === undefined || time === undefined || more !== undefined) return null;
  const days = parseDate(day);
  const seconds = parseTime(time);
  if (days === null || seconds === null || seconds >= SECONDS_A_DAY) return null;
  return days * SECONDS_A_DAY + seconds;
}

/** The reverse of {@link parseDateTime}. */
export function formatDateTime(seconds: bigint, step: number): string | null {
  const inDay = ((seconds % SECONDS_A_DAY) + SECONDS_A_DAY) % SECONDS_A_DAY;
  const day = formatDate((seconds - inDay) / SECONDS_A_DAY);
  const time = formatTime(inDay, step);
  return day === null || time === null ? null : `${day} ${time}`;
}

function two(n: number): string {
  return String(n).padStart(2, '0');
}
