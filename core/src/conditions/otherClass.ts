import { isOrdered, lengthInCharacters, readValue, type Reading, type ValueKind } from '../values/index.ts';
import type { ClassKind } from './classKind.ts';
import type { Field, OtherClass } from './valueRanges.ts';

/** A value as it reaches a field: not given at all, or a text. */
export type FieldValue = { readonly kind: 'missing' } | { readonly kind: 'value'; readonly text: string };

/** Whether a value belongs to a class. A class of kind `example` holds its example and nothing else. */
export function inClass(field: Field, otherClass: OtherClass, value: ReadFieldValue): boolean {
  if (value.kind === 'missing') return otherClass.kind === 'missing';
  const { text, reading } = value;
  switch (otherClass.kind) {
    case 'missing':
      return false;
    case 'empty':
      return text === '';
    case 'letters':
      return reading?.kind === 'wrongKind' && /\p{L}/u.test(text);
    case 'specialCharacters':
      return reading?.kind === 'wrongKind' && !/\p{L}/u.test(text) && /[^\p{N}\s]/u.test(text);
    case 'fraction':
    case 'tooPrecise':
      return reading?.kind === 'offStep';
    case 'impossibleDate':
      return reading?.kind === 'impossibleDate';
    case 'notListed':
      return text !== '' && reading === null && !field.choices.some((c) => isChoice(c, text));
    case 'tooLong':
      return lengthInCharacters(text) > otherClass.limit;
    case 'example':
      return text === otherClass.example;
  }
}

/** A field value with what it reads as, once for all that ask; `reading` is null for types without an order. */
export type ReadFieldValue = { readonly kind: 'missing' } | { readonly kind: 'text'; readonly text: string; readonly reading: Reading | null };

export function readFieldValue(field: Field, value: FieldValue): ReadFieldValue {
  if (value.kind === 'missing') return value;
  return { kind: 'text', text: value.text, reading: isOrdered(field.type) ? readValue(field.type, value.text) : null };
}

/** Whether a text is a choice's value or one of its aliases, letter for letter. */
export function isChoice(choice: { readonly value: string; readonly aliases: readonly string[] }, text: string): boolean {
  return text === choice.value || choice.aliases.includes(text);
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
      return [...always, { kind: 'letters', example: 'noon' }, { kind: 'impossibleDate', example: '2026-02-30 12:00' }];
    case 'textLength':
      return [{ kind: 'missing', example: '' }, { kind: 'example', example: '<b>&"\'</b>' }];
    case 'textPattern':
      return always;
    case 'choice':
      return [...always, { kind: 'notListed', example: 'something else' }];
    case 'yesNo':
      return [...always, { kind: 'notListed', example: 'maybe' }];
  }
}
