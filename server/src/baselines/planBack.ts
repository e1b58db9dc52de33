import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { isMeant, stepsBack, type BackStep, type BaselineNumber } from '@caderno/core/baselines';
import { linksOf } from '@caderno/core/kinds';
import { BROUGHT_BACK, MOST_BROUGHT_BACK_TOLD, type BringBack, type BringBackPlan, type BroughtBack, type KindAndContent } from '@caderno/contract';
import { z } from 'zod';
import { kindAndContentOrBroken, usersOf } from '../artefacts/index.ts';
import { countRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { baselineHead } from './read.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;
/** Of those that use what is brought back, told by name. */
const MOST_USERS = 100;

const wasRow = z.object({ version: z.number(), meaningSince: z.number(), state: z.enum(ARTEFACT_STATES) });
const standingRow = z.object({
  rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), title: z.string(), version: z.number(), meaningSince: z.number(), state: z.enum(ARTEFACT_STATES), isThere: z.boolean(), was: wasRow.nullable(),
});

/** An artefact that is brought back. */
export interface Back {
  readonly rowId: string;
  readonly id: ArtefactId;
  readonly steps: readonly BackStep[];
  readonly now: z.infer<typeof standingRow>;
  /** What uses it and could not stand without it; null: it was asked for. */
  readonly alongWith: ArtefactId | null;
}

/**
 * What it takes to bring artefacts back to how a baseline holds them. What those use, or link to, comes along where it is
 * gone now; also what they call where that was withdrawn.
 */
export async function stepsOf(work: UnitOfWork, projectId: string, number: BaselineNumber, of: BringBack['of']): Promise<readonly Back[]> {
  const standings = await readStandings(work, projectId, number);
  const byId = new Map(standings.map((s) => [artefactId(s.kind, s.number), s]));
  const backs = new Map<ArtefactId, Back>();
  const bring = (id: ArtefactId, alongWith: ArtefactId | null): Back[] => {
    const now = byId.get(id);
    const steps = now === undefined ? [] : stepsBack(now.was, now);
    if (now === undefined || steps.length === 0 || backs.has(id)) return [];
    const back = { rowId: now.rowId, id, steps, now, alongWith };
    backs.set(id, back);
    return [back];
  };
  const asked = 'ids' in of ? of.ids : [...byId].flatMap(([id, { was }]) => (was !== null || of.withdraw ? [id] : []));
  for (let fresh = asked.flatMap((id) => bring(id, null)); fresh.length > 0; ) {
    const contents = await contentsOfThen(work, fresh);
    fresh = fresh.flatMap(({ rowId, id }) => {
      const value = contents.get(rowId);
      return value === undefined ? [] : linksOf(value).flatMap(({ to, type }) => (isMissing(byId.get(to), type === 'uses') ? bring(to, id) : []));
    });
  }
  return [...backs.values()];
}

/** Whether what links to it needs it brought back. */
function isMissing(target: z.infer<typeof standingRow> | undefined, isUsed: boolean): boolean {
  if (target?.was == null || target.was.state === 'withdrawn') return false;
  return !target.isThere || (isUsed && target.state === 'withdrawn');
}

/** How everything is now that a baseline holds otherwise; where it is of everything, what was added since too. */
async function readStandings(work: UnitOfWork, projectId: string, number: BaselineNumber): Promise<z.infer<typeof standingRow>[]> {
  const { id, part } = await baselineHead(work, projectId, number);
  return selectRows(
    work,
    standingRow,
    `SELECT a.id AS "rowId", a.kind, a.number, a.title, a.head AS version, a.meaning_since AS "meaningSince", a.state, a.deleted_at IS NULL AS "isThere",
       CASE WHEN i.artefact_id IS NULL THEN NULL ELSE json_build_object('version', i.version, 'meaningSince', i.meaning_since, 'state', i.state) END AS was
     FROM artefact a LEFT JOIN baseline_item i ON i.artefact_id = a.id AND i.baseline_id = $2 WHERE a.project_id = $1 AND (i.artefact_id IS NOT NULL OR $3)
       AND (i.version IS DISTINCT FROM a.head OR i.state IS DISTINCT FROM a.state OR a.deleted_at IS NOT NULL)
     ORDER BY array_position($4::text[], a.kind), a.number`,
    [projectId, id, part === '', ARTEFACT_KINDS],
  );
}

const contentRow = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), schema: z.number(), content: z.unknown() });

/** The contents that artefacts had, by row; of those that are withdrawn none is needed, and one that cannot be read is not among them. */
export async function contentsOfThen(work: UnitOfWork, backs: readonly Pick<Back, 'rowId' | 'now' | 'steps'>[]): Promise<Map<string, KindAndContent>> {
  const wanted = backs.flatMap(({ rowId, now, steps }) => (now.was === null || steps.includes('withdraw') ? [] : [{ id: rowId, version: now.was.version }]));
  const contents = new Map<string, KindAndContent>();
  for (let from = 0; from < wanted.length; from += AT_A_TIME) {
    const rows = await selectRows(
      work,
      contentRow,
      `SELECT a.id, a.kind, v.schema, v.content FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, version int) JOIN artefact a ON a.id = r.id JOIN artefact_version v ON v.artefact_id = a.id AND v.version = r.version`,
      [JSON.stringify(wanted.slice(from, from + AT_A_TIME))],
    );
    for (const { id, kind, schema, content } of rows) {
      const value = kindAndContentOrBroken(kind, schema, content);
      if (value !== null) contents.set(id, value);
    }
  }
  return contents;
}

/** What bringing back would change, in numbers and the first by name. Nothing is changed. */
export async function planBringBack(work: UnitOfWork, projectId: string, number: BaselineNumber, { of }: BringBack): Promise<BringBackPlan> {
  const backs = await stepsOf(work, projectId, number, of);
  const counts = Object.fromEntries(BROUGHT_BACK.map((does) => [does, backs.filter((b) => doesOf(b) === does).length])) as BringBackPlan['counts'];
  const rowIds = backs.map((b) => b.rowId);
  const users = await usersOf(work, backs.filter((b) => b.steps.includes('content')).map((b) => b.rowId));
  const brought = new Set(backs.map((b) => b.id));
  return {
    lines: backs.slice(0, MOST_BROUGHT_BACK_TOLD).map((back) => ({ id: back.id, title: back.now.title, does: doesOf(back), alongWith: back.alongWith })),
    counts,
    agreed: backs.filter(losesAgreement).length,
    drafts: await draftsIn(work, rowIds),
    users: users.filter((id) => !brought.has(id)).slice(0, MOST_USERS),
  };
}

function doesOf({ steps }: Back): BroughtBack {
  if (steps.includes('withdraw')) return 'withdraw';
  return steps.includes('remake') || steps.includes('return') ? 'return' : 'content';
}

/** Agreed now, and afterwards not. */
function losesAgreement({ now, steps }: Back): boolean {
  if (now.state !== 'agreed' || !now.isThere) return false;
  return steps.includes('withdraw') || (steps.includes('content') && now.was !== null && isMeant(now.was, now));
}

/** Those of them that somebody is writing in. */
async function draftsIn(work: UnitOfWork, rowIds: readonly string[]): Promise<number> {
  const [row] = await selectRows(work, countRow, 'SELECT count(DISTINCT artefact_id)::int AS count FROM draft WHERE artefact_id = ANY($1)', [rowIds]);
  return row?.count ?? 0;
}
