import { ARTEFACT_STATES, PRIORITIES, parseArtefactId } from '../artefacts/index.ts';
import { RISKS } from '../basis/index.ts';
import { CASE_KINDS, EXECUTIONS } from '../cases/index.ts';

/** One term of a query; all terms must hold. */
export type QueryTerm =
  | { readonly kind: 'field'; readonly field: QueryField; readonly value: string; readonly not: boolean }
  | { readonly kind: 'words'; readonly words: string; readonly not: boolean };

export const QUERY_FIELDS = ['state', 'module', 'tag', 'priority', 'risk', 'owner', 'kind', 'execution', 'has', 'covers', 'id'] as const;
export type QueryField = (typeof QUERY_FIELDS)[number];

/** What `has:` can ask for. */
export const HAS_VALUES = ['rows', 'steps', 'expected', 'covers', 'tags', 'estimate'] as const;
export type HasValue = (typeof HAS_VALUES)[number];

export type QueryProblem =
  | { readonly code: 'query_field_unknown'; readonly field: string; readonly at: number }
  /** `known`: what the field can be, where that is a closed set. */
  | { readonly code: 'query_value_unknown'; readonly field: QueryField; readonly value: string; readonly known: readonly string[]; readonly at: number };

export interface Query {
  readonly terms: readonly QueryTerm[];
  readonly problems: readonly QueryProblem[];
}

const TERM = /(-?)(?:([\p{L}]+):)?(?:"([^"]*)"|(\S+))/gu;

/** Fields of a closed set, and what they can be; in any case and with or without spaces. */
const CLOSED: Readonly<Partial<Record<QueryField, readonly string[]>>> = { state: ['any', ...ARTEFACT_STATES], priority: PRIORITIES, risk: RISKS, execution: EXECUTIONS, kind: CASE_KINDS, has: HAS_VALUES };

/** Singular spellings people type. */
const HAS_ALIASES: Readonly<Record<string, HasValue>> = { row: 'rows', step: 'steps', cover: 'covers', tag: 'tags' };

/** Reads `state:draft module:readings -has:row "roll over"`. What cannot be understood is a problem and no term. */
export function parseQuery(text: string): Query {
  const terms: QueryTerm[] = [];
  const problems: QueryProblem[] = [];
  for (const match of text.matchAll(TERM)) {
    const [, dash, field, quoted, bare] = match;
    const value = quoted ?? bare ?? '';
    const term = field === undefined ? wordsTerm(value, dash === '-') : fieldTerm(field.toLowerCase(), value, dash === '-', match.index);
    if (term === null) continue;
    if ('code' in term) problems.push(term);
    else terms.push(term);
  }
  return { terms, problems };
}

function wordsTerm(words: string, not: boolean): QueryTerm | null {
  return words.trim() === '' ? null : { kind: 'words', words: words.trim(), not };
}

function fieldTerm(name: string, value: string, not: boolean, at: number): QueryTerm | QueryProblem {
  const field = QUERY_FIELDS.find((f) => f === name);
  if (field === undefined) return { code: 'query_field_unknown', field: name, at };
  const known = CLOSED[field];
  if (known !== undefined) {
    const typed = value.toLowerCase().replaceAll(/\s/g, '');
    const meant = (field === 'has' ? HAS_ALIASES[typed] : undefined) ?? known.find((v) => v.toLowerCase() === typed);
    return meant === undefined ? { code: 'query_value_unknown', field, value, known, at } : { kind: 'field', field, value: meant, not };
  }
  // What names an artefact names one of its kind.
  const isId = field === 'covers' ? parseArtefactId(value.toUpperCase())?.kind === 'condition' : field !== 'id' || parseArtefactId(value.toUpperCase()) !== null;
  return isId ? { kind: 'field', field, value, not } : { code: 'query_value_unknown', field, value, known: [], at };
}
