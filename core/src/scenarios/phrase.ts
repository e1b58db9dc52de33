/** A step text with its values taken out, in the notation of cucumber expressions: what is reused. */
export type PhraseKey = string & { readonly __brand: 'PhraseKey' };

/** The one maker of phrase keys out of texts that hold one. */
export function phraseKey(text: string): PhraseKey {
  return text as PhraseKey;
}

/** What stands in a hole of a phrase. `string`: in quotation marks; `placeholder`: a parameter of an outline; `word`: a date, a time, a code of digits. */
export type ValueKind = 'string' | 'int' | 'float' | 'word' | 'placeholder';

/** A value in a step. */
export interface StepValue {
  readonly kind: ValueKind;
  /** As it is written, with its quotation marks or angle brackets. */
  readonly text: string;
  /** Where it begins in the step text. */
  readonly at: number;
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
 * value. Own parameter types of code that executes the steps are not known here.
 */
export function takenApart(text: string): TakenApart {
  const values: StepValue[] = [];
  let [key, at] = ['', 0];
  for (const match of text.matchAll(VALUE)) {
    if (match[0].startsWith("'") && /[\p{L}\p{N}]$/u.test(text.slice(0, match.index))) continue;
    const kind = kindOf(match[0]);
    key += escaped(text.slice(at, match.index)) + (kind === 'string' ? QUOTED_HOLE : HOLE);
    values.push({ kind, text: match[0], at: match.index });
    at = match.index + match[0].length;
  }
  return { key: phraseKey(key + escaped(text.slice(at))), values };
}

function kindOf(value: string): ValueKind {
  if (/^["']/.test(value)) return 'string';
  if (value.startsWith('<')) return 'placeholder';
  if (/^[-+]?\d+$/.test(value)) return 'int';
  return /^[-+]?\d+[.,]\d+$/.test(value) ? 'float' : 'word';
}

function escaped(text: string): string {
  return text.replace(/[\\{}()/]/g, '\\$&');
}

/** A phrase as a person writes it: `{string}`, `{int}`, `{float}`, `{word}` and `{}` stand for values, all else is words. */
export function keyOfExpression(text: string): PhraseKey {
  return phraseKey(
    text
      .trim()
      .split(/(\{(?:string|int|float|word)?\})/)
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
