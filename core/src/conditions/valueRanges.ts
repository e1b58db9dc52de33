import { formatBound, isOrdered, readBound, type OrderedType, type ValueType } from '../values/index.ts';
import type { ClassKind } from './classKind.ts';

export type FieldId = string & { readonly __brand: 'FieldId' };

/** The one maker of field ids. */
export function fieldId(text: string): FieldId {
  return text as FieldId;
}

export const BOUNDARY_RULES = ['none', 'twoValue', 'threeValue'] as const;
export type BoundaryRule = (typeof BOUNDARY_RULES)[number];

/** Equivalence partitions and boundary values (ISO/IEC/IEEE 29119-4, 5.2.1 and 5.2.3) of one or more fields. */
export interface ValueRangesModel {
  readonly kind: 'valueRanges';
  readonly boundaries: BoundaryRule;
  /** Invalid values must stand alone in a row, as one may mask the other, unless this is set. */
  readonly allowInvalidTogether: boolean;
  readonly fields: readonly Field[];
}

export interface Field {
  readonly id: FieldId;
  readonly name: string;
  readonly type: ValueType;
  readonly unit: string;
  readonly required: boolean;
  /** For ordered types. */
  readonly intervals: readonly Interval[];
  /** For choice and yes/no. */
  readonly choices: readonly Choice[];
  /** For text by pattern. */
  readonly patterns: readonly PatternPart[];
  readonly classes: readonly OtherClass[];
}

/** Bounds are texts of the field's type, both belonging to the interval; empty: open to infinity. */
export interface Interval {
  readonly id: string;
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly valid: boolean;
  readonly outcome: string;
}

export interface Choice {
  readonly id: string;
  readonly value: string;
  /** Other spellings of the value in rows: `sí` is yes. */
  readonly aliases: readonly string[];
  readonly valid: boolean;
  readonly outcome: string;
}

/** The texts that a pattern describes as a whole; see `readPattern`. */
export interface PatternPart {
  readonly id: string;
  readonly name: string;
  readonly pattern: string;
  /** A text that matches, as written in a row. */
  readonly example: string;
  readonly valid: boolean;
  readonly outcome: string;
}

/** A kind of value that is no interval and no choice: missing, empty, letters… */
export interface OtherClass {
  readonly id: string;
  readonly kind: ClassKind;
  readonly name: string;
  /** A value of the class, as written in a row. */
  readonly example: string;
  /** For `tooLong`: most characters allowed. */
  readonly limit: number;
  readonly valid: boolean;
  readonly outcome: string;
}

/** An interval with its bounds read; null is infinity. */
export interface ReadInterval {
  readonly interval: Interval;
  readonly from: bigint | null;
  readonly to: bigint | null;
}

/** The intervals whose bounds can be read and are not crossed, from lowest to highest; the rest are {@link rangeProblems}. */
export function readIntervals(type: ValueType, intervals: readonly Interval[]): ReadInterval[] {
  if (!isOrdered(type)) return [];
  return intervals
    .flatMap((interval) => {
      const read = readInterval(type, interval);
      return read === null ? [] : [read];
    })
    .sort(byLowerBound);
}

/** Null when a bound cannot be read or the interval is empty. */
export function readInterval(type: OrderedType, interval: Interval): ReadInterval | null {
  const from = interval.from === '' ? null : readBound(type, interval.from);
  const to = interval.to === '' ? null : readBound(type, interval.to);
  const unreadable = (interval.from !== '' && from === null) || (interval.to !== '' && to === null);
  if (unreadable || (from !== null && to !== null && from > to)) return null;
  return { interval, from, to };
}

function byLowerBound(a: ReadInterval, b: ReadInterval): number {
  if (a.from === b.from) return 0;
  if (a.from === null) return -1;
  if (b.from === null) return 1;
  return a.from < b.from ? -1 : 1;
}

/**
 * Moves the boundary between two adjoining intervals by steps of the type: the lower one's end and the upper one's
 * beginning, as far as neither becomes empty and the type can write it. The same field when it cannot move.
 */
export function moveBoundary(field: Field, lower: string, upper: string, steps: bigint): Field {
  const { type } = field;
  if (!isOrdered(type)) return field;
  const read = readIntervals(type, field.intervals);
  const [below, above] = [read.find((r) => r.interval.id === lower), read.find((r) => r.interval.id === upper)];
  if (below?.to == null || above?.from == null) return field;
  const lowest = below.from ?? below.to + steps;
  const highest = (above.to ?? above.from + steps) - 1n;
  const wanted = below.to + steps;
  const end = wanted < lowest ? lowest : wanted > highest ? highest : wanted;
  const [to, from] = [formatBound(type, end), formatBound(type, end + 1n)];
  if (end === below.to || to === null || from === null) return field;
  const bounds = new Map([
    [lower, { to }],
    [upper, { from }],
  ]);
  return { ...field, intervals: field.intervals.map((i) => ({ ...i, ...bounds.get(i.id) })) };
}
