import { formatDate, formatMultiple, parseDate, parseDecimal } from '../values/index.ts';
import { isPlainCell, type CellText } from './cell.ts';

/**
 * Cells that go on from some that are given, as one would go on by hand: numbers and dates by the same step, names that
 * end in a number by that number; otherwise the given cells over and over. One number, date or name alone goes up by
 * one. Exact; zeros in front and decimals stay as they are written.
 */
export function continueSeries(given: readonly CellText[], count: number): CellText[] {
  const next = given.every(isPlainCell) ? (dates(given) ?? numbers(given) ?? namesWithNumbers(given)) : null;
  return Array.from({ length: count }, (_, i) => next?.(i + 1) ?? given[i % Math.max(1, given.length)] ?? '');
}

/** The cell so many places after the last; null where there is none. */
type Next = (place: number) => CellText | null;

function dates(given: readonly CellText[]): Next | null {
  const days = allOf(given.map(parseDate));
  const step = days === null ? null : stepOf(days);
  const last = days?.at(-1);
  return step === null || last === undefined ? null : (place) => formatDate(last + step * BigInt(place));
}

function numbers(given: readonly CellText[]): Next | null {
  const read = allOf(given.map(parseDecimal));
  if (read === null) return null;
  const scale = Math.max(...read.map((d) => d.scale));
  const units = read.map((d) => d.units * 10n ** BigInt(scale - d.scale));
  const step = units.length === 1 ? 10n ** BigInt(scale) : stepOf(units);
  const last = units.at(-1);
  if (step === null || last === undefined) return null;
  const width = Math.max(0, ...given.map(widthOfPadded));
  return (place) => padded(formatMultiple(last + step * BigInt(place), { units: 1n, scale }), width);
}

const ENDS_IN_NUMBER = /^(.*?\D)(\d{1,18})$/su;

function namesWithNumbers(given: readonly CellText[]): Next | null {
  const parts = allOf(given.map((text) => ENDS_IN_NUMBER.exec(text)));
  const prefix = parts?.[0]?.[1];
  if (parts === null || prefix === undefined || !parts.every((p) => p[1] === prefix)) return null;
  const ends = parts.map((p) => p[2] ?? '');
  const next = numbers(ends);
  return next === null ? null : (place) => {
    const end = next(place);
    return end === null || end.startsWith('-') ? null : prefix + end;
  };
}

function allOf<T>(list: readonly (T | null)[]): T[] | null {
  const known = list.filter((x) => x !== null);
  return known.length === list.length && list.length > 0 ? known : null;
}

/** The step between all of them, if it is the same; of one alone, one. */
function stepOf(values: readonly bigint[]): bigint | null {
  const steps = values.slice(1).map((v, i) => v - (values[i] ?? 0n));
  const [first = 1n] = steps;
  return steps.every((s) => s === first) ? first : null;
}

/** How many digits a number is written with whose first is a zero that says nothing; 0 for others. */
function widthOfPadded(text: string): number {
  const whole = /^[+-]?(\d+)/.exec(text)?.[1] ?? '';
  return whole.length > 1 && whole.startsWith('0') ? whole.length : 0;
}

function padded(text: string, width: number): string {
  const [sign, digits] = text.startsWith('-') ? ['-', text.slice(1)] : ['', text];
  const [whole = '', ...rest] = digits.split('.');
  return [sign + whole.padStart(width, '0'), ...rest].join('.');
}
