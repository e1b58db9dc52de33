import { isOrdered, lengthInCharacters, readValue, type ValueKind } from '../values/index.ts';
import type { Field, OtherClass } from './valueRanges.ts';

export const CLASS_KINDS = [
  'missing',
  'empty',
  'letters',
  'specialCharacters',
  'fraction',
  'tooPrecise',
  'impossibleDate',
  'notListed',
  'tooLong',
  'example',
] as const;
export type ClassKind = (typeof CLASS_KINDS)[number];

/** A value as it reaches a field: not given at all, or a text. */
export type FieldValue = { readonly kind: 'missing' } | { readonly kind: 'text'; readonly text: string };

/** Whether a value belongs to a class. A class of kind `example` holds its example and nothing else. */
export function inClass(field: Field, otherClass: OtherClass, value: FieldValue): boolean {
  if (value.kind === 'missing') return otherClass.kind === 'missing';
  return textInClass(field, otherClass, value.text);
}

function textInClass(field: Field, otherClass: OtherClass, text: string): boolean {
  switch (otherClass.kind) {
    case 'missing':
      return false;
    case 'empty':
      return text === '';
    case 'letters':
      return isWrongKind(field, text) && /\p{L}/u.test(text);
    case 'specialCharacters':
      return isWrongKind(field, text) && !/\p{L}/u.test(text) && /[^\p{N}\s]/u.test(text);
    case 'fraction':
    case 'tooPrecise':
      return readingKind(field, text) === 'offStep';
    case 'impossibleDate':
      return readingKind(field, text) === 'impossibleDate';
    case 'notListed':
      return text !== '' && !isOrdered(field.type) && !field.choices.some((c) => isChoice(c, text));
    case 'tooLong':
      return lengthInCharacters(text) > otherClass.limit;
    case 'example':
      return text === otherClass.example;
  }
}

/** Whether a text is a choice's value or one of its aliases, letter for letter. */
export function isChoice(choice: { readonly value: string; readonly aliases: readonly string[] }, text: string): boolean {
  return text === choice.value || choice.aliases.includes(text);
}

function isWrongKind(field: Field, text: string): boolean {
  return readingKind(field, text) === 'wrongKind';
}

function readingKind(field: Field, text: string): 'ordinal' | 'offStep' | 'impossibleDate' | 'wrongKind' | null {
  return isOrdered(field.type) ? readValue(field.type, text).kind : null;
}

/** The classes worth offering for a type, with an example each; the analyst takes those that matter. */
export function offeredClasses(kind: ValueKind): readonly { readonly kind: ClassKind; readonly example: string }[] {
  const always = [{ kind: 'missing', example: '' }, { kind: 'empty', example: '' }] as const;
  switch (kind) {
    case 'whole':
      return [...always, { kind: 'letters', example: '12a' }, { kind: 'fraction', example: '12.5' }, { kind: 'specialCharacters', example: '#!' }];
    case 'decimal':
      return [...always, { kind: 'letters', example: '12a' }, { kind: 'tooPrecise', example: '1.23456' }, { kind: 'specialCharacters', example: '#!' }];
    case 'date':
      return [...always, { kind: 'letters', example: 'today' }, { kind: 'impossibleDate', example: '2026-02-30' }];
    case 'time':
      return [...always, { kind: 'letters', example: 'noon' }, { kind: 'tooPrecise', example: '12:00:01' }];
    case 'dateTime':
      return [...always, { kind: 'letters', example: 'noon' }, { kind: 'impossibleDate', example: '2026-02-30T12:00' }];
    case 'textLength':
      return [{ kind: 'missing', example: '' }, { kind: 'example', example: '<b>&"\'</b>' }];
    case 'choice':
      return [...always, { kind: 'notListed', example: 'something else' }];
    case 'yesNo':
      return [...always, { kind: 'notListed', example: 'maybe' }];
  }
}
