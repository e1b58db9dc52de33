import { NO_OWN_KINDS, overlaps, type OwnKinds, type OwnValue } from './ownKinds.ts';
import { phraseKey, type PhraseKey } from './phraseKey.ts';

/** What stands in a hole of a phrase. `string`: in quotation marks; `placeholder`: a parameter of an outline; `word`: a date, a time, a code of digits; in braces: of the own kind of that name. */
export type ValueKind = BuiltInKind | `{${string}}`;
export type BuiltInKind = 'string' | 'int' | 'float' | 'word' | 'placeholder';

/** A value in a step. */
export interface StepValue {
  readonly kind: ValueKind;
  /** As it is written, with its quotation marks or angle brackets. */
  readonly text: string;
  /** Where it begins in the step text. */
  readonly at: number;
  /**
   * Names it within its step, whatever own kinds come and go: its turn among the values that need none. One of an own
   * kind that takes such a value in stands in its place; else its kind and its turn among those.
   */
  readonly place: string;
}

/** A step text taken apart. */
export interface TakenApart {
  readonly key: PhraseKey;
  readonly values: readonly StepValue[];
}

const VALUE = /"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'(?![\p{L}\p{N}])|<[^<>\s][^<>]*>|(?<![\p{L}\p{N}_][-./:]?)(?<!<)[-+]?\d(?:[\d.,:/-]*\d)?(?![\p{L}\p{N}_])/gu;

/** The holes as they are written in a key. What is not in quotation marks is one hole whatever stands in it, so that an outline and what it was before are one phrase. */
const QUOTED_HOLE = '{string}';
const HOLE = '{}';

/**
 * A step text as a phrase and its values: {@link withValues} puts them back. An apostrophe within a word begins no
 * value. Values of own kinds are holes as well; within quotation marks and angle brackets none is looked for.
 */
export function takenApart(text: string, own: OwnKinds = NO_OWN_KINDS): TakenApart {
  const texts = known.get(own) ?? new Map<string, TakenApart>();
  const before = texts.get(text);
  if (before !== undefined) return before;
  if (texts.size >= MOST_KNOWN) texts.clear();
  const apart = takenApartAnew(text, own);
  texts.set(text, apart);
  known.set(own, texts);
  return apart;
}

/** Steps that were taken apart lately: while somebody types, all of a feature but one are the same again and again, and several ask. */
const known = new WeakMap<OwnKinds, Map<string, TakenApart>>();
const MOST_KNOWN = 10_000;

/** For whoever goes through many texts once. */
export function takenApartAnew(text: string, own: OwnKinds = NO_OWN_KINDS): TakenApart {
  const plain = plainValues(text);
  const values = own.kinds.length === 0 ? plain : withOwnValues(plain, own.foundIn(text));
  let [key, at] = ['', 0];
  for (const value of values) {
    key += escaped(text.slice(at, value.at)) + (value.kind === 'string' ? QUOTED_HOLE : HOLE);
    at = value.at + value.text.length;
  }
  return { key: phraseKey(key + escaped(text.slice(at))), values };
}

function plainValues(text: string): StepValue[] {
  const values: StepValue[] = [];
  for (const match of text.matchAll(VALUE)) {
    if (match[0].startsWith("'") && /[\p{L}\p{N}]$/u.test(text.slice(0, match.index))) continue;
    values.push({ kind: kindOf(match[0]), text: match[0], at: match.index, place: `${values.length}` });
  }
  return values;
}

/** Values of own kinds among the others: one takes in what lies within it whole, and gives way to what it would cut, to texts and to placeholders. */
function withOwnValues(plain: readonly StepValue[], found: readonly OwnValue[]): readonly StepValue[] {
  const own = found.filter((f) => plain.every((value) => !overlaps(value, f) || takesIn(f, value)));
  if (own.length === 0) return plain;
  const turns = new Map<string, number>();
  const made = own.map(({ kind, at, text }): StepValue => {
    const within = plain.find((value) => overlaps(value, { at, text }));
    const turn = turns.get(kind.id) ?? 0;
    if (within === undefined) turns.set(kind.id, turn + 1);
    return { kind: `{${kind.name}}`, text, at, place: within?.place ?? `${kind.id}.${turn}` };
  });
  return [...plain.filter((value) => !own.some((f) => overlaps(value, f))), ...made].toSorted((a, b) => a.at - b.at);
}

function takesIn(own: OwnValue, { kind, at, text }: StepValue): boolean {
  return kind !== 'string' && kind !== 'placeholder' && own.at <= at && at + text.length <= own.at + own.text.length;
}

/**
 * A phrase as it is under other own kinds: words that are values now are holes. For each hole, which one it was; null: none.
 * Phrases are kept as they were once written, so whoever reads kept ones asks for them so.
 */
export function keyUnder(key: PhraseKey, own: OwnKinds): { readonly key: PhraseKey; readonly was: readonly (number | null)[] } {
  const count = holesOf(key);
  const unchanged = { key, was: Array.from({ length: count }, (_, i) => i) };
  if (own.kinds.length === 0) return unchanged;
  const { key: now, values } = takenApart(withValues(key, piecesOf(key).flatMap((p) => (p.kind === 'hole' ? [p.quoted ? '""' : '<_>'] : []))), own);
  if (values.filter((v) => !isOwnKind(v.kind)).length !== count) return unchanged;
  let next = 0;
  return { key: now, was: values.map((v) => (isOwnKind(v.kind) ? null : (next += 1) - 1)) };
}

/** Whether values are of an own kind of the project. */
export function isOwnKind(kind: ValueKind): kind is `{${string}}` {
  return kind.startsWith('{');
}

function kindOf(value: string): BuiltInKind {
  if (/^["']/.test(value)) return 'string';
  if (value.startsWith('<')) return 'placeholder';
  if (/^[-+]?\d+$/.test(value)) return 'int';
  return /^[-+]?\d+[.,]\d+$/.test(value) ? 'float' : 'word';
}

function escaped(text: string): string {
  return text.replace(/[\\{}()/]/g, '\\$&');
}

/** A phrase as a person writes it: `{string}`, `{int}`, `{float}`, `{word}`, `{}` and the own kinds of the project stand for values, all else is words. */
export function keyOfExpression(text: string, { kinds } = NO_OWN_KINDS): PhraseKey {
  const names = ['string', 'int', 'float', 'word', ...kinds.map((k) => k.name)];
  return phraseKey(
    text
      .trim()
      .split(new RegExp(`(\\{(?:${names.join('|')})?\\})`, 'u'))
      .map((piece, i) => (i % 2 === 0 ? escaped(piece) : piece === QUOTED_HOLE ? QUOTED_HOLE : HOLE))
      .join(''),
  );
}

/** A piece of a phrase: words as they are said, or a hole. */
export type PhrasePiece = { readonly kind: 'words'; readonly text: string } | { readonly kind: 'hole'; readonly quoted: boolean };

/** The pieces of a phrase, in order. */
export function piecesOf(key: PhraseKey): PhrasePiece[] {
  return key
    .split(/((?<!\\)(?:\\\\)*\{(?:string)?\})/)
    .flatMap((piece): PhrasePiece[] => {
      const hole = /^((?:\\\\)*)\{(string)?\}$/.exec(piece);
      if (hole === null) return words(piece);
      return [...words(hole[1] ?? ''), { kind: 'hole', quoted: hole[2] !== undefined }];
    })
    .reduce<PhrasePiece[]>((all, piece) => {
      const last = all.at(-1);
      return piece.kind === 'words' && last?.kind === 'words' ? [...all.slice(0, -1), { kind: 'words', text: last.text + piece.text }] : [...all, piece];
    }, []);
}

function words(text: string): PhrasePiece[] {
  return text === '' ? [] : [{ kind: 'words', text: text.replace(/\\([\\{}()/])/g, '$1') }];
}

/** How many values a phrase takes. */
export function holesOf(key: PhraseKey): number {
  return piecesOf(key).filter((p) => p.kind === 'hole').length;
}

/** A step of a phrase with these values in its holes, as they are written; a hole without one stays as `<value>`. */
export function withValues(key: PhraseKey, values: readonly string[]): string {
  let next = 0;
  return piecesOf(key)
    .map((piece) => (piece.kind === 'words' ? piece.text : (values[(next += 1) - 1] ?? (piece.quoted ? '"value"' : '<value>'))))
    .join('');
}
