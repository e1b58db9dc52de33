import { ARTEFACT_KINDS, artefactId, parseArtefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { parseQuery, speaksOfState, type Asking, type Sought } from '@caderno/core/find';
import type { Chosen, Summary } from '@caderno/contract';
import { prefixSearch, selectSummaries } from '../artefacts/index.ts';
import { artefactKeyRow, numberRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { ownTextSql, querySql } from './querySql.ts';
import { SOURCE_ID_BEGINS, likeText, wordsSql } from './wordsSql.ts';

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
export async function listByQuery(work: UnitOfWork, projectId: string, kind: ArtefactKind, query: string, asking: Asking, only: number | null = null): Promise<Summary[]> {
  const bind: unknown[] = [projectId, kind];
  const { root } = parseQuery(query, (await readSettings(work, projectId)).settings.fields);
  const asked = querySql(root, { kind, asking, parameter: (value) => `$${bind.push(value)}` });
  const all = ['a.project_id = $1', 'a.deleted_at IS NULL', 'a.kind = $2', asked, ...(speaksOfState(root) || kind === 'requirement' ? [] : [`a.state <> 'withdrawn'`])];
  if (only !== null) all.push(`a.number = $${bind.push(only)}`);
  return selectSummaries(work, all.join(' AND '), bind, kind === 'requirement' ? 'a.position, a.number' : 'a.module, a.number');
}

/** The ids of all artefacts of a project that are not withdrawn. */
async function listEverything(work: UnitOfWork, projectId: string): Promise<ArtefactId[]> {
  const rows = await selectRows(work, artefactKeyRow, `SELECT a.kind, a.number FROM artefact a WHERE a.project_id = $1 AND a.deleted_at IS NULL AND a.state <> 'withdrawn' ORDER BY array_position($2, a.kind), a.number`, [projectId, ARTEFACT_KINDS]);
  return rows.map((row) => artefactId(row.kind, row.number));
}

/** The ids of the artefacts of a kind that have what is sought in their contents: what a term of words finds, or one of a long text. */
export async function findByWords(work: UnitOfWork, projectId: string, kind: ArtefactKind, { words, field }: Sought): Promise<ArtefactId[]> {
  const bind: unknown[] = [projectId, kind];
  const parameter = (value: unknown): string => `$${bind.push(value)}`;
  const found = field === null ? wordsSql(words, parameter) : ownTextSql(field, words, parameter);
  const rows = await selectRows(work, numberRow, `SELECT a.number FROM artefact a WHERE a.project_id = $1 AND a.kind = $2 AND a.deleted_at IS NULL AND ${found} ORDER BY a.number`, bind);
  return rows.map((row) => artefactId(kind, row.number));
}

/** The artefacts that somebody names. */
export async function chosenIds(work: UnitOfWork, { projectId, asking }: { readonly projectId: string; readonly asking: Asking }, of: Chosen): Promise<readonly ArtefactId[]> {
  if ('ids' in of) return of.ids;
  if ('everything' in of) return listEverything(work, projectId);
  return (await listByQuery(work, projectId, of.kind, of.query, asking)).map((summary) => summary.id);
}
