import { randomUUID } from 'node:crypto';
import type { RiskScale } from '@caderno/core/basis';
import type { BaselineNumber } from '@caderno/core/baselines';
import { asJson, sameJson } from '@caderno/core/versions';
import { momentKey, type ProjectRef } from '@caderno/contract';
import { z } from 'zod';
import { deriveAnew, readHeads } from '../artefacts/index.ts';
import { execute, idRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { baselineHead } from './read.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;
/** How long one that nobody opens is kept; it is made again when it is wanted. */
const KEPT_DAYS = 7;

const parentRow = z.object({ key: z.string(), name: z.string(), made: z.boolean() });

/**
 * Opens the whole project as a baseline holds it: a project of its own beside it, which all chapters read like any other
 * and nobody changes. It is made of the versions that the baseline holds when somebody first opens it.
 */
export async function openMoment(work: UnitOfWork, projectId: string, number: BaselineNumber): Promise<ProjectRef> {
  const { id: rowId, revision } = await baselineHead(work, projectId, number);
  const [parent] = await selectRows(work, parentRow, `SELECT p.key, p.name, EXISTS (SELECT 1 FROM project m WHERE m.key = p.key || '@B-' || $2::int) AS made FROM project p WHERE p.id = $1`, [projectId, number]);
  if (parent === undefined) throw new Error(`A baseline belongs to a project: expected one, got none with ${projectId}`);
  const key = momentKey(parent.key, number);
  const opened: ProjectRef = { key, name: parent.name, role: 'reader' };
  if (parent.made) await execute(work, 'UPDATE project SET seen_at = now() WHERE key = $1', [key]);
  else await makeMoment(work, { key, parent: projectId, baseline: rowId, revision });
  return opened;
}

/** Whether opening it would take long, as it is not made yet. */
export async function isMomentToBeMade(work: UnitOfWork, projectId: string, number: string): Promise<boolean> {
  return (await selectRows(work, idRow, `SELECT m.id FROM project p JOIN project m ON m.key = p.key || '@B-' || $2 WHERE p.id = $1`, [projectId, number])).length === 0;
}

/** Removes those that nobody opened for long. */
export async function sweepMoments(work: UnitOfWork): Promise<void> {
  await execute(work, `DELETE FROM project WHERE moment_of IS NOT NULL AND seen_at < now() - interval '${KEPT_DAYS} days'`);
}

interface Making {
  readonly key: string;
  readonly parent: string;
  readonly baseline: string;
  readonly revision: number;
}

/** Whoever makes the same at once waits for the first, and finds it made. */
async function makeMoment(work: UnitOfWork, { key, parent, baseline, revision }: Making): Promise<void> {
  const [made] = await selectRows(
    work,
    idRow,
    `INSERT INTO project (id, key, name, revision, settings, settings_version, demo, moment_of, seen_at)
     SELECT $1, $2, p.name, $5, b.settings, 1, p.demo, p.id, now() FROM project p JOIN baseline b ON b.project_id = p.id WHERE p.id = $3 AND b.id = $4
     ON CONFLICT (key) DO NOTHING RETURNING id`,
    [randomUUID(), key, parent, baseline, revision],
  );
  if (made === undefined) return;
  const moment = made.id;
  await execute(work, 'INSERT INTO attachment (project_id, id, type, kept_at, size) SELECT $1, id, type, kept_at, size FROM attachment WHERE project_id = $2', [moment, parent]);
  const [then, now] = [await readSettings(work, moment), await readSettings(work, parent)];
  const isRatedTheSame = sameJson(asJson(then.settings.riskScale), asJson(now.settings.riskScale));
  const others = await selectRows(work, idRow, COPY, [moment, baseline, isRatedTheSame]);
  await deriveAll(work, moment, then.settings.riskScale, others);
}

/**
 * Copies what a baseline ($2) holds into a moment ($1), with all versions up to those of then. What is held as it is now,
 * where risks are told as now ($3), keeps what was derived from it; of the others it answers which they are. One statement,
 * as nothing is known yet of how many rows the moment has that later ones would be planned by.
 */
const COPY = `
  WITH held AS MATERIALIZED (
    SELECT nextval(pg_get_serial_sequence('artefact', 'id')) AS id, i.artefact_id AS old, i.version, i.meaning_since, i.agreed_version, i.state, i.title, i.module, i.parent_id, i.position, i.version = a.head AND $3 AS same
    FROM baseline_item i JOIN artefact a ON a.id = i.artefact_id WHERE i.baseline_id = $2),
  artefacts AS (
    INSERT INTO artefact (id, project_id, kind, number, parent_id, position, head, meaning_since, agreed_version, state, title, module, risk, priority, owner, tags, own, facts, search, author_id, updated_at)
    SELECT held.id, $1, a.kind, a.number, above.id, held.position, held.version, held.meaning_since, held.agreed_version, held.state, held.title, held.module, a.risk, a.priority, a.owner, a.tags, a.own, a.facts, a.search, v.author_id, v.at
    FROM held JOIN artefact a ON a.id = held.old JOIN artefact_version v ON v.artefact_id = held.old AND v.version = held.version LEFT JOIN held above ON above.old = held.parent_id),
  versions AS (
    INSERT INTO artefact_version (artefact_id, version, content, schema, hash, author_id, at, note, change_id)
    SELECT held.id, v.version, v.content, v.schema, v.hash, v.author_id, v.at, v.note, v.change_id FROM held JOIN artefact_version v ON v.artefact_id = held.old AND v.version <= held.version),
  links AS (
    INSERT INTO link (from_id, to_id, type, seen_version, pinned)
    SELECT held.id, target.id, l.type, l.seen_version, l.pinned FROM held JOIN link l ON l.from_id = held.old JOIN held target ON target.old = l.to_id WHERE held.same)
  SELECT id FROM held WHERE NOT same ORDER BY id`;

/** Derives from the contents of then. */
async function deriveAll(work: UnitOfWork, moment: string, riskScale: RiskScale, rows: readonly { readonly id: string }[]): Promise<void> {
  for (let from = 0; from < rows.length; from += AT_A_TIME) {
    const heads = await readHeads(work, rows.slice(from, from + AT_A_TIME));
    await deriveAnew(work, moment, riskScale, [...heads].map(([rowId, value]) => ({ rowId, value })));
  }
}
