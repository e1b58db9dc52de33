import { ARTEFACT_STATES, parseArtefactId, type ArtefactKind } from '../artefacts/index.ts';
import { QUESTION_STATUSES, REQUIREMENT_TYPES, RISKS } from '../basis/index.ts';
import { CASE_KINDS, EXECUTIONS } from '../cases/index.ts';
import { MODEL_KINDS, POLARITIES } from '../conditions/index.ts';
import { STANDINGS } from '../coverage/index.ts';
import { choiceOf, ownQueryName, ownFieldsOf, type OwnField } from '../fields/index.ts';
import { parseMoment, type Moment } from './moment.ts';
import { tokensOf, type Comparison, type FieldToken, type Token } from './tokens.ts';

/** What `has:` and `is:` can ask for. */
export const HAS_VALUES = ['rows', 'steps', 'expected', 'covers', 'tags', 'estimate', 'owner', 'module', 'requirement', 'dataSet', 'problems', 'agreed'] as const;
export type HasValue = (typeof HAS_VALUES)[number];
export const IS_VALUES = ['mine', 'broken', 'showing', 'newer'] as const;
export type IsValue = (typeof IS_VALUES)[number];

/** Fields that hold for a text or a member of a closed set. */
const TEXT_FIELDS = ['state', 'module', 'tag', 'priority', 'risk', 'owner', 'author', 'kind', 'execution', 'technique', 'polarity', 'type', 'status', 'standing', 'depth', 'has', 'is', 'covers', 'requirement', 'id'] as const;
export type TextField = (typeof TEXT_FIELDS)[number];
/** Fields that are compared as numbers; `coverage` in whole percent. */
const NUMBER_FIELDS = ['minutes', 'steps', 'rows', 'scenarios', 'problems', 'version', 'coverage'] as const;
export type NumberField = (typeof NUMBER_FIELDS)[number];

export const QUERY_FIELDS = [...TEXT_FIELDS, ...NUMBER_FIELDS, 'updated'] as const;
export type QueryField = (typeof QUERY_FIELDS)[number];

/** What a query asks for. `all` of nothing holds for everything. */
export type QueryNode =
  | { readonly kind: 'all' | 'any'; readonly of: readonly QueryNode[] }
  | { readonly kind: 'not'; readonly of: QueryNode }
  | { readonly kind: 'words'; readonly words: string }
  | { readonly kind: 'field'; readonly field: TextField; readonly value: string }
  | { readonly kind: 'number'; readonly field: NumberField; readonly is: Comparison; readonly than: number }
  | { readonly kind: 'updated'; readonly is: Comparison; readonly than: Moment }
  | OwnNode;

/** What is asked of a field of the project's own: anything at all, a text (of choices: one of them), a number, a day. */
export type OwnNode =
  | { readonly kind: 'own'; readonly field: OwnField; readonly asked: 'anything' }
  | { readonly kind: 'own'; readonly field: OwnField; readonly asked: 'text'; readonly text: string }
  | { readonly kind: 'own'; readonly field: OwnField; readonly asked: 'number'; readonly is: Comparison; readonly than: number }
  | { readonly kind: 'own'; readonly field: OwnField; readonly asked: 'day'; readonly is: Comparison; readonly than: Moment };

/** What of a query cannot be understood, and where it stands in the text: from `at`, `length` letters. */
export type QueryProblem = { readonly at: number; readonly length: number } & (
  | { readonly code: 'query_field_unknown'; readonly field: string }
  /** `known`: what the field can be, where that is a closed set. */
  | { readonly code: 'query_value_unknown'; readonly field: string; readonly value: string; readonly known: readonly string[] }
  | { readonly code: 'query_value_missing'; readonly field: string }
  /** Only numbers and dates are less or more. */
  | { readonly code: 'query_not_compared'; readonly field: string }
  | { readonly code: 'query_quote_open' | 'query_bracket_open' | 'query_bracket_stray' | 'query_or_alone' | 'query_too_deep' }
);

export interface Query {
  readonly root: QueryNode;
  readonly problems: readonly QueryProblem[];
}

/** Brackets within brackets; deeper ones are no query that anybody wrote. */
const MOST_DEEP = 50;

/** Fields of a closed set, and what they can be; in any case and with or without spaces. */
const CLOSED: Readonly<Partial<Record<QueryField, readonly string[]>>> = {
  state: ['any', ...ARTEFACT_STATES], risk: RISKS, kind: CASE_KINDS, execution: EXECUTIONS, technique: MODEL_KINDS,
  polarity: POLARITIES, type: REQUIREMENT_TYPES, status: QUESTION_STATUSES, standing: STANDINGS, has: HAS_VALUES, is: IS_VALUES,
};

/** Other spellings people type. */
const HAS_ALIASES: Readonly<Record<string, HasValue>> = { row: 'rows', step: 'steps', cover: 'covers', tag: 'tags', requirements: 'requirement', minutes: 'estimate', data: 'dataSet' };

/** What artefacts of a kind can be asked for; the others are absent in them. */
const OF_ALL: readonly QueryField[] = ['author', 'id', 'is', 'has', 'version', 'updated'];
const OF_KIND: Readonly<Record<ArtefactKind, readonly QueryField[]>> = {
  requirement: ['module', 'risk', 'priority', 'type', 'coverage'],
  condition: ['module', 'risk', 'technique', 'standing', 'depth', 'requirement', 'polarity', 'coverage'],
  case: ['module', 'owner', 'priority', 'tag', 'minutes', 'kind', 'execution', 'covers', 'requirement', 'steps', 'rows'],
  question: ['owner', 'status', 'requirement'],
  shared: ['module', 'tag', 'steps'],
  dataSet: ['module', 'tag', 'rows'],
  feature: ['module', 'owner', 'tag', 'requirement', 'scenarios', 'problems'],
  suite: ['module', 'owner', 'tag'],
};

/** What a query calls the fields that say something of artefacts of a kind, those of most use first. */
export function queryFieldsOf(kind: ArtefactKind, own: readonly OwnField[]): readonly (QueryField | OwnField)[] {
  return ['state', ...OF_KIND[kind], ...ownFieldsOf(own, kind), ...OF_ALL];
}

/** What `has:` and `is:` can say of a kind, besides what they say of all. */
const HAS_OF_KIND: Readonly<Record<ArtefactKind, readonly (HasValue | IsValue)[]>> = {
  requirement: ['module', 'agreed', 'newer'], condition: ['requirement', 'agreed', 'newer'], case: ['rows', 'steps', 'expected', 'covers', 'tags', 'estimate', 'owner', 'module', 'dataSet', 'mine', 'showing', 'agreed', 'newer'],
  question: ['owner', 'mine'], shared: ['steps', 'tags', 'module', 'agreed', 'newer'], dataSet: ['rows', 'tags', 'module', 'agreed', 'newer'],
  feature: ['requirement', 'tags', 'owner', 'module', 'mine', 'problems', 'agreed', 'newer'],
  suite: ['tags', 'owner', 'module', 'mine', 'agreed', 'newer'],
};

/** The members of a closed set that artefacts of a kind can have. */
export function queryValuesFor(field: QueryField, kind: ArtefactKind): readonly string[] {
  const known = CLOSED[field] ?? [];
  return field !== 'has' && field !== 'is' ? known : known.filter((value) => value === 'broken' || HAS_OF_KIND[kind].some((own) => own === value));
}

/**
 * Reads `state:draft (module:readings or minutes>10) -has:row "roll over"`: all terms must hold, `or` binds weaker, a
 * dash says not. `own`: the fields that the project has made for itself; one that is called like a field of ours is asked
 * for as `own.priority`. What cannot be understood is a problem and no term: a query that is being written asks for what can be read of it.
 */
export function parseQuery(text: string, own: readonly OwnField[]): Query {
  return new Reading(tokensOf(text), own.filter((field) => !field.removed)).query();
}

/** Reads tokens one after the other. */
class Reading {
  readonly #tokens: readonly Token[];
  readonly #own: readonly OwnField[];
  readonly #problems: QueryProblem[] = [];
  #next = 0;
  #depth = 0;

  constructor(tokens: readonly Token[], own: readonly OwnField[]) {
    this.#tokens = tokens;
    this.#own = own;
  }

  query(): Query {
    const parts: QueryNode[] = [];
    for (;;) {
      parts.push(this.#either());
      const stray = this.#tokens[this.#next];
      if (stray === undefined) break;
      // What #either left is a bracket that nobody opened.
      this.#problems.push({ code: 'query_bracket_stray', at: stray.at, length: stray.length });
      this.#next += 1;
    }
    return { root: joined('all', parts), problems: this.#problems.toSorted((a, b) => a.at - b.at) };
  }

  /** Alternatives, until the end or a closing bracket. */
  #either(): QueryNode {
    const alternatives: QueryNode[][] = [[]];
    let or: Token | null = null;
    for (;;) {
      const token = this.#tokens[this.#next];
      if (token === undefined || token.kind === 'close') break;
      if (token.kind === 'or') {
        if (alternatives.at(-1)?.length === 0) this.#alone(token);
        else alternatives.push([]);
        or = token;
        this.#next += 1;
        continue;
      }
      const node = this.#term(token);
      if (node !== null) alternatives.at(-1)?.push(node);
      or = null;
    }
    if (or !== null && alternatives.length > 1) this.#alone(or);
    // An alternative of which nothing was understood is none: it would hold for everything.
    const meant = alternatives.filter((terms) => terms.length > 0);
    return meant.length === 0 ? joined('all', []) : joined('any', meant.map((terms) => joined('all', terms)));
  }

  #alone(or: Token): void {
    if (!this.#problems.some((p) => p.at === or.at)) this.#problems.push({ code: 'query_or_alone', at: or.at, length: or.length });
  }

  #term(token: Exclude<Token, { kind: 'or' | 'close' }>): QueryNode | null {
    this.#next += 1;
    const node = token.kind === 'open' ? this.#bracket(token) : token.kind === 'words' ? this.#words(token) : this.#field(token);
    return node === null ? null : token.not ? { kind: 'not', of: node } : node;
  }

  #bracket(open: Token): QueryNode | null {
    if (this.#depth >= MOST_DEEP) {
      this.#problems.push({ code: 'query_too_deep', at: open.at, length: open.length });
      return null;
    }
    this.#depth += 1;
    const inside = this.#either();
    this.#depth -= 1;
    if (this.#tokens[this.#next] === undefined) this.#problems.push({ code: 'query_bracket_open', at: open.at, length: 1 });
    else this.#next += 1;
    return inside.kind === 'all' && inside.of.length === 0 ? null : inside;
  }

  #words(token: Extract<Token, { kind: 'words' }>): QueryNode | null {
    this.#quote(token);
    const words = token.words.trim();
    return words === '' ? null : { kind: 'words', words };
  }

  #field(token: FieldToken): QueryNode | null {
    this.#quote(token);
    const { at, length } = token;
    const meant = fieldNamed(token.field, this.#own);
    const read = meant === null ? ({ code: 'query_field_unknown', field: token.field.toLowerCase() } as const) : typeof meant === 'string' ? fieldNode(meant, token, this.#own) : ownNode(meant, token);
    if ('kind' in read) return read;
    this.#problems.push({ ...read, at, length });
    return null;
  }

  #quote(token: { readonly at: number; readonly length: number; readonly isOpen: boolean }): void {
    if (token.isOpen) this.#problems.push({ code: 'query_quote_open', at: token.at, length: token.length });
  }
}

function joined(kind: 'all' | 'any', of: readonly QueryNode[]): QueryNode {
  const [only, ...others] = of;
  return only !== undefined && others.length === 0 ? only : { kind, of };
}

/** A problem without its place. */
type Misread = QueryProblem extends infer P ? (P extends unknown ? Omit<P, 'at' | 'length'> : never) : never;

/** The field of ours that a name means, else one of the project's own; null when it is neither. */
export function fieldNamed(name: string, own: readonly OwnField[]): QueryField | OwnField | null {
  const ours = QUERY_FIELDS.find((f) => f === name.toLowerCase());
  const called = ownQueryName(name.toLowerCase().replace(/^own\./, ''));
  return ours ?? own.find((field) => ownQueryName(field.name) === called) ?? null;
}

/** What a query calls a field of the project's own. */
export function queryNameOf({ name }: OwnField): string {
  const called = ownQueryName(name);
  return /^\p{L}/u.test(called) && !QUERY_FIELDS.some((f) => f === called) ? called : `own.${called}`;
}

function ownNode(field: OwnField, { is, value }: FieldToken): OwnNode | Misread {
  if (value === '') return { code: 'query_value_missing', field: queryNameOf(field) };
  const unknown = (known: readonly string[]): Misread => ({ code: 'query_value_unknown', field: queryNameOf(field), value, known });
  switch (field.type) {
    case 'number':
      return /^-?\d{1,15}([.,]\d{1,10})?$/.test(value) ? { kind: 'own', field, asked: 'number', is, than: Number(value.replace(',', '.')) } : unknown([]);
    case 'date': {
      const than = parseMoment(value);
      return than === null ? unknown(['today', '7d', '2026-11-02']) : { kind: 'own', field, asked: 'day', is, than };
    }
    case 'choice':
    case 'choices':
    case 'yesNo': {
      if (is !== '=') return { code: 'query_not_compared', field: queryNameOf(field) };
      const known = field.type === 'yesNo' ? ['yes', 'no'] : field.choices.map((c) => c.name);
      const text = field.type === 'yesNo' ? known.find((v) => v === value.toLowerCase()) : choiceOf(field, value)?.name;
      return text === undefined ? unknown(known) : { kind: 'own', field, asked: 'text', text };
    }
    case 'text':
    case 'longText':
    case 'person':
    case 'link':
      return is === '=' ? { kind: 'own', field, asked: 'text', text: value } : { code: 'query_not_compared', field: queryNameOf(field) };
  }
}

function fieldNode(field: QueryField, { is, value }: FieldToken, own: readonly OwnField[]): QueryNode | Misread {
  if (value === '') return { code: 'query_value_missing', field };
  if (field === 'updated') {
    const than = parseMoment(value);
    return than === null ? { code: 'query_value_unknown', field, value, known: ['7d', '12h', 'today', '2026-11-02'] } : { kind: 'updated', is, than };
  }
  const number = NUMBER_FIELDS.find((f) => f === field);
  if (number !== undefined) {
    const than = numberIn(number, value);
    return than === null ? { code: 'query_value_unknown', field, value, known: [] } : { kind: 'number', field: number, is, than };
  }
  const text = TEXT_FIELDS.find((f) => f === field);
  if (text === undefined || is !== '=') return { code: 'query_not_compared', field };
  const asked = text === 'has' ? own.find((f) => ownQueryName(f.name) === ownQueryName(value.toLowerCase().replace(/^own\./, ''))) : undefined;
  return asked !== undefined && !isOurs(value) ? { kind: 'own', field: asked, asked: 'anything' } : textNode(text, value);
}

/** Whole percent: shares are compared exactly. */
function numberIn(field: NumberField, value: string): number | null {
  const pattern = field === 'coverage' ? /^\d{1,3}%?$/ : field === 'minutes' ? /^\d{1,6}([.,]\d{1,3})?$/ : /^\d{1,9}$/;
  return pattern.test(value) ? Number(value.replace('%', '').replace(',', '.')) : null;
}

/** Whether `has:` asks for something of ours by a word. */
function isOurs(word: string): boolean {
  return HAS_VALUES.some((v) => v.toLowerCase() === word.toLowerCase()) || word.toLowerCase() in HAS_ALIASES;
}

function textNode(field: TextField, value: string): QueryNode | Misread {
  const known = CLOSED[field];
  if (known !== undefined) {
    const typed = value.toLowerCase().replaceAll(/\s/g, '');
    const meant = (field === 'has' ? HAS_ALIASES[typed] : undefined) ?? known.find((v) => v.toLowerCase() === typed);
    return meant === undefined ? { code: 'query_value_unknown', field, value, known } : { kind: 'field', field, value: meant };
  }
  // What names an artefact names one of its kind.
  const id = parseArtefactId(value.toUpperCase());
  const isFit = field === 'covers' ? id?.kind === 'condition' : field === 'requirement' ? id?.kind === 'requirement' : field !== 'id' || id !== null;
  return isFit ? { kind: 'field', field, value } : { code: 'query_value_unknown', field, value, known: [] };
}
