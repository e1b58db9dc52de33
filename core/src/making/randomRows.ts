import { newRow, rowId, type Parameter, type ParameterType, type Row } from '../cases/index.ts';
import { EMPTY_CELL } from '../data/index.ts';
import { seededRandom, type Random } from '../generation/index.ts';
import { formatBound, parseDecimal, readBound, type OrderedType } from '../values/index.ts';
import { withoutDoubles } from './doubles.ts';

/** A column and where its values are taken from: those listed, or any of its type between two bounds. Empty bounds are the usual ones. */
export interface RandomColumn {
  readonly parameter: Parameter;
  readonly values: readonly string[];
  readonly from: string;
  readonly to: string;
}

export type RandomRows =
  | { readonly kind: 'made'; readonly rows: readonly Row[] }
  /** A bound is no value of the type, or the first is above the second. */
  | { readonly kind: 'badBounds'; readonly column: string };

/** Bounds where none are given; for text: how many letters. */
const USUAL: Record<ParameterType, readonly [string, string]> = {
  text: ['1', '20'],
  whole: ['0', '1000'],
  decimal: ['0.00', '1000.00'],
  date: ['2026-01-01', '2026-12-31'],
  time: ['00:00', '23:59'],
  dateTime: ['2026-01-01 00:00', '2026-12-31 23:59'],
  yesNo: ['', ''],
};

const LETTERS = 'abcdefghijklmnopqrstuvwxyz';
const LONGEST_TEXT = 1_000n;

/**
 * Up to `count` rows of valid values by chance, no two alike and none like a row that is there; fewer where there are
 * not so many. Deterministic for a seed.
 */
export function randomRows(columns: readonly RandomColumn[], count: number, seed: number, rows: readonly Row[], newId: () => string): RandomRows {
  const random = seededRandom(seed);
  const makers = columns.map((column) => ({ column, make: makerOf(column, random) }));
  const bad = makers.find((m) => m.make === null);
  if (bad !== undefined) return { kind: 'badBounds', column: bad.column.parameter.name };
  const parameters = columns.map((c) => c.parameter);
  let made: Row[] = [];
  // Where few rows are possible, most tries are doubles: they end.
  for (let tries = 0; made.length < count && tries < 10; tries += 1) {
    const more = Array.from({ length: count - made.length }, () => newRow(rowId(newId()), '', Object.fromEntries(makers.map(({ column, make }) => [column.parameter.id, make?.() ?? '']))));
    made = withoutDoubles([...made, ...more], rows, parameters);
  }
  return { kind: 'made', rows: made.map((row, i) => ({ ...row, name: `by chance ${seed}.${i + 1}` })) };
}

/** Makes a value of the column each time; null when its bounds make no sense. */
function makerOf({ parameter, values, from, to }: RandomColumn, random: Random): (() => string) | null {
  const { type } = parameter;
  const listed = values.length > 0 ? values : type === 'yesNo' ? ['yes', 'no'] : [];
  if (listed.length > 0) return () => listed[random(listed.length)] ?? '';
  const [low, high] = [from.trim() || USUAL[type][0], to.trim() || USUAL[type][1]];
  const ordered = orderedType(type, low, high);
  const [first, last] = [readBound(ordered, low), readBound(ordered, high)];
  if (first === null || last === null || first > last || (type === 'text' && last > LONGEST_TEXT)) return null;
  const ordinal = (): bigint => first + randomBelow(last - first + 1n, random);
  if (type !== 'text') return () => formatBound(ordered, ordinal()) ?? '';
  return () => Array.from({ length: Number(ordinal()) }, () => LETTERS[random(LETTERS.length)] ?? '').join('') || EMPTY_CELL;
}

function orderedType(type: ParameterType, low: string, high: string): OrderedType {
  switch (type) {
    case 'whole':
    case 'date':
      return { kind: type };
    case 'time':
    case 'dateTime':
      return { kind: type, stepSeconds: 60 };
    case 'decimal': {
      const scale = Math.max(parseDecimal(low)?.scale ?? 0, parseDecimal(high)?.scale ?? 0);
      return { kind: 'decimal', step: scale === 0 ? '1' : `0.${'0'.repeat(scale - 1)}1` };
    }
    case 'text':
    case 'yesNo':
      return { kind: 'textLength' };
  }
}

const CHUNK = 2n ** 30n;

/** A whole number from 0 below a bound of any size; the unevenness of the remainder is far below one in 2^30. */
function randomBelow(bound: bigint, random: Random): bigint {
  let value = 0n;
  for (let size = 1n; size < bound * CHUNK; size *= CHUNK) value = value * CHUNK + BigInt(random(Number(CHUNK)));
  return value % bound;
}
