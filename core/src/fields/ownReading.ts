import { parseDate, parseDecimal } from '../values/index.ts';
import type { OwnChoice, OwnField, OwnFieldType, OwnValue } from './ownField.ts';

/** A value read by its field: the texts that people see, and whether each is one that the field's type allows. */
export interface OwnReading {
  /** In the order of the choices, where several can be chosen. */
  readonly shown: readonly string[];
  readonly fits: boolean;
}

/** What a text can be called that says yes or no. */
const YES_NO: Readonly<Record<string, 'yes' | 'no'>> = { yes: 'yes', y: 'yes', true: 'yes', no: 'no', n: 'no', false: 'no' };
/** What is longer is no number that anybody compares. */
const LONGEST = 30;
const LINK = /^(?:https?:\/\/|mailto:)\S+$/i;

/**
 * Reads what stands in a field. A choice is told by its id or, where it was a text before, by its name. A text that the
 * type does not allow is shown as it is: a change of type loses nothing.
 */
export function readOwn(field: OwnField, value: OwnValue): OwnReading {
  const texts = typeof value === 'string' ? [value] : value;
  const chosen = texts.map((text) => choiceOf(field, text));
  const shown = texts.map((text, i) => chosen[i]?.name ?? text);
  switch (field.type) {
    case 'choices':
      return { shown: inOrderOf(field, shown), fits: chosen.every((c) => c !== null) };
    case 'choice':
      return { shown, fits: shown.length === 1 && chosen[0] !== null };
    case 'text':
    case 'longText':
    case 'person':
      return { shown: [shown.join(', ')], fits: true };
    default:
      return { shown: [shown.join(', ')], fits: shown.length === 1 && isOf(field.type, shown[0] ?? '') };
  }
}

/** What a person or a file says, as a value of a field; null when the field's type does not allow it. Nothing is the empty value. */
export function writeOwn(field: OwnField, written: string): OwnValue | null {
  const text = written.trim();
  if (text === '') return [];
  switch (field.type) {
    case 'choice':
      return choiceOf(field, text)?.id ?? null;
    case 'choices': {
      const chosen = partsOf(field, text).map((part) => choiceOf(field, part));
      return chosen.every((c) => c !== null) ? field.choices.filter((c) => chosen.includes(c)).map((c) => c.id) : null;
    }
    case 'yesNo':
      return YES_NO[text.toLowerCase()] ?? null;
    case 'longText':
      return written;
    case 'number': {
      // As many write it.
      const number = text.replace(/^([+-]?\d+),(\d+)$/, '$1.$2');
      return isOf('number', number) ? number : null;
    }
    case 'date':
    case 'link':
      return isOf(field.type, text) ? text : null;
    case 'text':
    case 'person':
      return text;
  }
}

/** What stands in a field as one text: what {@link writeOwn} reads back. */
export function ownText(field: OwnField, value: OwnValue): string {
  const { shown } = readOwn(field, value);
  const plain = shown.join(', ');
  // Several that read together like one of the choices are told apart by quotes.
  const isPlain = shown.length < 2 || (choiceOf(field, plain) === null && !shown.some((text) => /[,;"\n]/.test(text)));
  return isPlain ? plain : shown.map((text) => `"${text.replaceAll('"', '""')}"`).join(', ');
}

/** The choice that a text names: by its id, or by its name in any case. */
export function choiceOf({ choices }: OwnField, text: string): OwnChoice | null {
  const name = text.trim().toLowerCase();
  return choices.find((c) => c.id === text) ?? choices.find((c) => c.name.toLowerCase() === name) ?? null;
}

function isOf(type: Exclude<OwnFieldType, 'choice' | 'choices'>, text: string): boolean {
  switch (type) {
    case 'number':
      return text.length <= LONGEST && parseDecimal(text) !== null;
    case 'date':
      return text.length === 10 && parseDate(text) !== null;
    case 'yesNo':
      return text === 'yes' || text === 'no';
    case 'link':
      return LINK.test(text);
    case 'text':
    case 'longText':
    case 'person':
      return true;
  }
}

/** Choices parted by commas, semicolons or lines; one that holds such a sign is told whole or in quotes. */
function partsOf(field: OwnField, text: string): string[] {
  if (choiceOf(field, text) !== null) return [text];
  return [...text.matchAll(/\s*"((?:[^"]|"")*)"\s*|[^,;\n]+/g)].map(([whole, quoted]) => (quoted?.replaceAll('""', '"') ?? whole).trim()).filter((part) => part !== '');
}

function inOrderOf({ choices }: OwnField, names: readonly string[]): string[] {
  const place = new Map(choices.map((c, i) => [c.name, i]));
  return [...names].sort((a, b) => (place.get(a) ?? choices.length) - (place.get(b) ?? choices.length));
}
