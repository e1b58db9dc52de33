import { formatBound, isOrdered, sampleValue, type OrderedType } from '../values/index.ts';
import { EMPTY_CELL, MISSING_CELL } from '../data/index.ts';
import { itemKey, type CoverageItem, type ItemKey } from './item.ts';
import { readPattern, type PatternTest } from './pattern.ts';
import { readIntervals, type BoundaryRule, type Choice, type Field, type OtherClass, type PatternPart, type ReadInterval, type ValueRangesModel } from './valueRanges.ts';

type NewItem = Omit<CoverageItem, 'number' | 'field'>;

/** How far from an infinite side's finite bound a typical value is taken. */
const INTO_OPEN_INTERVAL = 10n;

/**
 * The coverage items of a value ranges model: for each field its partitions, then its boundary values, then its
 * other classes. Fields in their order, intervals and boundary values from low to high.
 */
export function rangeItems(model: ValueRangesModel): CoverageItem[] {
  return model.fields.flatMap((field) => fieldItems(field, model.boundaries)).map((item, i) => ({ ...item, number: i + 1 }));
}

function fieldItems(field: Field, rule: BoundaryRule): Omit<CoverageItem, 'number'>[] {
  const items = isOrdered(field.type) ? orderedItems(field, field.type, rule) : [...field.choices.map((c) => choiceItem(field, c)), ...readPatterns(field).map((p) => patternItem(field, p))];
  return [...items, ...field.classes.map((c) => classItem(field, c))].map((item) => ({ ...item, field: field.id }));
}

function orderedItems(field: Field, type: OrderedType, rule: BoundaryRule): NewItem[] {
  const intervals = readIntervals(type, field.intervals);
  const boundaries = writableBoundaries(type, intervals, rule).map((value) => boundaryItem(field, type, intervals, value));
  return [...intervals.map((i) => intervalItem(field, type, i)), ...boundaries];
}

/** The boundary values that the type can write: no length is below zero, no time before midnight. */
export function writableBoundaries(type: OrderedType, intervals: readonly ReadInterval[], rule: BoundaryRule): bigint[] {
  const floored = type.kind !== 'whole' && type.kind !== 'decimal';
  return boundaryValues(intervals, rule).filter((value) => !floored || formatBound(type, value) !== null);
}

/**
 * The boundary values of adjoining intervals, from low to high, each once. Two-value: both sides of every finite
 * boundary. Three-value: every edge value and its neighbours. An edge with no interval beyond it still has its
 * outside value. Values are ordinals: the caller leaves out those its type cannot write.
 */
export function boundaryValues(intervals: readonly ReadInterval[], rule: BoundaryRule): bigint[] {
  if (rule === 'none') return [];
  const values = new Set<bigint>();
  const inside = rule === 'threeValue';
  for (const { from, to } of intervals) {
    if (from !== null) for (const v of inside ? [from - 1n, from, from + 1n] : [from - 1n, from]) values.add(v);
    if (to !== null) for (const v of inside ? [to - 1n, to, to + 1n] : [to, to + 1n]) values.add(v);
  }
  return [...values].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
}

function partitionKey(field: Field, part: { readonly id: string }): ItemKey {
  return itemKey(`${field.id}:part:${part.id}`);
}

function boundaryKey(field: Field, value: string): ItemKey {
  return itemKey(`${field.id}:edge:${value}`);
}

function classKey(field: Field, otherClass: OtherClass): ItemKey {
  return itemKey(`${field.id}:class:${otherClass.id}`);
}

/** The interval that holds an ordinal; the lowest where they overlap, undefined in a hole. */
function intervalAt(intervals: readonly ReadInterval[], value: bigint): ReadInterval | undefined {
  return intervals.find(({ from, to }) => (from === null || from <= value) && (to === null || value <= to));
}

function intervalItem(field: Field, type: OrderedType, { interval, from, to }: ReadInterval): NewItem {
  return {
    key: partitionKey(field, interval),
    kind: 'partition',
    name: interval.name,
    extent: from === null && to === null ? 'any value' : `${interval.from} … ${interval.to}`.trim(),
    sample: sampleValue(type, typicalOrdinal(from, to)),
    valid: interval.valid,
    outcome: interval.outcome,
  };
}

/** The middle of an interval; a little inside where one side is open. */
function typicalOrdinal(from: bigint | null, to: bigint | null): bigint {
  if (from !== null && to !== null) return (from + to) / 2n;
  if (from !== null) return from + INTO_OPEN_INTERVAL;
  return to === null ? 1n : to - INTO_OPEN_INTERVAL;
}

function boundaryItem(field: Field, type: OrderedType, intervals: readonly ReadInterval[], value: bigint): NewItem {
  const extent = formatBound(type, value) ?? '';
  const home = intervalAt(intervals, value);
  return {
    key: boundaryKey(field, extent),
    kind: 'boundary',
    name: boundaryName(intervals, home, value),
    extent: type.kind === 'textLength' ? `${extent} characters` : extent,
    sample: sampleValue(type, value),
    valid: home?.interval.valid ?? false,
    outcome: home?.interval.outcome ?? '',
  };
}

function boundaryName(intervals: readonly ReadInterval[], home: ReadInterval | undefined, value: bigint): string {
  if (home === undefined) {
    const beside = intervals.find(({ from, to }) => from === value + 1n || to === value - 1n);
    return beside?.from === value + 1n ? `just below ${beside.interval.name}` : `just above ${beside?.interval.name ?? ''}`;
  }
  const { name } = home.interval;
  if (home.from === value && home.to === value) return `only value of ${name}`;
  if (home.from === value) return `first of ${name}`;
  if (home.to === value) return `last of ${name}`;
  return home.from !== null && value === home.from + 1n ? `second of ${name}` : `last but one of ${name}`;
}

function choiceItem(field: Field, choice: Choice): NewItem {
  return {
    key: partitionKey(field, choice),
    kind: 'partition',
    name: choice.value,
    extent: choice.aliases.length > 0 ? `also ${choice.aliases.join(', ')}` : '',
    sample: choice.value,
    valid: choice.valid,
    outcome: choice.outcome,
  };
}

/** A pattern part with its test; those that cannot be read are left to {@link rangeProblems}. */
export interface ReadPattern {
  readonly part: PatternPart;
  readonly test: PatternTest;
}

export function readPatterns(field: Field): ReadPattern[] {
  if (field.type.kind !== 'textPattern') return [];
  return field.patterns.flatMap((part) => {
    const test = readPattern(part.pattern);
    return test === null ? [] : [{ part, test }];
  });
}

/** Its example is the sample as far as it matches. */
function patternItem(field: Field, { part, test }: ReadPattern): NewItem {
  return {
    key: partitionKey(field, part),
    kind: 'partition',
    name: part.name,
    extent: part.pattern,
    sample: test(part.example) ? (part.example === '' ? EMPTY_CELL : part.example) : null,
    valid: part.valid,
    outcome: part.outcome,
  };
}

function classItem(field: Field, otherClass: OtherClass): NewItem {
  const sample = classSample(otherClass);
  return {
    key: classKey(field, otherClass),
    kind: 'class',
    name: otherClass.name,
    extent: classExtent(otherClass),
    sample,
    valid: otherClass.valid,
    outcome: otherClass.outcome,
  };
}

function classExtent(otherClass: OtherClass): string {
  switch (otherClass.kind) {
    case 'missing':
      return 'no value at all';
    case 'empty':
      return '“”';
    case 'tooLong':
      return `over ${otherClass.limit} characters`;
    default:
      return `“${otherClass.example}”`;
  }
}

function classSample(otherClass: OtherClass): string | null {
  switch (otherClass.kind) {
    case 'missing':
      return MISSING_CELL;
    case 'empty':
      return EMPTY_CELL;
    case 'tooLong':
      return sampleValue({ kind: 'textLength' }, BigInt(otherClass.limit) + 1n);
    default:
      return otherClass.example === '' ? null : otherClass.example;
  }
}
