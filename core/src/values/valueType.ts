import { formatDate, formatDateTime, formatTime, looksLikeDate, parseDate, parseDateTime, parseTime } from './calendar.ts';
import { LONGEST_NUMBER, exactQuotient, formatMultiple, parseDecimal, type Decimal } from './decimal.ts';

export const ORDERED_KINDS = ['whole', 'decimal', 'date', 'time', 'dateTime', 'textLength'] as const;
export type OrderedKind = (typeof ORDERED_KINDS)[number];

/** A type whose values can be counted in steps, so that every value has a next and a previous one. */
export type OrderedType =
  | { readonly kind: 'whole' }
  | { readonly kind: 'decimal'; readonly step: string }
  | { readonly kind: 'date' }
  | { readonly kind: 'time'; readonly stepSeconds: number }
  | { readonly kind: 'dateTime'; readonly stepSeconds: number }
  | { readonly kind: 'textLength' };

export type ValueType = OrderedType | { readonly kind: 'textPattern' } | { readonly kind: 'choice' } | { readonly kind: 'yesNo' };
export type ValueKind = ValueType['kind'];

/** What a text is when read as a value of a type. Ordinals count steps from the type's zero. */
export type Reading =
  | { readonly kind: 'ordinal'; readonly ordinal: bigint }
  /** Right kind of value, but between two steps: 12.5 for a whole number. */
  | { readonly kind: 'offStep' }
  /** Looks like a date, and the calendar has no such day. */
  | { readonly kind: 'impossibleDate' }
  | { readonly kind: 'wrongKind' };

/** Longest text made up as an example of a text length. */
export const LONGEST_SAMPLE_TEXT = 10_000;

/** Below everything that can be read: no number is longer than {@link LONGEST_NUMBER} digits. */
const NO_FLOOR = -(10n ** BigInt(LONGEST_NUMBER + 100));

const HUNDREDTH: Decimal = { units: 1n, scale: 2 };

export function isOrdered(type: ValueType): type is OrderedType {
  return type.kind !== 'textPattern' && type.kind !== 'choice' && type.kind !== 'yesNo';
}

/** Length in Unicode code points, neither UTF-16 units nor bytes. Gotcha: a letter with a combining accent counts two. */
export function lengthInCharacters(text: string): number {
  let count = 0;
  for (const _ of text) count += 1;
  return count;
}

/** Reads a value as the system under test would be given it. */
export function readValue(type: OrderedType, text: string): Reading {
  switch (type.kind) {
    case 'whole':
      return readWhole(text);
    case 'decimal':
      return readNumber(text, stepOf(type));
    case 'date':
      return readMoment(text, parseDate(text), 1n);
    case 'time':
      return readMoment(text, parseTime(text), BigInt(type.stepSeconds));
    case 'dateTime':
      return readMoment(text, parseDateTime(text), BigInt(type.stepSeconds));
    case 'textLength':
      return { kind: 'ordinal', ordinal: BigInt(lengthInCharacters(text)) };
  }
}

/** Reads the bound of an interval: as a value, but for text lengths the length itself. Null when it cannot be one. */
export function readBound(type: OrderedType, text: string): bigint | null {
  const reading = type.kind === 'textLength' ? readWhole(text) : readValue(type, text);
  if (reading.kind !== 'ordinal') return null;
  return reading.ordinal < lowestOrdinal(type) ? null : reading.ordinal;
}

/** The bound as text; null when the type cannot express it (a length below zero, a time before midnight). */
export function formatBound(type: OrderedType, ordinal: bigint): string | null {
  switch (type.kind) {
    case 'whole':
      return ordinal.toString();
    case 'decimal':
      return formatMultiple(ordinal, stepOf(type));
    case 'date':
      return formatDate(ordinal);
    case 'time':
      return formatTime(ordinal * BigInt(type.stepSeconds), type.stepSeconds);
    case 'dateTime':
      return formatDateTime(ordinal * BigInt(type.stepSeconds), type.stepSeconds);
    case 'textLength':
      return ordinal < 0n ? null : ordinal.toString();
  }
}

/** A value that reads as the ordinal; null when there is none, or it would be an unreasonably long text. */
export function sampleValue(type: OrderedType, ordinal: bigint): string | null {
  if (type.kind !== 'textLength') return formatBound(type, ordinal);
  if (ordinal < 0n || ordinal > BigInt(LONGEST_SAMPLE_TEXT)) return null;
  return 'abcdefghij'.repeat(Number(ordinal) / 10 + 1).slice(0, Number(ordinal));
}

/** Some types have a floor below which no value can even be written. */
function lowestOrdinal(type: OrderedType): bigint {
  return type.kind === 'textLength' || type.kind === 'time' ? 0n : NO_FLOOR;
}

/** An unreadable step falls back to 0.01; the model's check reports it. */
function stepOf(type: { readonly step: string }): Decimal {
  const step = parseDecimal(type.step);
  return step === null || step.units <= 0n ? HUNDREDTH : step;
}

const WHOLE = /^[+-]?\d+$/;

function readWhole(text: string): Reading {
  if (text.length <= LONGEST_NUMBER && WHOLE.test(text)) return { kind: 'ordinal', ordinal: BigInt(text.startsWith('+') ? text.slice(1) : text) };
  return { kind: parseDecimal(text) === null ? 'wrongKind' : 'offStep' };
}

function readNumber(text: string, step: Decimal): Reading {
  const value = parseDecimal(text);
  if (value === null) return { kind: 'wrongKind' };
  const ordinal = exactQuotient(value, step);
  return ordinal === null ? { kind: 'offStep' } : { kind: 'ordinal', ordinal };
}

function readMoment(text: string, count: bigint | null, step: bigint): Reading {
  if (count === null) return { kind: looksLikeDate(text) ? 'impossibleDate' : 'wrongKind' };
  return count % step === 0n ? { kind: 'ordinal', ordinal: count / step } : { kind: 'offStep' };
}
