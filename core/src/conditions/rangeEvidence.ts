import { formatBound, isOrdered, readValue, type OrderedType } from '../values/index.ts';
import type { ItemKey } from './item.ts';
import { inClass, isChoice, type FieldValue } from './otherClass.ts';
import { boundaryKey, boundaryValues, classKey, partitionKey } from './rangeItems.ts';
import { readIntervals, type Field, type FieldId, type ReadInterval, type ValueRangesModel } from './valueRanges.ts';

/** A model made ready to judge many rows. */
export interface RangeJudge {
  readonly model: ValueRangesModel;
  readonly fields: readonly FieldJudge[];
}

interface FieldJudge {
  readonly field: Field;
  readonly intervals: readonly ReadInterval[];
  /** Item key by ordinal; empty for choices. */
  readonly boundaries: ReadonlyMap<bigint, ItemKey>;
}

interface FieldShown {
  readonly valid: readonly ItemKey[];
  readonly invalid: readonly ItemKey[];
  readonly isInvalid: boolean;
}

export function rangeJudge(model: ValueRangesModel): RangeJudge {
  return { model, fields: model.fields.map((field) => fieldJudge(model, field)) };
}

/**
 * The items a row shows by the values it gives to the fields. A value shows every partition and class it lies in and
 * the boundary item it equals. Invalid values must be alone: with invalid values in two fields neither invalid
 * item is shown, unless the model allows it. Fields without a value in `values` show nothing.
 */
export function itemsShownByRow(judge: RangeJudge, values: ReadonlyMap<FieldId, FieldValue>): ItemKey[] {
  const shown = judge.fields.flatMap((f) => {
    const value = values.get(f.field.id);
    return value === undefined ? [] : [fieldShown(f, value)];
  });
  const masked = !judge.model.allowInvalidTogether && shown.filter((s) => s.isInvalid).length > 1;
  return shown.flatMap((s) => (masked ? s.valid : [...s.valid, ...s.invalid]));
}

function fieldJudge(model: ValueRangesModel, field: Field): FieldJudge {
  const { type } = field;
  if (!isOrdered(type)) return { field, intervals: [], boundaries: new Map() };
  const intervals = readIntervals(type, field.intervals);
  const boundaries = new Map<bigint, ItemKey>();
  for (const value of boundaryValues(intervals, model.boundaries)) {
    const text = formatBound(type, value);
    if (text !== null) boundaries.set(value, boundaryKey(field, text));
  }
  return { field, intervals, boundaries };
}

function fieldShown(judge: FieldJudge, value: FieldValue): FieldShown {
  const { field } = judge;
  const classes = field.classes.filter((c) => inClass(field, c, value)).map((c) => ({ key: classKey(field, c), valid: c.valid }));
  const parts = [...classes, ...(value.kind === 'text' ? partitionsOf(judge, value.text) : [])];
  const boundary = value.kind === 'text' && isOrdered(field.type) ? boundaryOf(judge, field.type, value.text) : null;
  const valid = parts.filter((p) => p.valid).map((p) => p.key);
  const invalid = parts.filter((p) => !p.valid).map((p) => p.key);
  const isInvalid = invalid.length > 0 || parts.length === 0;
  if (boundary !== null) (isInvalid ? invalid : valid).push(boundary);
  return { valid, invalid, isInvalid };
}

function partitionsOf({ field, intervals }: FieldJudge, text: string): { key: ItemKey; valid: boolean }[] {
  if (!isOrdered(field.type)) {
    return field.choices.filter((c) => isChoice(c, text)).map((c) => ({ key: partitionKey(field, c), valid: c.valid }));
  }
  const reading = readValue(field.type, text);
  if (reading.kind !== 'ordinal') return [];
  const { ordinal } = reading;
  return intervals
    .filter(({ from, to }) => (from === null || from <= ordinal) && (to === null || ordinal <= to))
    .map(({ interval }) => ({ key: partitionKey(field, interval), valid: interval.valid }));
}

function boundaryOf({ boundaries }: FieldJudge, type: OrderedType, text: string): ItemKey | null {
  const reading = readValue(type, text);
  return reading.kind === 'ordinal' ? (boundaries.get(reading.ordinal) ?? null) : null;
}
