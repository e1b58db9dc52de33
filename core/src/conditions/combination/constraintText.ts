import type { Factor } from './combination.ts';

/** A constraint read: factors and values by place. */
export type Condition =
  | { readonly kind: 'is'; readonly factor: number; readonly values: readonly number[] }
  | { readonly kind: 'not'; readonly of: Condition }
  | { readonly kind: 'and' | 'or'; readonly of: readonly [Condition, Condition] };

/** What is expected at a place of a constraint. */
export const EXPECTED = ['factor', 'value', 'comparison', 'set', 'condition', 'then', 'closing', 'end'] as const;
export type Expected = (typeof EXPECTED)[number];

/** What is wrong in a constraint's text; `start` and `end` are places in it, in UTF-16 units. */
export interface ConstraintProblem {
  readonly code: 'unexpected' | 'factor_unknown' | 'value_unknown';
  readonly start: number;
  readonly end: number;
  /** What stands there; empty at the end of the text. */
  readonly found: string;
  readonly expected: Expected;
  /** For values: the factor whose value is expected. */
  readonly factor: string | null;
}

export type ReadConstraint = { readonly kind: 'condition'; readonly condition: Condition } | { readonly kind: 'empty' } | { readonly kind: 'problem'; readonly problem: ConstraintProblem };

/**
 * Reads a constraint that every row must meet:
 *
 *     constraint := 'if' any 'then' any | any
 *     any        := all ('or' all)*
 *     all        := one ('and' one)*
 *     one        := 'not' one | '(' any ')' | factor ('=' | '≠' | '!=' | '<>') value | factor ['not'] 'in' '{' value (',' value)* '}'
 *
 * Names of factors and values are written as they are, or in double quotes when they hold a sign or a word of the
 * language; a known name is always recognised, the longest first, letters' case aside when nothing fits exactly.
 */
export function readConstraint(text: string, factors: readonly Factor[]): ReadConstraint {
  if (text.trim() === '') return { kind: 'empty' };
  const reader = new Reader(text, factors);
  try {
    return { kind: 'condition', condition: reader.constraint() };
  } catch (error) {
    if (error instanceof Misread) return { kind: 'problem', problem: error.problem };
    throw error;
  }
}

/** What could follow a text: words to offer, and from where they replace what is typed. */
export interface Completion {
  readonly from: number;
  readonly words: readonly string[];
}

const WORDS_FOR: Record<Exclude<Expected, 'factor' | 'value'>, readonly string[]> = {
  comparison: ['=', '≠', 'in {'],
  set: ['{'],
  condition: ['and', 'or'],
  then: ['then', 'and', 'or'],
  closing: [')', 'and', 'or'],
  end: ['and', 'or'],
};

/** What may be typed at the end of a text. Found by reading it: where reading stops, that is expected. */
export function completeConstraint(text: string, factors: readonly Factor[]): Completion {
  const typed = /[^\s(){},=≠<>!"]*$/.exec(text)?.[0] ?? '';
  const before = text.slice(0, text.length - typed.length);
  const from = before.length;
  if (before.trim() === '') return { from, words: ['if', 'not', ...factors.map((f) => quoted(f.name))] };
  const read = readConstraint(before, factors);
  if (read.kind !== 'problem') return { from, words: WORDS_FOR.end };
  const { expected, factor, end } = read.problem;
  if (end < before.trimEnd().length) return { from, words: [] };
  if (expected === 'value') return { from, words: (factors.find((f) => f.name === factor)?.values ?? []).map((v) => quoted(v.value)) };
  if (expected === 'factor') return { from, words: [...factors.map((f) => quoted(f.name)), 'not'] };
  return { from, words: WORDS_FOR[expected] };
}

const KEYWORDS = ['if', 'then', 'and', 'or', 'not', 'in'];

/** A name as it is written in a constraint: in quotes where it could be misread. */
export function quoted(name: string): string {
  const plain = name.trim() === name && name !== '' && !/[(){},=≠<>!"]/.test(name) && !name.split(/\s+/).some((w) => KEYWORDS.includes(w.toLowerCase()));
  return plain ? name : `"${name.replaceAll('"', '""')}"`;
}

class Misread extends Error {
  readonly problem: ConstraintProblem;
  constructor(problem: ConstraintProblem) {
    super(problem.code);
    this.problem = problem;
  }
}

class Reader {
  readonly #text: string;
  readonly #factors: readonly Factor[];
  #at = 0;

  constructor(text: string, factors: readonly Factor[]) {
    this.#text = text;
    this.#factors = factors;
  }

  constraint(): Condition {
    if (!this.#word('if')) return this.#toEnd(this.#any());
    const premise = this.#any();
    if (!this.#word('then')) this.#fail('unexpected', 'then');
    return this.#toEnd({ kind: 'or', of: [{ kind: 'not', of: premise }, this.#any()] });
  }

  #toEnd(condition: Condition): Condition {
    this.#space();
    if (this.#at < this.#text.length) this.#fail('unexpected', 'end');
    return condition;
  }

  #any(): Condition {
    let condition = this.#all();
    while (this.#word('or')) condition = { kind: 'or', of: [condition, this.#all()] };
    return condition;
  }

  #all(): Condition {
    let condition = this.#one();
    while (this.#word('and')) condition = { kind: 'and', of: [condition, this.#one()] };
    return condition;
  }

  #one(): Condition {
    const factor = this.#factorHere();
    if (factor === null) {
      if (this.#word('not')) return { kind: 'not', of: this.#one() };
      if (this.#sign('(')) {
        const condition = this.#any();
        if (!this.#sign(')')) this.#fail('unexpected', 'closing');
        return condition;
      }
      this.#fail('factor_unknown', 'factor');
    }
    return this.#comparison(factor);
  }

  #comparison(factor: number): Condition {
    if (this.#sign('=')) return { kind: 'is', factor, values: [this.#value(factor)] };
    if (['≠', '!=', '<>'].some((sign) => this.#sign(sign))) return { kind: 'not', of: { kind: 'is', factor, values: [this.#value(factor)] } };
    const negated = this.#word('not');
    if (!this.#word('in')) this.#fail('unexpected', 'comparison');
    if (!this.#sign('{')) this.#fail('unexpected', 'set');
    const values = [this.#value(factor)];
    while (this.#sign(',')) values.push(this.#value(factor));
    if (!this.#sign('}')) this.#fail('unexpected', 'closing');
    const within: Condition = { kind: 'is', factor, values };
    return negated ? { kind: 'not', of: within } : within;
  }

  #factorHere(): number | null {
    const place = this.#name(this.#factors.map((f) => [f.name]));
    return place < 0 ? null : place;
  }

  #value(factor: number): number {
    const of = this.#factors[factor];
    const place = this.#name((of?.values ?? []).map((v) => [v.value, ...v.aliases]));
    if (place < 0) this.#fail('value_unknown', 'value', of?.name ?? null);
    return place;
  }

  /** The place of the longest known name that stands here; -1 when none does, and then nothing is consumed. */
  #name(known: readonly (readonly string[])[]): number {
    this.#space();
    const quote = this.#quotedHere();
    if (quote !== null) {
      const place = known.findIndex((names) => names.includes(quote.name));
      if (place >= 0) this.#at = quote.end;
      return place;
    }
    for (const fold of [(s: string) => s, (s: string) => s.toLowerCase()]) {
      const rest = fold(this.#text.slice(this.#at));
      const fitting = known.flatMap((names, place) => names.filter((n) => n !== '' && rest.startsWith(fold(n)) && this.#endsAt(this.#at + n.length)).map((n) => ({ place, length: n.length })));
      const [best] = fitting.toSorted((a, b) => b.length - a.length);
      if (best !== undefined) {
        this.#at += best.length;
        return best.place;
      }
    }
    return -1;
  }

  /** Whether a name may end here: not in the middle of a word. */
  #endsAt(place: number): boolean {
    return !/[\p{L}\p{N}_]{2}/u.test(this.#text.slice(place - 1, place + 1));
  }

  #quotedHere(): { name: string; end: number } | null {
    const match = /^"((?:[^"]|"")*)"/.exec(this.#text.slice(this.#at));
    return match === null ? null : { name: (match[1] ?? '').replaceAll('""', '"'), end: this.#at + match[0].length };
  }

  #word(word: string): boolean {
    this.#space();
    const end = this.#at + word.length;
    if (this.#text.slice(this.#at, end).toLowerCase() !== word || !this.#endsAt(end)) return false;
    this.#at = end;
    return true;
  }

  #sign(sign: string): boolean {
    this.#space();
    if (!this.#text.startsWith(sign, this.#at)) return false;
    this.#at += sign.length;
    return true;
  }

  #space(): void {
    while (/\s/.test(this.#text[this.#at] ?? '')) this.#at += 1;
  }

  #fail(code: ConstraintProblem['code'], expected: Expected, factor: string | null = null): never {
    this.#space();
    const found = this.#quotedHere()?.name ?? /^(?:[^\s(){},=≠<>!]+|.)?/u.exec(this.#text.slice(this.#at))?.[0] ?? '';
    const end = this.#quotedHere()?.end ?? this.#at + found.length;
    throw new Misread({ code: found === '' ? 'unexpected' : code, start: this.#at, end, found, expected, factor });
  }
}
