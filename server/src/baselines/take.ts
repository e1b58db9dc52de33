import { createHash } from 'node:crypto';
import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { baselineNumber, sealedLine } from '@caderno/core/baselines';
import { asJson, canonicalText } from '@caderno/core/versions';
import type { Baseline, FrozenCoverage, NewBaseline } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { lockProject, reachedBy, rowsOfIds, writeJournalEntry, type Actor } from '../artefacts/index.ts';
import { execute, idRow, inSnapshot, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { revisionOf } from '../log/index.ts';
import { DomainError } from '../domainError.ts';
import { readSettings, tellPages } from '../projects/index.ts';
import { hangingOn } from '../reviews/index.ts';
import { basisOf, readReachOfSuite } from '../suites/index.ts';
import { readBaseline } from './read.ts';

/** How often the coverage is asked for anew because somebody saved meanwhile; then the baseline is taken without. */
const MOST_TRIES = 4;

/** What the coverage of the whole project is now. */
export type AskCoverage = () => Promise<FrozenCoverage>;

/**
 * Freezes exact versions of all that is reached, with the settings and the coverage of this very moment. Nothing is held
 * while the coverage is computed: when somebody saved meanwhile it is computed again.
 */
export async function takeBaseline(db: Sequelize, actor: Actor, wanted: NewBaseline, askCoverage: AskCoverage): Promise<Baseline> {
  const isWhole = 'everything' in wanted.of;
  for (let tries = 1; ; tries += 1) {
    const revision = await inSnapshot(db, (work) => revisionOf(work, actor.projectId));
    const coverage = isWhole && tries < MOST_TRIES ? await askCoverage() : null;
    const taken = await inTransaction(db, async (work) => {
      await lockProject(work, actor.projectId);
      const now = await revisionOf(work, actor.projectId);
      return coverage !== null && now !== revision ? null : freeze(work, actor, wanted, now, coverage);
    });
    if (taken !== null) return taken;
  }
}

const madeRow = z.object({ id: z.string(), number: z.number().transform(baselineNumber) });
const earlierRow = z.object({ number: z.number().transform(baselineNumber) });

/** The same within a transaction that holds the project, with the coverage of its revision. `also`: what is frozen besides, whatever reaches it. */
export async function freeze(work: UnitOfWork, actor: Actor, { name, note, of }: NewBaseline, revision: number, coverage: FrozenCoverage | null, also: readonly ArtefactId[] = []): Promise<Baseline> {
  const [earlier] = actor.commandId === null ? [] : await selectRows(work, earlierRow, 'SELECT number FROM baseline WHERE project_id = $1 AND command_id = $2', [actor.projectId, actor.commandId]);
  if (earlier !== undefined) return readBaseline(work, actor.projectId, earlier.number);
  const found = await rowsOfPart(work, actor, of);
  if (found?.length === 0) throw new DomainError({ code: 'baseline_of_nothing' });
  const rows = found === null || also.length === 0 ? found : [...new Set([...found, ...(await rowsOfIds(work, actor.projectId, also)).rows.map((r) => r.id)])];
  const { settings } = await readSettings(work, actor.projectId);
  const [made] = await selectRows(
    work,
    madeRow,
    `INSERT INTO baseline (project_id, number, name, note, part, taken_by, at, revision, settings, coverage, seal, command_id)
     SELECT $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5, $6, $7, $8, $9, '', $10 FROM baseline WHERE project_id = $1 RETURNING id, number`,
    [actor.projectId, name, note, partWords(of), actor.personId, actor.at, revision, JSON.stringify(settings), coverage === null ? null : JSON.stringify(coverage), actor.commandId],
  );
  if (made === undefined) throw new Error('A baseline is made with its number: expected a row, got none');
  await execute(
    work,
    `INSERT INTO baseline_item (baseline_id, artefact_id, version, meaning_since, agreed_version, state, title, module, parent_id, position)
     SELECT $1, id, head, meaning_since, agreed_version, state, title, module, parent_id, position FROM artefact WHERE project_id = $2 AND deleted_at IS NULL AND ($3::bigint[] IS NULL OR id = ANY($3))`,
    [made.id, actor.projectId, rows],
  );
  await execute(work, 'UPDATE baseline SET seal = $2 WHERE id = $1', [made.id, await sealOf(work, made.id, settings)]);
  await writeJournalEntry(work, { ...actor, commandId: null }, { action: 'baseline', parts: [], detail: `B-${made.number} ${name}`, note: '' });
  await tellPages(work, actor.projectId, { event: 'frozen', data: {} });
  return readBaseline(work, actor.projectId, made.number);
}

/** The rows of a part of a project as it is now, with all that it uses; null: all of the project. */
export async function rowsOfPart(work: UnitOfWork, { projectId, at }: Pick<Actor, 'projectId' | 'at'>, of: NewBaseline['of']): Promise<string[] | null> {
  if ('everything' in of) return null;
  if ('suite' in of) return basisOf(work, (await rowsOfIds(work, projectId, await readReachOfSuite(work, projectId, of.suite, at.getTime()))).rows.map((r) => r.id));
  const rows = 'module' in of ? await rowsOfModule(work, projectId, of.module) : (await rowsOfIds(work, projectId, 'requirement' in of ? await hangingOn(work, projectId, of.requirement) : of.ids)).rows;
  return rows.length === 0 ? [] : reachedBy(work, rows.map((r) => r.id));
}

/** What is in a module and not withdrawn; conditions have none of their own: those of its requirements are. */
function rowsOfModule(work: UnitOfWork, projectId: string, module: string): Promise<{ id: string }[]> {
  return selectRows(
    work,
    idRow,
    `WITH own AS (SELECT id, kind FROM artefact WHERE project_id = $1 AND module = $2 AND deleted_at IS NULL AND state <> 'withdrawn')
     SELECT id FROM own UNION SELECT c.id FROM own JOIN link l ON l.to_id = own.id AND l.type = 'derives' JOIN artefact c ON c.id = l.from_id AND c.kind = 'condition' AND c.deleted_at IS NULL AND c.state <> 'withdrawn' WHERE own.kind = 'requirement'`,
    [projectId, module],
  );
}

function partWords(of: NewBaseline['of']): string {
  if ('everything' in of) return '';
  if ('module' in of) return of.module;
  if ('suite' in of) return of.suite;
  return 'requirement' in of ? of.requirement : of.ids.length <= 3 ? of.ids.join(', ') : `${of.ids.length} selected`;
}

const sealedRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), version: z.number(), state: z.enum(ARTEFACT_STATES), hash: z.string() });

/** SHA-256 over a line an artefact, in the order of kinds and numbers, with the hash of its canonical content; then over the settings. */
export async function sealOf(work: UnitOfWork, baseline: string, settings: object): Promise<string> {
  const rows = await selectRows(
    work,
    sealedRow,
    `SELECT a.kind, a.number, i.version, i.state, v.hash FROM baseline_item i JOIN artefact a ON a.id = i.artefact_id JOIN artefact_version v ON v.artefact_id = i.artefact_id AND v.version = i.version
     WHERE i.baseline_id = $1 ORDER BY array_position($2::text[], a.kind), a.number`,
    [baseline, ARTEFACT_KINDS],
  );
  const hash = createHash('sha256');
  for (const { kind, number, hash: content, ...item } of rows) hash.update(sealedLine({ ...item, id: artefactId(kind, number) }, content));
  return hash.update(canonicalText(asJson(settings))).digest('hex');
}

