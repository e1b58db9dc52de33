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
  | { readonly code: 'query_value_unknown'; readonly field: QueryField; readonly value: string; readonly at: number };

export interface Query {
  readonly terms: readonly QueryTerm[];
  readonly problems: readonly QueryProblem[];
}

const TERM = /(-?)(?:([\p{L}]+):)?(?:"([^"]*)"|(\S+))/gu;

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
  if (field !== 'has') return { kind: 'field', field, value, not };
  const has = HAS_ALIASES[value.toLowerCase()] ?? HAS_VALUES.find((v) => v === value.toLowerCase());
  return has === undefined ? { code: 'query_value_unknown', field, value, at } : { kind: 'field', field, value: has, not };
}
