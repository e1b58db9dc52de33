import { isOrdered } from '../values/index.ts';
import type { ItemKey, ItemKind } from './item.ts';
import { inClass, isChoice, readFieldValue, type FieldValue, type ReadFieldValue } from './otherClass.ts';
import type { PatternTest } from './pattern.ts';
import { rangeItems, readPatterns, writableBoundaries } from './rangeItems.ts';
import { readIntervals, type Choice, type Field, type FieldId, type OtherClass, type ValueRangesModel } from './valueRanges.ts';

/**
 * A model made ready to judge many rows. Items are named by their place among {@link rangeItems}, which are not made
 * here: in a large project only few of them are ever looked at.
 */
export interface RangeJudge {
  readonly model: ValueRangesModel;
  readonly fields: readonly FieldJudge[];
  /** The kind of every item, by place. */
  readonly kinds: readonly ItemKind[];
}

interface FieldJudge {
  readonly field: Field;
  readonly intervals: readonly { readonly from: bigint | null; readonly to: bigint | null; readonly valid: boolean; readonly item: number }[];
  /** Item by ordinal; empty for choices. */
  readonly boundaries: ReadonlyMap<bigint, number>;
  readonly choices: readonly { readonly choice: Choice; readonly item: number }[];
  /** Patterns that can be read. */
  readonly patterns: readonly { readonly test: PatternTest; readonly valid: boolean; readonly item: number }[];
  readonly classes: readonly { readonly otherClass: OtherClass; readonly item: number }[];
}

export function rangeJudge(model: ValueRangesModel): RangeJudge {
  const kinds: ItemKind[] = [];
  const place = (kind: ItemKind): number => kinds.push(kind) - 1;
  return { model, kinds, fields: model.fields.map((field) => fieldJudge(model, field, place)) };
}

/** Places follow the order of {@link rangeItems}: partitions, boundary values, other classes. */
function fieldJudge(model: ValueRangesModel, field: Field, place: (kind: ItemKind) => number): FieldJudge {
  const { type } = field;
  const read = readIntervals(type, field.intervals);
  const intervals = read.map(({ interval, from, to }) => ({ from, to, valid: interval.valid, item: place('partition') }));
  const choices = isOrdered(type) ? [] : field.choices.map((choice) => ({ choice, item: place('partition') }));
  const patterns = readPatterns(field).map(({ part, test }) => ({ test, valid: part.valid, item: place('partition') }));
  const edges = isOrdered(type) ? writableBoundaries(type, read, model.boundaries) : [];
  const boundaries = new Map(edges.map((edge) => [edge, place('boundary')]));
  const classes = field.classes.map((otherClass) => ({ otherClass, item: place('class') }));
  return { field, intervals, boundaries, choices, patterns, classes };
}

/**
 * The items (by place) that a row shows by the values it gives to the fields, in the order of `judge.fields`; null
 * gives none and shows nothing. A value shows every partition and class it lies in and the boundary item it equals.
 * Invalid values must be alone: with invalid values in two fields neither invalid item is shown, unless the model
 * allows it. Valid items come first.
 */
export function itemsShown(judge: RangeJudge, values: readonly (FieldValue | null)[]): number[] {
  const valid: number[] = [];
  const invalid: number[] = [];
  let invalidFields = 0;
  for (let i = 0; i < judge.fields.length; i += 1) {
    const [field, value] = [judge.fields[i], values[i]];
    if (field !== undefined && value != null && collect(field, readFieldValue(field.field, value), valid, invalid)) invalidFields += 1;
  }
  const masked = invalidFields > 1 && !judge.model.allowInvalidTogether;
  return masked || invalid.length === 0 ? valid : [...valid, ...invalid];
}

/** The same by key, for values by field. */
export function itemsShownByRow(judge: RangeJudge, values: ReadonlyMap<FieldId, FieldValue>): ItemKey[] {
  const inOrder = judge.fields.map((f) => values.get(f.field.id) ?? null);
  const items = rangeItems(judge.model);
  return itemsShown(judge, inOrder).flatMap((place) => items[place]?.key ?? []);
}

/** Adds what a value shows to the two lists; answers whether the value is an invalid one. */
function collect(judge: FieldJudge, value: ReadFieldValue, valid: number[], invalid: number[]): boolean {
  const [validBefore, invalidBefore] = [valid.length, invalid.length];
  for (const { otherClass, item } of judge.classes) if (inClass(judge.field, otherClass, value)) (otherClass.valid ? valid : invalid).push(item);
  if (value.kind === 'text' && value.reading === null) {
    for (const { choice, item } of judge.choices) if (isChoice(choice, value.text)) (choice.valid ? valid : invalid).push(item);
    for (const { test, valid: isValid, item } of judge.patterns) if (test(value.text)) (isValid ? valid : invalid).push(item);
  }
  const ordinal = value.kind === 'text' && value.reading?.kind === 'ordinal' ? value.reading.ordinal : null;
  if (ordinal !== null) {
    for (const { from, to, valid: isValid, item } of judge.intervals) {
      if ((from === null || from <= ordinal) && (to === null || ordinal <= to)) (isValid ? valid : invalid).push(item);
    }
  }
  // What lies in no partition and no class is unspecified, and as such no valid value.
  const isInvalid = invalid.length > invalidBefore || valid.length === validBefore;
  const boundary = ordinal === null ? undefined : judge.boundaries.get(ordinal);
  if (boundary !== undefined) (isInvalid ? invalid : valid).push(boundary);
  return isInvalid;
}
