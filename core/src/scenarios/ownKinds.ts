import { RE2JS, RE2JSException } from 're2js';
import type { OwnValueKind } from './ownKind.ts';

/** A value of an own kind in a text. */
export interface OwnValue {
  readonly kind: OwnValueKind;
  readonly at: number;
  readonly text: string;
}

interface Span {
  readonly at: number;
  readonly text: string;
}

type Finder = (text: string) => readonly Span[];

/** The own kinds of a project, ready to be found in texts. One whose pattern is none finds nothing. */
export class OwnKinds {
  readonly kinds: readonly OwnValueKind[];
  readonly #finders: readonly { readonly kind: OwnValueKind; readonly find: Finder }[];

  constructor(kinds: readonly OwnValueKind[]) {
    this.kinds = kinds;
    this.#finders = kinds.flatMap((kind) => {
      const find = finderOf(kind.pattern);
      return find === null ? [] : [{ kind, find }];
    });
  }

  /** Values of own kinds in a text, in its order: whole words, and where two kinds meet the one that comes first among them. */
  foundIn(text: string): OwnValue[] {
    const found: OwnValue[] = [];
    for (const { kind, find } of this.#finders) {
      for (const span of find(text)) if (isWhole(text, span) && !found.some((other) => overlaps(other, span))) found.push({ kind, ...span });
    }
    return found.toSorted((a, b) => a.at - b.at);
  }
}

/** A project without kinds of its own. */
export const NO_OWN_KINDS = new OwnKinds([]);

/** Whether a text says what values look like: a pattern, and none that nothing at all is a value of. */
export function isOwnKindPattern(pattern: string): boolean {
  return finderOf(pattern)?.('').length === 0;
}

/** Whether two pieces of a text share a letter. */
export function overlaps(a: Span, b: Span): boolean {
  return a.at < b.at + b.text.length && b.at < a.at + a.text.length;
}

const WORDS_ONLY = /^[\p{L}\p{N} _'-]+(?:\|[\p{L}\p{N} _'-]+)*$/u;

function finderOf(pattern: string): Finder | null {
  if (pattern.trim() === '') return null;
  return WORDS_ONLY.test(pattern) ? wordsFinder(pattern.split('|').map((w) => w.trim()).filter((w) => w !== '')) : patternFinder(pattern);
}

/** Most kinds are a few words, which the machine's own expressions find twenty times as quickly, in a time that grows with the text alone. */
function wordsFinder(words: readonly string[]): Finder | null {
  if (words.length === 0) return null;
  const longestFirst = words.toSorted((a, b) => b.length - a.length || (a < b ? -1 : 1));
  const compiled = new RegExp(`(?<![\\p{L}\\p{N}_])(?:${longestFirst.join('|')})(?![\\p{L}\\p{N}_])`, 'gu');
  return (text) => [...text.matchAll(compiled)].map((m) => ({ at: m.index, text: m[0] }));
}

/** No pattern and no text can take longer than in proportion to their length. A match of nothing shows as one without letters. */
function patternFinder(pattern: string): Finder | null {
  const compiled = compile(pattern);
  if (compiled === null) return null;
  return (text) => {
    const found: Span[] = [];
    const matcher = compiled.matcher(text);
    while (matcher.find()) if (text === '' || matcher.end() > matcher.start()) found.push({ at: matcher.start(), text: text.slice(matcher.start(), matcher.end()) });
    return found;
  };
}

function compile(pattern: string): RE2JS | null {
  try {
    return RE2JS.compile(pattern);
  } catch (error) {
    if (error instanceof RE2JSException) return null;
    throw error;
  }
}

/** Whether what is found begins and ends where a word does. */
function isWhole(text: string, { at, text: found }: Span): boolean {
  const isCut = (before: string, after: string): boolean => WORD_AT_END.test(before) && WORD_AT_START.test(after);
  return !isCut(text.slice(0, at), found) && !isCut(found, text.slice(at + found.length));
}

const WORD_AT_END = /[\p{L}\p{N}_]$/u;
const WORD_AT_START = /^[\p{L}\p{N}_]/u;
