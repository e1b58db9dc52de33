import { ARTEFACT_KINDS, usualPriority, type ArtefactKind, type ArtefactState } from '@caderno/core/artefacts';
import { DEEPEST_OUTLINE, type RiskScale } from '@caderno/core/basis';
import { beginningValues } from '@caderno/core/fields';
import { meaningOf, settledValue } from '@caderno/core/kinds';
import { asJson, sameJson } from '@caderno/core/versions';
import type { KindAndContent, ProjectSettings } from '@caderno/contract';
import { z } from 'zod';
import { execute, meanwhile, modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import { idOfRow, type Actor, type JournalEntryPart } from './journalEntry.ts';
import { refuseUnknownAttachments } from './attachments.ts';
import { DERIVED_RECORD, SET_DERIVED, derivedColumns } from './derive.ts';
import { refuseDependencyCircles } from './dependencies.ts';
import { refuseCircles, type Using } from './library.ts';
import { writeLinks } from './links.ts';
import { SEARCH_SQL } from './search.ts';
import { kindAndContentOrBroken, refuseUnreadable } from './stored.ts';
import { insertVersions, storedContent } from './storedVersions.ts';
import { refuseConditionCircles } from './under.ts';
import { refuseUnknownVersions } from './unknownVersions.ts';
import { moveOnInReviews } from './underReview.ts';

/** Artefacts written by one statement. */
const IN_ONE_STATEMENT = 500;

/** Told after every statement how many are done; may throw to stop, which undoes all. */
export type OnWritten = (done: number) => Promise<void>;

const quietly: OnWritten = () => Promise.resolve();

/** An artefact to be made, with a number reserved for it. */
export interface NewArtefactRow {
  readonly number: number;
  readonly value: KindAndContent;
  /** Number of the requirement above it, which may be among the new ones. */
  readonly parent: number | null;
  readonly position: number;
  /** What it was before, from its first version on; absent: the value is its first. */
  readonly earlier?: readonly KindAndContent[];
}

const counterRow = z.object({ last: z.number() });

/** Reserves numbers that are never used again; answers the first. */
export async function reserveNumbers(work: UnitOfWork, projectId: string, kind: ArtefactKind, count: number): Promise<number> {
  const [counter] = await selectRows(
    work,
    counterRow,
    `INSERT INTO artefact_counter (project_id, kind, last) VALUES ($1, $2, $3)
     ON CONFLICT (project_id, kind) DO UPDATE SET last = artefact_counter.last + $3 RETURNING last`,
    [projectId, kind, count],
  );
  if (counter === undefined) throw new Error(`Every ${kind} has a number: expected a counter, got none`);
  return counter.last - count + 1;
}

interface Inserted {
  readonly rows: ArtefactRow[];
  readonly parts: JournalEntryPart[];
}

/** Makes artefacts with their first versions; links may lead from any of them to any other. */
export async function insertArtefacts(work: UnitOfWork, actor: Actor, change: string, asked: readonly NewArtefactRow[], onWritten: OnWritten = quietly): Promise<Inserted> {
  const inserted = await insertUnproven(work, actor, change, asked, onWritten);
  await refuseUnsound(work, actor.projectId, inserted.rows.map((row, i) => ({ id: idOfRow(row), value: valueAt(asked, i) })));
  return inserted;
}

/** The same where more is written with it: whoever calls it asks {@link refuseUnsound} when all is there. */
export async function insertUnproven(work: UnitOfWork, actor: Actor, change: string, asked: readonly NewArtefactRow[], onWritten: OnWritten = quietly): Promise<Inserted> {
  if (asked.length === 0) return { rows: [], parts: [] };
  const { settings } = await readSettings(work, actor.projectId);
  const { riskScale: scale } = settings;
  const made = asked.map((row) => ({ ...row, value: withBeginnings(settledValue(row.value, null), settings) }));
  for (const { value } of made) requireTitle(value);
  const rows: ArtefactRow[] = [];
  const [first = [], ...others] = chunksOf(made);
  refuseUnreadableRows(first);
  let columns = newColumns(first, scale);
  for (const [i, chunk] of [first, ...others].entries()) {
    const next = others[i] ?? [];
    const [fresh, contents] = await meanwhile(insertRows(work, actor, columns), () => {
      refuseUnreadableRows(next);
      return chunk.map(({ earlier = [], value }) => [...earlier, value].map(storedContent));
    });
    const versions = fresh.flatMap((row, place) => (contents[place] ?? []).map((stored, before) => ({ rowId: row.id, version: before + 1, stored })));
    [, columns] = await meanwhile(insertVersions(work, actor, change, versions, ''), () => newColumns(next, scale));
    for (const row of fresh) rows.push(row);
    await onWritten(rows.length);
  }
  await placeUnderParents(work, actor.projectId, rows, made);
  await writeLinks(work, actor.projectId, rows.map((row, i) => ({ rowId: row.id, value: valueAt(made, i) })));
  return { rows, parts: rows.map((artefact) => ({ artefact, fromVersion: null, toVersion: artefact.head, undo: { kind: 'existence', exists: false } })) };
}

function refuseUnreadableRows(made: readonly NewArtefactRow[]): void {
  refuseUnreadable(made.flatMap((m) => [m.value, ...(m.earlier ?? [])]));
}

type NewColumns = ReturnType<typeof newColumns>;

/** What stands in the rows of new artefacts. */
function newColumns(made: readonly NewArtefactRow[], scale: RiskScale) {
  return made.map(({ number, value, position, earlier = [] }) => ({ kind: value.kind, number, position, head: earlier.length + 1, meaning_since: meaningBegan([...earlier, value]), ...derivedColumns(value, scale) }));
}

const insertedRow = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number() });

/** Answers them in the order of `columns`. */
async function insertRows(work: UnitOfWork, { projectId, personId, at }: Actor, columns: NewColumns): Promise<ArtefactRow[]> {
  const inserted = await selectRows(
    work,
    insertedRow,
    `INSERT INTO artefact (project_id, author_id, updated_at, state, head, meaning_since, kind, number, position, title, module, risk, priority, owner, tags, own, facts, search)
     SELECT $2, $3, $4, 'draft', r.head, r.meaning_since, r.kind, r.number, r.position, r.title, r.module, r.risk, r.priority, r.owner, ARRAY(SELECT jsonb_array_elements_text(r.tags)), r.own, r.facts, ${SEARCH_SQL}
     FROM jsonb_to_recordset($1::jsonb) AS r(kind text, number int, position int, head int, meaning_since int, ${DERIVED_RECORD}) RETURNING id, kind, number`,
    [JSON.stringify(columns), projectId, personId, at],
  );
  const ids = new Map(inserted.map((row) => [`${row.kind} ${row.number}`, row.id]));
  return columns.map(({ meaning_since: meaningSince, words: _, ...column }) => {
    const id = ids.get(`${column.kind} ${column.number}`);
    if (id === undefined) throw new Error(`Every row is inserted: expected ${column.kind} ${column.number}, got none`);
    return modelsOf(work.db).Artefact.build({ ...column, id, projectId, meaningSince, parentId: null, state: 'draft', agreedVersion: null, authorId: personId, updatedAt: at, deletedAt: null }, { isNewRecord: false, raw: true });
  });
}

/** The version with which the present meaning of an artefact began, of all its versions from the first on. What one that cannot be read (null) meant nobody knows. */
export function meaningBegan(versions: readonly (KindAndContent | null)[]): number {
  const meanings = versions.map((value) => (value === null ? undefined : asJson(meaningOf(value))));
  const now = meanings.at(-1);
  return now === undefined ? Math.max(1, versions.length) : meanings.findLastIndex((meaning) => meaning === undefined || !sameJson(meaning, now)) + 2;
}

/** What nothing was said of in the project's own fields, and a priority that it has not, begin as the project wants them. */
function withBeginnings(value: KindAndContent, { fields, priorities }: ProjectSettings): KindAndContent {
  const own = Object.keys(value.content.own).length > 0 ? {} : beginningValues(fields, value.kind);
  const priority = 'priority' in value.content && !priorities.includes(value.content.priority) ? { priority: usualPriority(priorities) } : {};
  if (Object.keys(own).length === 0 && !('priority' in priority)) return value;
  return { kind: value.kind, content: { ...value.content, ...(Object.keys(own).length === 0 ? {} : { own }), ...priority } } as KindAndContent;
}

function valueAt(list: readonly { readonly value: KindAndContent }[], place: number): KindAndContent {
  const element = list[place];
  if (element === undefined) throw new RangeError(`Every row was made of a value: expected one at ${place}`);
  return element.value;
}

async function placeUnderParents(work: UnitOfWork, projectId: string, rows: readonly ArtefactRow[], made: readonly NewArtefactRow[]): Promise<void> {
  const records = rows.flatMap((row, i) => (made[i]?.parent == null ? [] : [{ id: row.id, parent: made[i].parent }]));
  if (records.length === 0) return;
  await execute(
    work,
    `UPDATE artefact SET parent_id = p.id FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, parent int)
     JOIN artefact p ON p.project_id = $2 AND p.kind = 'requirement' AND p.number = r.parent WHERE artefact.id = r.id`,
    [JSON.stringify(records), projectId],
  );
  await refuseDeepOutline(work, records.map((record) => record.id));
  const numbers = new Map(rows.map((row) => [row.number, row.id]));
  rows.forEach((row, i) => {
    const parent = numbers.get(made[i]?.parent ?? 0);
    if (parent !== undefined) row.parentId = parent;
  });
}

const levelsRow = z.object({ levels: z.int() });

/** What a file brings may stand below what is here already: how deep that is only the project knows. @throws {DomainError} */
async function refuseDeepOutline(work: UnitOfWork, rowIds: readonly string[]): Promise<void> {
  const [deepest] = await selectRows(
    work,
    levelsRow,
    `WITH RECURSIVE up AS (SELECT parent_id, 1 AS levels FROM artefact WHERE id = ANY($1) UNION ALL SELECT a.parent_id, up.levels + 1 FROM up JOIN artefact a ON a.id = up.parent_id WHERE up.levels <= $2)
     SELECT max(levels) AS levels FROM up`,
    [rowIds, DEEPEST_OUTLINE],
  );
  if (deepest !== undefined && deepest.levels > DEEPEST_OUTLINE) throw new DomainError({ code: 'outline_too_deep', limit: DEEPEST_OUTLINE });
}

/** A new head for an artefact. */
export interface Save {
  readonly row: ArtefactRow;
  readonly value: KindAndContent;
  /** What its head is now, where that was read under the same lock; absent: it is read. */
  readonly head?: KindAndContent;
}

/**
 * Makes the next version of each artefact whose content differs from its head; answers a part for each of those. An
 * agreed artefact that means something else now becomes a draft again, its agreed version stays what it was; one that is
 * in review is asked for in its new version. The rows are brought up to date. Drafts stay: whoever has one is shown it merged with the new head.
 */
export async function writeVersions(work: UnitOfWork, actor: Actor, change: string, saves: readonly Save[], note = '', onWritten: OnWritten = quietly): Promise<JournalEntryPart[]> {
  const parts = await writeUnproven(work, actor, change, saves, note, onWritten);
  await refuseUnsound(work, actor.projectId, saves.map(({ row, value }) => ({ id: idOfRow(row), value })));
  return parts;
}

/** The same where more is written with it: whoever calls it asks {@link refuseUnsound} when all is there. */
export async function writeUnproven(work: UnitOfWork, actor: Actor, change: string, saves: readonly Save[], note = '', onWritten: OnWritten = quietly): Promise<JournalEntryPart[]> {
  for (const { value } of saves) requireTitle(value);
  refuseUnreadable(saves.map((s) => s.value));
  const scale = (await readSettings(work, actor.projectId)).settings.riskScale;
  const parts: JournalEntryPart[] = [];
  let done = 0;
  for (const chunk of chunksOf(saves)) {
    const heads = await readHeads(work, chunk.flatMap((s) => (s.head === undefined ? [s.row] : [])));
    const changed = chunk.flatMap(({ row, value: asked, head: known }) => {
      const head = known ?? heads.get(row.id);
      const value = settledValue(asked, head ?? null);
      // A head that cannot be read is replaced whatever the new one says; what it meant nobody knows.
      if (head !== undefined && sameJson(asJson(head.content), asJson(value.content))) return [];
      return [{ row, value, from: row.head, stateBefore: row.state, version: row.head + 1, meaningSince: head !== undefined && sameJson(asJson(meaningOf(head)), asJson(meaningOf(value))) ? row.meaningSince : row.head + 1 }];
    });
    const [, versions] = await meanwhile(updateRows(work, actor, scale, changed), () => changed.map(({ row, version, value }) => ({ rowId: row.id, version, stored: storedContent(value) })));
    await insertVersions(work, actor, change, versions, note);
    await writeLinks(work, actor.projectId, changed.map(({ row, value }) => ({ rowId: row.id, value })));
    parts.push(...changed.map(({ row, from, version, stateBefore }): JournalEntryPart => ({ artefact: row, fromVersion: from, toVersion: version, undo: { kind: 'content', from, to: version, ...(stateBefore === row.state ? {} : { state: stateBefore }) } })));
    await onWritten((done += chunk.length));
  }
  return parts;
}

/** What can only be told once all that is written together is there. @throws {DomainError} when something of it cannot stand. */
export async function refuseUnsound(work: UnitOfWork, projectId: string, written: readonly Using[]): Promise<void> {
  await refuseUnknownAttachments(work, projectId, written.map((w) => w.value));
  await refuseUnknownVersions(work, projectId, written.map((w) => w.value));
  await refuseConditionCircles(work, projectId, written);
  await refuseCircles(work, projectId, written);
  await refuseDependencyCircles(work, projectId, written);
}

async function updateRows(work: UnitOfWork, actor: Actor, scale: RiskScale, changed: readonly (Save & { readonly version: number; readonly meaningSince: number })[]): Promise<void> {
  if (changed.length === 0) return;
  const meant = changed.filter((c) => c.meaningSince === c.version).map(({ row, version }) => ({ id: row.id, version }));
  const askedAgain = await moveOnInReviews(work, actor.projectId, meant);
  const stateOf = ({ row, version, meaningSince }: (typeof changed)[number]): ArtefactState => (askedAgain.has(row.id) ? 'inReview' : version === meaningSince ? unsettled(row.state) : row.state);
  const records = changed.map((c) => ({ id: c.row.id, head: c.version, meaning_since: c.meaningSince, state: stateOf(c), ...derivedColumns(c.value, scale) }));
  await execute(
    work,
    `UPDATE artefact SET head = r.head, meaning_since = r.meaning_since, state = r.state, ${SET_DERIVED}, broken = false, author_id = $2, updated_at = $3
     FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, head int, meaning_since int, state text, ${DERIVED_RECORD})
     WHERE artefact.id = r.id`,
    [JSON.stringify(records), actor.personId, actor.at],
  );
  for (const { row, version, meaningSince, value, ...c } of changed) {
    row.set({ head: version, meaningSince, state: stateOf({ row, version, meaningSince, value, ...c }), title: value.content.title, authorId: actor.personId, updatedAt: actor.at });
  }
}

/** The state of what means something else now than what was agreed to. */
function unsettled(state: ArtefactState): ArtefactState {
  return state === 'agreed' || state === 'inReview' ? 'draft' : state;
}

const headRow = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), schema: z.number(), content: z.unknown() });

/** The head contents of artefacts by row id; one that cannot be read is not among them. */
export async function readHeads(work: UnitOfWork, rows: readonly Pick<ArtefactRow, 'id'>[]): Promise<Map<string, KindAndContent>> {
  const stored = await selectRows(
    work,
    headRow,
    `SELECT a.id, a.kind, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head WHERE a.id = ANY($1)`,
    [rows.map((r) => r.id)],
  );
  return new Map(
    stored.flatMap(({ id, kind, schema, content }) => {
      const value = kindAndContentOrBroken(kind, schema, content);
      return value === null ? [] : [[id, value] as const];
    }),
  );
}

function requireTitle(value: KindAndContent): void {
  if (value.content.title.trim() === '') throw new DomainError({ code: 'title_missing' });
}

function chunksOf<T>(list: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(list.length / IN_ONE_STATEMENT) }, (_, i) => list.slice(i * IN_ONE_STATEMENT, (i + 1) * IN_ONE_STATEMENT));
}
