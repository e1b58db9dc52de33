import { parseDate } from './calendar.ts';
import type { OrderedType } from './valueType.ts';

/** How somebody writes numbers and dates. */
export interface WritingHabits {
  /** What stands before the decimals; the other sign, or spaces, part the thousands. */
  readonly decimalSign: '.' | ',';
  readonly dates: 'dayFirst' | 'monthFirst' | 'yearFirst';
}

const WITH_COMMA = /^[+-]?(?:\d{1,3}(?:[. \u00a0\u202f]\d{3})+|\d+)(?:,\d+)?$/;
const WITH_POINT = /^[+-]?(?:\d{1,3}(?:[, \u00a0\u202f]\d{3})+|\d+)(?:\.\d+)?$/;
const PARTED_DATE = /^(\d{1,4})[./-](\d{1,2})[./-](\d{1,4})(?:[ T,]+(\d{1,2}:\d{2}(?::\d{2})?))?$/;

/** A number as programs write it: `1 234,50` is `1234.50` where a comma stands before the decimals. Null: it is none. */
export function pointNumber(text: string, decimalSign: WritingHabits['decimalSign']): string | null {
  const trimmed = text.trim();
  if (!(decimalSign === ',' ? WITH_COMMA : WITH_POINT).test(trimmed)) return null;
  return trimmed.replaceAll(decimalSign === ',' ? /[. \u00a0\u202f]/g : /[, \u00a0\u202f]/g, '').replace(',', '.');
}

/**
 * A date, or a date and time, in the order of ISO 8601: `4/3/2026` is `2026-03-04` where the day comes first. Null: it
 * is none, or there is no such day. A year of two digits is none: nobody could say of which century.
 */
export function isoMoment(text: string, order: WritingHabits['dates']): string | null {
  const parts = PARTED_DATE.exec(text.trim());
  if (parts === null) return null;
  const [, first = '', second = '', third = '', time] = parts;
  const isYearFirst = first.length === 4;
  const [year, month, day] = isYearFirst ? [first, second, third] : order === 'monthFirst' ? [third, first, second] : [third, second, first];
  if (year.length !== 4 || (!isYearFirst && order === 'yearFirst')) return null;
  const date = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  if (parseDate(date) === null) return null;
  return time === undefined ? date : `${date} ${paddedTime(time)}`;
}

/** `8:30` as `08:30`; anything else as it is. */
export function paddedTime(text: string): string {
  return /^\d:\d{2}/.test(text) ? `0${text}` : text;
}

/** What somebody means who writes a value of a type in their own way; the text itself where that is nothing else. */
export function meantValue(type: OrderedType, text: string, habits: WritingHabits): string {
  const trimmed = text.trim();
  switch (type.kind) {
    case 'whole':
    case 'textLength':
    case 'decimal':
      return pointNumber(trimmed, habits.decimalSign) ?? trimmed;
    case 'date':
      return isoMoment(trimmed, habits.dates) ?? trimmed;
    case 'dateTime':
      return isoMoment(trimmed, habits.dates) ?? trimmed;
    case 'time':
      return paddedTime(trimmed);
  }
}
