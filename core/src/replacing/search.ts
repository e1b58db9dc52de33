import { RE2JS, RE2JSException } from 're2js';
import { parseParameterText } from '../cases/index.ts';

/** What is looked for in texts, and what takes its place. */
export interface Search {
  readonly text: string;
  /** In a pattern `$1` is what its first bracket matched, `$$` a dollar sign. */
  readonly replacement: string;
  /** `text` is a regular expression in the syntax of RE2. */
  readonly isPattern: boolean;
  readonly matchCase: boolean;
  readonly wholeWords: boolean;
  /** Also within names of parameters (`<reading>`) and addresses. */
  readonly inNames: boolean;
}

/** A match in a text and what stands there afterwards. */
export interface Match {
  readonly at: number;
  readonly length: number;
  readonly replacement: string;
}

/** Finds all matches in a text, one after the other; none is empty. */
export type Finder = (text: string) => readonly Match[];

/** The finder for a search; null: nothing is looked for, or the pattern is none. */
export function finderOf(search: Search): Finder | null {
  if (search.text === '') return null;
  const raw = search.isPattern ? patternFinder(search) : wordsFinder(search);
  if (raw === null) return null;
  return (text) => {
    const found = raw(text);
    if (found.length === 0) return found;
    const kept = search.wholeWords ? found.filter((m) => isWhole(text, m)) : found;
    if (search.inNames || kept.length === 0) return kept;
    const names = namesIn(text, kept[0]?.at ?? 0);
    return kept.filter((m) => !names.some(({ from, to }) => m.at < to && m.at + m.length > from));
  };
}

/** The text with matches replaced. */
export function replacedIn(text: string, matches: readonly Match[]): string {
  let made = '';
  let from = 0;
  for (const { at, length, replacement } of matches) {
    made += text.slice(from, at) + replacement;
    from = at + length;
  }
  return made + text.slice(from);
}

function wordsFinder({ text, replacement, matchCase }: Search): Finder {
  const sought = matchCase ? text : text.toLowerCase();
  return (whole) => {
    const within = matchCase ? whole : folded(whole);
    const found: Match[] = [];
    for (let at = within.indexOf(sought); at >= 0; at = within.indexOf(sought, at + sought.length)) found.push({ at, length: sought.length, replacement });
    return found;
  };
}

/** In small letters, each where it was: a letter whose small form is longer stays as it is. */
function folded(text: string): string {
  const small = text.toLowerCase();
  return small.length === text.length ? small : [...text].map((letter) => (letter.toLowerCase().length === letter.length ? letter.toLowerCase() : letter)).join('');
}

function patternFinder({ text, replacement, matchCase }: Search): Finder | null {
  const compiled = compile(text, matchCase);
  if (compiled === null) return null;
  const parts = partsOf(replacement);
  const beginsAt = beginningFinder(beginningOf(text), matchCase);
  return (whole) => {
    const found: Match[] = [];
    if (beginsAt !== null && beginsAt(whole, 0) < 0) return found;
    const matcher = compiled.matcher(whole);
    const next = (from: number): boolean => {
      if (beginsAt === null) return matcher.find();
      const at = beginsAt(whole, from);
      return at >= 0 && matcher.find(at);
    };
    for (let from = 0; next(from); ) {
      const [at, end] = [matcher.start(), matcher.end()];
      if (end > at) found.push({ at, length: end - at, replacement: parts.map((part) => (typeof part === 'string' ? part : part <= matcher.groupCount() ? (matcher.group(part) ?? '') : '')).join('') });
      from = end;
    }
    return found;
  };
}

/** The letters that every match of a pattern begins with, where it plainly says so. */
function beginningOf(pattern: string): string {
  if (pattern.includes('|')) return '';
  const [letters = ''] = /^[\p{L}\p{N} _,;:'"<>=/%&!@#~-]*/u.exec(pattern) ?? [];
  // The last one may be there several times, or not at all.
  return /^[*?{]/.test(pattern.slice(letters.length)) ? [...letters].slice(0, -1).join('') : letters;
}

/** Where letters begin next in a text: found many times quicker than a pattern is tried at every place. Letters are folded as RE2 folds them. Null: there are none. */
function beginningFinder(letters: string, matchCase: boolean): ((text: string, from: number) => number) | null {
  if (letters === '') return null;
  const plain = new RegExp(letters, matchCase ? 'gu' : 'giu');
  return (text, from) => {
    plain.lastIndex = from;
    return plain.exec(text)?.index ?? -1;
  };
}

function compile(pattern: string, matchCase: boolean): RE2JS | null {
  try {
    return RE2JS.compile(pattern, matchCase ? 0 : RE2JS.CASE_INSENSITIVE);
  } catch (error) {
    if (error instanceof RE2JSException) return null;
    throw error;
  }
}

/** Texts, and the numbers of the brackets whose matches stand between them. */
function partsOf(replacement: string): (string | number)[] {
  return replacement.split(/(\$\$|\$\d)/).map((part) => (part === '$$' ? '$' : /^\$\d$/.test(part) ? Number(part.slice(1)) : part));
}

function isWhole(text: string, { at, length }: Match): boolean {
  const isWord = (letter: string | undefined): boolean => letter !== undefined && /[\p{L}\p{N}_]/u.test(letter);
  const [before, first] = [lastOf(text.slice(0, at)), [...text.slice(at, at + 2)][0]];
  const [last, after] = [lastOf(text.slice(at, at + length)), [...text.slice(at + length, at + length + 2)][0]];
  return !(isWord(before) && isWord(first)) && !(isWord(last) && isWord(after));
}

function lastOf(text: string): string | undefined {
  return [...text.slice(-2)].at(-1);
}

const ADDRESS = /\b(?:https?:\/\/|mailto:)[^\s<>()]+/gi;

/** Where a text names parameters, and where it leads elsewhere: another word there would be another thing. Parameters that end before `from` may be left out. */
function namesIn(text: string, from: number): { readonly from: number; readonly to: number }[] {
  const parameters = text.indexOf('>', from) >= 0 && text.includes('<') ? parseParameterText(text).flatMap((part) => (part.kind === 'parameter' ? [part] : [])) : [];
  const addresses = text.includes(':') ? [...text.matchAll(ADDRESS)].map((m) => ({ from: m.index, to: m.index + m[0].length })) : [];
  return [...parameters, ...addresses];
}
