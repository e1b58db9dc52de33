import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId, parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { baselineNumber, byId, compareFrozen, type BaselineNumber, type Frozen, type FrozenChange } from '@caderno/core/baselines';
import { MOST_FROZEN_CHANGES, baselineSchema, type Baseline, type FrozenChanges, type ResponseOf } from '@caderno/contract';
import { z } from 'zod';
import { readContent } from '../artefacts/index.ts';
import { modelsOf, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readReached } from './reached.ts';
import { settingsBetween } from './settingsBetween.ts';

const time = z.date().transform((date) => date.toISOString());
const headRow = z.object({ id: z.string(), number: z.number().transform(baselineNumber), name: z.string(), note: z.string(), by: z.string(), at: time, part: z.string(), revision: z.number(), seal: z.string(), coverage: baselineSchema.shape.coverage });
const countRow = z.object({ baseline: z.string(), kind: z.enum(ARTEFACT_KINDS), count: z.number(), agreed: z.number() });
const heldRow = z.object({ rowId: z.string(), version: z.number() });
const frozenRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), version: z.number(), meaningSince: z.number(), state: z.enum(ARTEFACT_STATES), title: z.string(), module: z.string() });

/** The baselines of a project, the latest first. */
export async function listBaselines(work: UnitOfWork, projectId: string): Promise<Baseline[]> {
  return stored(work, projectId, null);
}

/** @throws {DomainError} when the project has none of this number. */
export async function readBaseline(work: UnitOfWork, projectId: string, number: BaselineNumber): Promise<Baseline> {
  const [found] = await stored(work, projectId, number);
  if (found === undefined) throw new DomainError({ code: 'baseline_unknown' });
  return found;
}

async function stored(work: UnitOfWork, projectId: string, number: BaselineNumber | null): Promise<Baseline[]> {
  const heads = await selectRows(
    work,
    headRow,
    `SELECT b.id, b.number, b.name, b.note, p.name AS by, b.at, b.part, b.revision, b.seal, b.coverage FROM baseline b JOIN person p ON p.id = b.taken_by
     WHERE b.project_id = $1 AND ($2::int IS NULL OR b.number = $2) ORDER BY b.number DESC`,
    [projectId, number],
  );
  const counted = await selectRows(
    work,
    countRow,
    `SELECT i.baseline_id AS baseline, a.kind, count(*)::int AS count, (count(*) FILTER (WHERE i.state = 'agreed'))::int AS agreed
     FROM baseline_item i JOIN artefact a ON a.id = i.artefact_id WHERE i.baseline_id = ANY($1) AND i.state <> 'withdrawn' GROUP BY 1, 2`,
    [heads.map((h) => h.id)],
  );
  return heads.map(({ id, ...head }) => {
    const own = counted.filter((c) => c.baseline === id);
    return { ...head, counts: Object.fromEntries(own.map((c) => [c.kind, c.count])), agreed: own.reduce((sum, c) => sum + c.agreed, 0) };
  });
}

const frozenOf = ({ kind, number, ...item }: z.infer<typeof frozenRow>): Frozen => ({ ...item, id: artefactId(kind, number) });

/** What a baseline holds, in working order. */
export async function listFrozen(work: UnitOfWork, projectId: string, number: BaselineNumber): Promise<Frozen[]> {
  return (await readItems(work, (await baselineHead(work, projectId, number)).id)).sort((a, b) => byId(a.id, b.id));
}

async function readItems(work: UnitOfWork, baseline: string): Promise<Frozen[]> {
  const rows = await selectRows(
    work,
    frozenRow,
    `SELECT a.kind, a.number, i.version, i.meaning_since AS "meaningSince", i.state, i.title, i.module FROM baseline_item i JOIN artefact a ON a.id = i.artefact_id WHERE i.baseline_id = $1`,
    [baseline],
  );
  return rows.map(frozenOf);
}

const baselineRow = z.object({ id: z.string(), name: z.string(), part: z.string(), revision: z.number(), seal: z.string() });

/** The row of a baseline, without looking at what it holds. @throws {DomainError} when the project has none of this number. */
export async function baselineHead(work: UnitOfWork, projectId: string, number: BaselineNumber): Promise<z.infer<typeof baselineRow>> {
  const [found] = await selectRows(work, baselineRow, 'SELECT id, name, part, revision, seal FROM baseline WHERE project_id = $1 AND number = $2', [projectId, number]);
  if (found === undefined) throw new DomainError({ code: 'baseline_unknown' });
  return found;
}

/** An artefact as a baseline holds it, also one that is not there any more. @throws {DomainError} when it holds none of this id. */
export async function readFrozen(work: UnitOfWork, projectId: string, number: BaselineNumber, id: ArtefactId): Promise<ResponseOf<'readFrozen'>> {
  const { id: rowId } = await baselineHead(work, projectId, number);
  const wanted = parseArtefactId(id);
  const [held] = await selectRows(
    work,
    heldRow,
    'SELECT i.artefact_id AS "rowId", i.version FROM baseline_item i JOIN artefact a ON a.id = i.artefact_id WHERE i.baseline_id = $1 AND a.kind = $2 AND a.number = $3',
    [rowId, wanted?.kind, wanted?.number],
  );
  const row = held === undefined ? null : await modelsOf(work.db).Artefact.findByPk(held.rowId, { transaction: work.transaction });
  if (held === undefined || row === null) throw new DomainError({ code: 'artefact_unknown', id });
  return { version: held.version, ...(await readContent(work, row, held.version)) };
}

/** What changed from a baseline to another, or to now (null). Where one of the two is of a part, only what that is of is compared. */
export async function compareBaselines(work: UnitOfWork, projectId: string, from: BaselineNumber, to: BaselineNumber | null): Promise<FrozenChanges> {
  const changes = await changesBetween(work, projectId, from, to);
  const settings = await settingsBetween(work, projectId, from, to);
  return { from, to, changes: changes.slice(0, MOST_FROZEN_CHANGES), total: changes.length, reached: to === null ? await readReached(work, projectId, changes) : [], settings };
}

/** All that changed from a baseline to another, or to now (null). */
export async function changesBetween(work: UnitOfWork, projectId: string, from: BaselineNumber, to: BaselineNumber | null): Promise<FrozenChange[]> {
  const before = await momentOf(work, projectId, from);
  const after = await momentOf(work, projectId, to);
  return compareFrozen(before.isWhole ? within(before.items, after) : before.items, after.isWhole ? within(after.items, before) : after.items);
}

interface Moment {
  readonly isWhole: boolean;
  readonly items: readonly Frozen[];
}

/** Of a baseline, or of now (null). */
async function momentOf(work: UnitOfWork, projectId: string, number: BaselineNumber | null): Promise<Moment> {
  if (number !== null) {
    const { id, part } = await baselineHead(work, projectId, number);
    return { isWhole: part === '', items: await readItems(work, id) };
  }
  const rows = await selectRows(work, frozenRow, 'SELECT kind, number, head AS version, meaning_since AS "meaningSince", state, title, module FROM artefact WHERE project_id = $1 AND deleted_at IS NULL', [projectId]);
  return { isWhole: true, items: rows.map(frozenOf) };
}

function within(items: readonly Frozen[], other: Moment): readonly Frozen[] {
  if (other.isWhole) return items;
  const ids = new Set(other.items.map((i) => i.id));
  return items.filter((i) => ids.has(i.id));
}
