import { TRACE_TYPES } from '@caderno/core/artefacts';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { revisionOf } from '../log/index.ts';
import { MOST_SINGLE, followersSql } from './follow.ts';
import { tellReached } from './put.ts';

/** Entries of the journal gone through by one transaction. */
const AT_A_TIME = 200;

const lockRow = z.object({ ours: z.boolean() });
const stateRow = z.object({ revision: z.number() });
const personRow = z.object({ person: z.string() });

/**
 * Brings what the journal of a project says to those who want to know: what they follow changed, a question was asked of
 * them, a link of theirs turned suspect, their import ended. Any server may; one at a time does, and nothing is told twice.
 */
export async function deliver(db: Sequelize, projectId: string): Promise<void> {
  while (await inTransaction(db, (work) => deliverSome(work, projectId)));
}

/** The same within a transaction. */
export async function deliverIn(work: UnitOfWork, projectId: string): Promise<void> {
  let more = true;
  while (more) more = await deliverSome(work, projectId);
}

/** Answers whether there is more. */
async function deliverSome(work: UnitOfWork, projectId: string): Promise<boolean> {
  const [lock] = await selectRows(work, lockRow, `SELECT pg_try_advisory_xact_lock(hashtextextended('caderno inbox ' || $1, 0)) AS ours`, [projectId]);
  // Whoever has it goes on to what is there now.
  if (lock?.ours !== true) return false;
  const [state] = await selectRows(work, stateRow, 'SELECT revision FROM inbox_state WHERE project_id = $1', [projectId]);
  const from = state?.revision ?? 0;
  const now = await revisionOf(work, projectId);
  const to = Math.min(now, from + AT_A_TIME);
  if (to <= from) return false;
  const span = [projectId, from, to];
  const reached: string[] = [];
  for (const sql of [CHANGED, CHANGED_MANY, ASKED, SUSPECT, IMPORTED]) reached.push(...(await selectRows(work, personRow, sql, span)).map((r) => r.person));
  await execute(work, 'INSERT INTO inbox_state (project_id, revision) VALUES ($1, $2) ON CONFLICT (project_id) DO UPDATE SET revision = EXCLUDED.revision', [projectId, to]);
  await tellReached(work, projectId, reached);
  return to < now;
}

/** Entries of the journal of a project (parameter 1) after a revision (2) up to another (3). */
const CHANGES = 'change c WHERE c.project_id = $1 AND c.revision > $2 AND c.revision <= $3';

/** Who sees all of the project and wants to hear of such. */
const wants = (person: string, reason: string): string =>
  `EXISTS (SELECT 1 FROM member m WHERE m.project_id = $1 AND m.sees IS NULL AND m.person_id = ${person}) AND NOT EXISTS (SELECT 1 FROM inbox_silence s WHERE s.project_id = $1 AND s.person_id = ${person} AND s.reason = '${reason}')`;

/** Another version of what was there, or another state; who is asked to agree is told so by itself. */
const PARTS = `
  SELECT p.artefact_id, c.author_id, c.at, c.revision, c.size, c.id AS change_id, c.detail, p.from_version, p.to_version, CASE WHEN p.undo->>'kind' = 'state' THEN p.undo->>'to' END AS state
  FROM (SELECT * FROM ${CHANGES}) c JOIN change_part p ON p.change_id = c.id WHERE p.artefact_id IS NOT NULL AND (p.from_version IS NOT NULL OR (p.undo->>'kind' = 'state' AND p.undo->>'to' <> 'inReview'))`;

/** What was not read yet is told as one, of the latest moment. */
const ONCE = `ON CONFLICT (person_id, artefact_id, reason) WHERE read_at IS NULL AND reason IN ('changed', 'suspect')`;

const CHANGED = `
  WITH parts AS (SELECT * FROM (${PARTS}) all_parts WHERE size <= ${MOST_SINGLE})
  INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, artefact_id, from_version, to_version, state)
  SELECT $1, f.person_id, 'changed', (array_agg(p.author_id ORDER BY p.revision DESC))[1], max(p.at), p.artefact_id, min(p.from_version), max(p.to_version), (array_agg(p.state ORDER BY p.revision DESC) FILTER (WHERE p.state IS NOT NULL))[1]
  FROM (${followersSql('SELECT artefact_id FROM parts', '$1')}) f JOIN parts p ON p.artefact_id = f.artefact_id AND p.author_id <> f.person_id
  WHERE ${wants('f.person_id', 'changed')} GROUP BY f.person_id, p.artefact_id
  ${ONCE} DO UPDATE SET by_id = EXCLUDED.by_id, at = EXCLUDED.at, from_version = coalesce(inbox_entry.from_version, EXCLUDED.from_version), to_version = coalesce(EXCLUDED.to_version, inbox_entry.to_version), state = coalesce(EXCLUDED.state, inbox_entry.state)
  RETURNING person_id AS person`;

const CHANGED_MANY = `
  WITH parts AS (SELECT * FROM (${PARTS}) all_parts WHERE size > ${MOST_SINGLE})
  INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, count, detail)
  SELECT $1, f.person_id, 'changedMany', p.author_id, p.at, count(DISTINCT p.artefact_id), p.detail
  FROM (${followersSql('SELECT artefact_id FROM parts', '$1')}) f JOIN parts p ON p.artefact_id = f.artefact_id AND p.author_id <> f.person_id
  WHERE ${wants('f.person_id', 'changedMany')} GROUP BY f.person_id, p.change_id, p.author_id, p.at, p.detail
  RETURNING person_id AS person`;

/** A question that asked nobody, or somebody else, before. */
const ASKED = `
  INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, artefact_id)
  SELECT DISTINCT ON (person.id, a.id) $1::uuid, person.id, 'asked', c.author_id, c.at, a.id
  FROM (SELECT * FROM ${CHANGES}) c JOIN change_part p ON p.change_id = c.id AND p.to_version IS NOT NULL JOIN artefact a ON a.id = p.artefact_id AND a.kind = 'question' AND a.deleted_at IS NULL AND a.facts->>'status' = 'open'
  JOIN artefact_version v ON v.artefact_id = a.id AND v.version = p.to_version LEFT JOIN artefact_version b ON b.artefact_id = a.id AND b.version = p.from_version
  JOIN person ON person.name = a.owner AND person.id <> c.author_id
  WHERE v.content->>'asked' = a.owner AND b.content->>'asked' IS DISTINCT FROM a.owner AND ${wants('person.id', 'asked')} ORDER BY person.id, a.id, c.revision DESC
  RETURNING person_id AS person`;

/** What means something else now, so that a link of what somebody owns is suspect. */
const SUSPECT = `
  INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, artefact_id, because_id)
  SELECT DISTINCT ON (person.id, s.id) $1::uuid, person.id, 'suspect', c.author_id, c.at, s.id, t.id
  FROM (SELECT * FROM ${CHANGES}) c JOIN change_part p ON p.change_id = c.id JOIN artefact t ON t.id = p.artefact_id AND t.meaning_since = p.to_version AND p.from_version IS NOT NULL AND t.deleted_at IS NULL AND t.state <> 'withdrawn'
  JOIN link l ON l.to_id = t.id AND l.type IN (${TRACE_TYPES.map((type) => `'${type}'`).join(', ')}) AND l.seen_version < t.meaning_since
  JOIN artefact s ON s.id = l.from_id AND s.owner <> '' AND s.deleted_at IS NULL AND s.state <> 'withdrawn' JOIN person ON person.name = s.owner AND person.id <> c.author_id
  WHERE ${wants('person.id', 'suspect')} ORDER BY person.id, s.id, c.revision DESC
  ${ONCE} DO UPDATE SET by_id = EXCLUDED.by_id, at = EXCLUDED.at, because_id = EXCLUDED.because_id
  RETURNING person_id AS person`;

/** Tells whoever imported: it may have taken a while. */
const IMPORTED = `
  INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, count, detail)
  SELECT $1, c.author_id, 'imported', c.author_id, c.at, c.size, c.detail FROM ${CHANGES} AND c.action = 'import' AND ${wants('c.author_id', 'imported')}
  RETURNING person_id AS person`;
