import { artefactId, parseArtefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { parseQuery, type HasValue, type QueryField, type QueryTerm } from '@caderno/core/find';
import type { Summary } from '@caderno/contract';
import { prefixSearch, selectSummaries } from '../artefacts/index.ts';
import { numberRow, selectRows, type UnitOfWork } from '../database/index.ts';

const MOST_FOUND = 30;

/** Artefacts of any kind by id or words, best first. */
export async function find(work: UnitOfWork, projectId: string, words: string): Promise<Summary[]> {
  const id = parseArtefactId(words.trim().toUpperCase());
  if (id !== null) return selectSummaries(work, 'a.project_id = $1 AND a.deleted_at IS NULL AND a.kind = $2 AND a.number = $3', [projectId, id.kind, id.number], 'a.number');
  const search = prefixSearch(words);
  if (search === null) return [];
  return selectSummaries(
    work,
    `a.project_id = $1 AND a.deleted_at IS NULL AND (a.search @@ to_tsquery('simple', $2) OR (${SOURCE_ID_BEGINS}($3)))`,
    [projectId, search, `${likeText(words.trim())}%`],
    `lower(coalesce(a.facts->>'origin', '')) = lower(rtrim($3, '%')) DESC, a.state = 'withdrawn', ts_rank(a.search, to_tsquery('simple', $2)) DESC, a.kind, a.number LIMIT ${MOST_FOUND}`,
  );
}

/**
 * The artefacts of a kind that match a query. Withdrawn ones only when the query speaks of states. Terms that
 * cannot be understood are left out; the screen says so from the same parser.
 */
export async function listByQuery(work: UnitOfWork, projectId: string, kind: ArtefactKind, query: string): Promise<Summary[]> {
  const bind: unknown[] = [projectId, kind];
  const parameter = (value: unknown): string => `$${bind.push(value)}`;
  const { terms } = parseQuery(query);
  const conditions = terms.map((term) => (term.not ? `NOT coalesce(${termSql(term, kind, parameter)}, false)` : termSql(term, kind, parameter)));
  const speaksOfState = terms.some((t) => t.kind === 'field' && t.field === 'state');
  const all = ['a.project_id = $1', 'a.deleted_at IS NULL', 'a.kind = $2', ...conditions, ...(speaksOfState || kind === 'requirement' ? [] : [`a.state <> 'withdrawn'`])];
  return selectSummaries(work, all.join(' AND '), bind, kind === 'requirement' ? 'a.position, a.number' : 'a.module, a.number');
}

/** The id that the source of a requirement gives it begins with … */
const SOURCE_ID_BEGINS = `a.kind = 'requirement' AND lower(a.facts->>'origin') LIKE lower`;

type Bind = (value: unknown) => string;

/** The ids of the artefacts of a kind that have words in any of their texts: what a term of words finds. */
export async function findByWords(work: UnitOfWork, projectId: string, kind: ArtefactKind, words: string): Promise<ArtefactId[]> {
  const bind: unknown[] = [projectId, kind];
  const found = wordsSql(words, (value) => `$${bind.push(value)}`);
  const rows = await selectRows(work, numberRow, `SELECT a.number FROM artefact a WHERE a.project_id = $1 AND a.kind = $2 AND a.deleted_at IS NULL AND ${found} ORDER BY a.number`, bind);
  return rows.map((row) => artefactId(kind, row.number));
}

function wordsSql(words: string, parameter: Bind): string {
  const search = prefixSearch(words);
  return search === null ? 'true' : `(a.search @@ to_tsquery('simple', ${parameter(search)}) OR (${SOURCE_ID_BEGINS}(${parameter(`${likeText(words)}%`)})))`;
}

function termSql(term: QueryTerm, kind: ArtefactKind, parameter: Bind): string {
  if (term.kind === 'field') return FIELD_SQL[term.field](term.value, parameter);
  const id = parseArtefactId(term.words.toUpperCase());
  if (id !== null) return id.kind === kind ? `a.number = ${parameter(id.number)}` : linksToSql(parameter(term.words.toUpperCase()));
  return wordsSql(term.words, parameter);
}

/** Whether an artefact links to another: the conditions a case covers, the requirements a condition hangs on. */
function linksToSql(id: string): string {
  return `(jsonb_exists(coalesce(a.facts->'covers', '[]'), ${id}) OR jsonb_exists(coalesce(a.facts->'about', '[]'), ${id}) OR jsonb_exists(coalesce(a.facts->'requirements', '[]'), ${id}))`;
}

const FIELD_SQL: Record<QueryField, (value: string, parameter: Bind) => string> = {
  state: (value, parameter) => (value === 'any' ? 'true' : `lower(a.state) = lower(${parameter(value.replaceAll(/\s/g, ''))})`),
  module: (value, parameter) => `a.module ILIKE ${parameter(`%${likeText(value)}%`)}`,
  owner: (value, parameter) => `a.owner ILIKE ${parameter(`%${likeText(value)}%`)}`,
  tag: (value, parameter) => `EXISTS (SELECT 1 FROM unnest(a.tags) tag WHERE lower(tag) = lower(${parameter(value)}))`,
  priority: (value, parameter) => `a.priority = lower(${parameter(value)})`,
  risk: (value, parameter) => `a.risk = lower(${parameter(value)})`,
  covers: (value, parameter) => `jsonb_exists(a.facts->'covers', upper(${parameter(value)}))`,
  id: (value, parameter) => `a.number = ${parameter(parseArtefactId(value.toUpperCase())?.number ?? 0)} AND a.kind = ${parameter(parseArtefactId(value.toUpperCase())?.kind ?? '')}`,
  kind: (value, parameter) => `lower(a.facts->>'kind') = lower(${parameter(value)})`,
  execution: (value, parameter) => `lower(a.facts->>'execution') = lower(${parameter(value.replaceAll(/\s/g, ''))})`,
  has: (value) => HAS_SQL[value as HasValue],
};

const HAS_SQL: Record<HasValue, string> = {
  rows: `(a.facts->>'rows')::int > 0`,
  steps: `(a.facts->>'steps')::int > 0`,
  expected: `(a.facts->>'expected')::int > 0`,
  covers: `jsonb_array_length(a.facts->'covers') > 0`,
  tags: `cardinality(a.tags) > 0`,
  estimate: `a.facts->>'estimate' IS NOT NULL`,
};

function likeText(text: string): string {
  return text.replaceAll(/[\\%_]/g, String.raw`\$&`);
}
