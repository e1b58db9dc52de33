import { offeredClasses, fieldId, type Choice, type ClassKind, type Field, type Interval, type OtherClass, type PatternPart, type ValueRangesModel } from '@caderno/core/conditions';
import { formatBound, isOrdered, readBound, type ValueKind, type ValueType } from '@caderno/core/values';
import { CLASS_WORD } from '../../look/index.ts';
import { newPartId } from '../newPartId.ts';

/** A type with a sensible step, chosen from its kind. */
export function typeOfKind(kind: ValueKind): ValueType {
  switch (kind) {
    case 'decimal':
      return { kind, step: '0.01' };
    case 'time':
    case 'dateTime':
      return { kind, stepSeconds: 60 };
    default:
      return { kind };
  }
}

export function newModel(name: string): ValueRangesModel {
  return { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [newField(name, 'whole')] };
}

export function newField(name: string, kind: ValueKind): Field {
  const field: Field = { id: fieldId(newPartId()), name, type: typeOfKind(kind), unit: '', required: true, intervals: [], choices: [], patterns: [], classes: [] };
  return withKind(field, kind);
}

/** The field as one of another kind: parts that make no sense there go, sensible first ones come. */
export function withKind(field: Field, kind: ValueKind): Field {
  const type = typeOfKind(kind);
  const offered = offeredClasses(kind).map((c) => c.kind);
  const classes = field.classes.filter((c) => offered.includes(c.kind));
  if (kind === 'yesNo') return { ...field, type, classes, intervals: [], patterns: [], choices: [newChoice('yes'), newChoice('no')] };
  if (kind === 'choice') return { ...field, type, classes, intervals: [], patterns: [], choices: field.choices };
  if (kind === 'textPattern') return { ...field, type, classes, intervals: [], choices: [], patterns: field.patterns };
  return { ...field, type, classes, choices: [], patterns: [], intervals: field.intervals };
}

export function newChoice(value: string): Choice {
  return { id: newPartId(), value, aliases: [], valid: true, outcome: '' };
}

export function newPattern(field: Field): PatternPart {
  return { id: newPartId(), name: `pattern ${field.patterns.length + 1}`, pattern: '[A-Z]-[0-9]{4}', example: 'M-2207', valid: true, outcome: '' };
}

/** The interval after the last one: it begins where that one ends. */
export function nextInterval(field: Field): Interval {
  const last = field.intervals.at(-1);
  const bound = last !== undefined && isOrdered(field.type) && last.to !== '' ? readBound(field.type, last.to) : null;
  const from = bound !== null && isOrdered(field.type) ? (formatBound(field.type, bound + 1n) ?? '') : '';
  return { id: newPartId(), name: `interval ${field.intervals.length + 1}`, from, to: '', valid: true, outcome: '' };
}

export function newClass(kind: ClassKind, example: string): OtherClass {
  return { id: newPartId(), kind, name: CLASS_WORD[kind], example, limit: 255, valid: false, outcome: '' };
}
