import { artefactId, parseArtefactId, type ArtefactId, type ArtefactKind } from '../artefacts/index.ts';
import type { HasValue, Query, QueryField, QueryTerm } from './query.ts';

/** What of an artefact a query's fields are held against: what lists show of it. A field that its kind does not have is absent. */
export interface Findable {
  readonly kind: ArtefactKind;
  readonly id: ArtefactId;
  readonly state: string;
  readonly module: string;
  readonly owner?: string;
  readonly tags?: readonly string[];
  readonly priority?: string;
  readonly risk?: string;
  readonly caseKind?: string;
  readonly execution?: string;
  readonly steps?: number;
  readonly rows?: number;
  /** Steps that expect something. */
  readonly expected?: number;
  readonly estimate?: number | null;
  readonly covers?: readonly ArtefactId[];
  readonly about?: readonly ArtefactId[];
  readonly requirements?: readonly ArtefactId[];
}

/** The artefacts of a kind that have words in any of their texts; those are not in what lists show. Null: not known yet. */
export type FoundByWords = (words: string) => ReadonlySet<ArtefactId> | null;

/**
 * Whether an artefact is in the list that a query asks for. Withdrawn ones are only when the query speaks of states;
 * requirements always. The server's SQL means the same (held against it in a test).
 */
export function matchesQuery({ terms }: Pick<Query, 'terms'>, artefact: Findable, foundByWords: FoundByWords): boolean {
  const speaksOfState = terms.some((t) => t.kind === 'field' && t.field === 'state');
  if (artefact.state === 'withdrawn' && !speaksOfState && artefact.kind !== 'requirement') return false;
  return terms.every((term) => holds(term, artefact, foundByWords) !== term.not);
}

/** The words that only a look into the contents can find; asked for before {@link matchesQuery} can answer. */
export function wordsToFind({ terms }: Pick<Query, 'terms'>): string[] {
  return [...new Set(terms.flatMap((t) => (t.kind === 'words' && parseArtefactId(t.words.toUpperCase()) === null ? [t.words] : [])))];
}

function holds(term: QueryTerm, artefact: Findable, foundByWords: FoundByWords): boolean {
  if (term.kind === 'field') return FIELD[term.field](artefact, term.value);
  const id = parseArtefactId(term.words.toUpperCase());
  if (id === null) return foundByWords(term.words)?.has(artefact.id) ?? false;
  const written = artefactId(id.kind, id.number);
  return id.kind === artefact.kind ? written === artefact.id : [artefact.covers, artefact.about, artefact.requirements].some((links) => links?.some((link) => link === written));
}

const same = (a: string | undefined, b: string): boolean => a !== undefined && a.toLowerCase() === b.toLowerCase();
const within = (text: string | undefined, part: string): boolean => text !== undefined && text.toLowerCase().includes(part.toLowerCase());
const compact = (text: string): string => text.replaceAll(/\s/g, '');

const FIELD: Record<QueryField, (artefact: Findable, value: string) => boolean> = {
  state: (a, value) => value === 'any' || same(a.state, compact(value)),
  module: (a, value) => within(a.module, value),
  owner: (a, value) => within(a.owner ?? '', value),
  tag: (a, value) => (a.tags ?? []).some((tag) => same(tag, value)),
  priority: (a, value) => same(a.priority, value),
  risk: (a, value) => same(a.risk, value),
  covers: (a, value) => (a.covers ?? []).some((id) => same(id, value)),
  id: (a, value) => same(a.id, value),
  kind: (a, value) => same(a.caseKind, value),
  execution: (a, value) => same(a.execution, compact(value)),
  has: (a, value) => HAS[value as HasValue](a),
};

const HAS: Record<HasValue, (artefact: Findable) => boolean> = {
  rows: (a) => (a.rows ?? 0) > 0,
  steps: (a) => (a.steps ?? 0) > 0,
  expected: (a) => (a.expected ?? 0) > 0,
  covers: (a) => (a.covers ?? []).length > 0,
  tags: (a) => (a.tags ?? []).length > 0,
  estimate: (a) => a.estimate != null,
};
