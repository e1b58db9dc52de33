import { randomUUID } from 'node:crypto';
import { ARTEFACT_KINDS, parseArtefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { Settling, openCarryConflicts, planCarry, type CarryChoices, type CarryPlan, type PlannedCarry } from '@caderno/core/carrying';
import type { Json, Side } from '@caderno/core/versions';
import { MOST_PREVIEWED, schemaVersionOf, type DesignDraft, type ProjectSettings } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import {
  attachmentOf, changeOfRetry, idOfRow, insertUnproven, lastPosition, lockProject, noteAttachment, refuseUnsound, reserveNumbers, rowsOfIds, writeJournalEntry, writeUnproven, type Actor, type CarriedHere, type JournalEntryPart, type NewArtefactRow,
} from '../../artefacts/index.ts';
import { idRow, inSnapshot, inTransaction, selectRows, type ArtefactRow, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import type { Files } from '../../files/index.ts';
import { listMembers } from '../../people/index.ts';
import { readSettings } from '../../projects/index.ts';
import { readableSettings, rememberCarried, storeSettings } from '../../versions/index.ts';
import { bytesOf, findFile } from '../importFile.ts';
import { readDesign, type ReadDesign } from './designFile.ts';
import { readStanding, type Standing } from './standingHere.ts';

interface Planned {
  readonly plan: CarryPlan;
  readonly standing: Standing;
  readonly settling: Settling;
  readonly settings: ProjectSettings;
}

type FirstNew = Readonly<Record<ArtefactKind, number>>;

/** Beyond all numbers that are given: until they are reserved nothing new is taken for what stands here. */
const UNRESERVED: FirstNew = Object.fromEntries(ARTEFACT_KINDS.map((kind) => [kind, 900_000_000])) as Record<ArtefactKind, number>;

async function planDesign(work: UnitOfWork, projectId: string, { design, files }: ReadDesign, firstNew: FirstNew = UNRESERVED, choices: CarryChoices = new Map()): Promise<Planned> {
  const { settings } = await readSettings(work, projectId);
  const people = new Set((await listMembers(work, projectId)).map((member) => member.name));
  const kept = new Set((await selectRows(work, idRow, 'SELECT id FROM attachment WHERE project_id = $1', [projectId])).map((row) => row.id));
  const { fields, constants, depths, priorities } = settings;
  const settling = new Settling(design, { fields, constants, depths, priorities, people, hasFile: (id) => kept.has(id) || files[id] !== undefined, newId: () => randomUUID().slice(0, 8) });
  const standing = await readStanding(work, projectId, design.artefacts);
  return { plan: planCarry(design, { here: standing.of, firstNew, settle: (value, isLatest) => settling.settle(value, isLatest) }, choices), standing, settling, settings };
}

/** What a design file that waits would do; of long lists the first. */
export async function previewDesign(db: Sequelize, files: Files, projectId: string, id: string): Promise<DesignDraft> {
  const file = await inTransaction(db, (work) => findFile(work, projectId, id));
  const read = readDesign((await bytesOf(files, file)).bytes);
  const { plan, settling, settings } = await inSnapshot(db, (work) => planDesign(work, projectId, read));
  const counts = Object.fromEntries(ARTEFACT_KINDS.map((kind) => [kind, { added: 0, changed: 0, same: 0 }])) as DesignDraft['counts'];
  for (const { kind, carried } of plan.planned) counts[carried.kind][kind] += 1;
  const added = plan.planned.flatMap((p) => (p.kind === 'added' ? [{ ...namedIn(p), title: p.base.content.title }] : []));
  const changed = plan.planned.flatMap((p) => (p.kind === 'changed' ? [{ ...namedIn(p), title: p.before.content.title, here: p.id, both: p.conflicts.slice(0, MOST_PLACES).map((c) => ({ path: c.path, mine: told(c.mine), theirs: told(c.theirs) })) }] : []));
  const inConflict = changed.filter((c) => c.both.length > 0);
  const { staysOut } = settling;
  const listed = (names: ReadonlyMap<string, number>) => [...names].map(([name, count]) => ({ name, count }));
  return {
    id, name: file.name, from: { key: read.design.project.key, name: read.design.project.name }, counts,
    added: added.slice(0, MOST_PREVIEWED),
    changed: [...inConflict, ...changed.filter((c) => c.both.length === 0).slice(0, MOST_PREVIEWED)],
    conflicts: inConflict.length,
    settings: {
      fields: settling.settings.fields.flatMap((field) => (settings.fields.includes(field) ? [] : [field.name])),
      constants: settling.settings.constants.slice(settings.constants.length).map((c) => c.name),
      depths: settling.settings.depths.slice(settings.depths.length),
      priorities: settling.settings.priorities.slice(settings.priorities.length),
    },
    out: { links: plan.linksOut, files: staysOut.files, fields: listed(staysOut.fields), people: listed(staysOut.people) },
  };
}

/** Places of one artefact that a preview shows, and letters of each side. */
const MOST_PLACES = 50;
const LONGEST_TOLD = 2_000;

/** One side of a conflict, to be read; null: it is not there. */
function told(value: Json | undefined): string | null {
  return value === undefined ? null : (typeof value === 'string' ? value : JSON.stringify(value)).slice(0, LONGEST_TOLD).toWellFormed();
}

function namedIn({ carried: { kind, id } }: PlannedCarry): { readonly kind: ArtefactKind; readonly id: ArtefactId } {
  return { kind, id };
}

export interface DesignOrder {
  readonly choices: Readonly<Record<string, Side>>;
}

type OnProgress = (done: number, total: number) => Promise<void>;

/** Keeps the bytes of files that a design file brings along. @throws {DomainError} when one is no file that is kept, or is not what it is named. */
export async function keepCarriedFiles(db: Sequelize, files: Files, projectId: string, brought: ReadDesign['files'], at: Date): Promise<void> {
  for (const [id, { name, base64 }] of Object.entries(brought)) {
    const bytes = Buffer.from(base64, 'base64');
    const attachment = await attachmentOf(name, bytes);
    if (attachment.id !== id) throw new DomainError({ code: 'design_unreadable', at: name, reason: 'its bytes are not those it was saved with' });
    await files.keep(bytes);
    await inTransaction(db, (work) => noteAttachment(work, projectId, attachment, at));
  }
}

/** Brings in what a design file carries as one change: everything or nothing. Answers the id of the change. */
export async function importDesign(work: UnitOfWork, actor: Actor, read: ReadDesign, order: DesignOrder, onProgress: OnProgress = () => Promise.resolve()): Promise<string> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const choices = new Map(Object.entries(order.choices));
  const first = await planDesign(work, actor.projectId, read, UNRESERVED, choices);
  const open = openCarryConflicts(first.plan, choices);
  if (open.length > 0) throw new DomainError({ code: 'import_conflicts_open', count: open.length });
  const [added, changed] = (['added', 'changed'] as const).map((kind) => first.plan.planned.filter((p) => p.kind === kind).length) as [number, number];
  if (added + changed === 0) throw new DomainError({ code: 'import_changes_nothing' });
  const planned = await planDesign(work, actor.projectId, read, await reserved(work, actor.projectId, first.plan), choices);
  const change = randomUUID();
  const parts = await writeDesign(work, actor, change, planned, (done) => onProgress(done, added + changed));
  await writeJournalEntry(work, actor, { action: 'import', parts, detail: read.design.project.name, note: `${added} added, ${changed} changed` }, change);
  return change;
}

async function reserved(work: UnitOfWork, projectId: string, { planned }: CarryPlan): Promise<FirstNew> {
  const first = { ...UNRESERVED };
  for (const kind of ARTEFACT_KINDS) {
    const count = planned.filter((p) => p.kind === 'added' && p.carried.kind === kind).length;
    if (count > 0) Object.assign(first, { [kind]: await reserveNumbers(work, projectId, kind, count) });
  }
  return first;
}

async function writeDesign(work: UnitOfWork, actor: Actor, change: string, { plan, settling, settings, standing }: Planned, onWritten: (done: number) => Promise<void>): Promise<JournalEntryPart[]> {
  const { projectId } = actor;
  const wanted = { ...settings, ...settling.settings };
  const isMore = wanted.fields !== settings.fields || wanted.constants !== settings.constants || wanted.depths !== settings.depths || wanted.priorities !== settings.priorities;
  const settingsParts = isMore ? [await storeSettings(work, NO_SECRETS, projectId, 'analyst', readableSettings(wanted))] : [];
  const made = await newRows(work, projectId, plan);
  const inserted = await insertUnproven(work, actor, change, made, onWritten);
  const changes = plan.planned.flatMap((p) => (p.kind === 'changed' ? [p] : []));
  const rows = new Map((await rowsOfIds(work, projectId, plan.planned.flatMap((p) => (p.kind === 'added' ? [] : [p.id])))).rows.map((row) => [idOfRow(row), row]));
  for (const row of inserted.rows) rows.set(idOfRow(row), row);
  const saves = changes.flatMap(({ id, value, before }) => {
    const row = rows.get(id);
    return row === undefined ? [] : [{ row, value, head: before }];
  });
  const written = await writeUnproven(work, actor, change, saves, '', (done) => onWritten(made.length + done));
  await refuseUnsound(work, projectId, [...inserted.rows.map((row, i) => ({ id: idOfRow(row), value: valueAt(made, i) })), ...saves.map(({ row, value }) => ({ id: idOfRow(row), value }))]);
  const remembered = await rememberCarried(work, toRemember(plan, standing, rows, projectId));
  const isNew = new Set(inserted.rows.map((row) => row.id));
  // What is made is taken away whole by an undo: what is remembered of it goes with it.
  return [...settingsParts, ...inserted.parts, ...written, ...remembered.filter((part) => !isNew.has(part.artefact?.id ?? ''))];
}

/** What comes from a file has no secret: those that are here stay sealed as they are. */
const NO_SECRETS = {
  seal: (): Buffer => {
    throw new Error('A design file carries no value of a secret constant');
  },
};

/** New artefacts below what they stand below, behind what is there. */
async function newRows(work: UnitOfWork, projectId: string, { planned }: CarryPlan): Promise<NewArtefactRow[]> {
  const last = new Map<string | null, number>();
  const rows: NewArtefactRow[] = [];
  for (const p of planned) {
    if (p.kind !== 'added') continue;
    const value = p.contents.at(-1);
    if (value === undefined) throw new Error(`What is added has a content: expected one of ${p.id}, got none`);
    const position = p.carried.kind === 'requirement' ? (last.get(p.under) ?? (await lastBelow(work, projectId, p.under))) + 1 : 0;
    last.set(p.under, position);
    rows.push({ number: numberOf(p.id), value, earlier: p.contents.slice(0, -1), parent: p.under === null ? null : numberOf(p.under), position });
  }
  return rows;
}

const rowIdRow = z.object({ id: z.string() });

async function lastBelow(work: UnitOfWork, projectId: string, parent: ArtefactId | null): Promise<number> {
  if (parent === null) return lastPosition(work, projectId, null);
  const [row] = await selectRows(work, rowIdRow, `SELECT id FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND number = $2`, [projectId, numberOf(parent)]);
  return row === undefined ? 0 : lastPosition(work, projectId, row.id);
}

/** What the next file is told apart from; of what was written here first nothing is remembered, and nothing of what is remembered so already. */
function toRemember({ planned }: CarryPlan, standing: Standing, rows: ReadonlyMap<ArtefactId, ArtefactRow>, projectId: string): { readonly row: ArtefactRow; readonly carried: CarriedHere }[] {
  return planned.flatMap((p) => {
    const row = rows.get(p.id);
    if (row === undefined || p.carried.first.project === projectId) return [];
    const carried: CarriedHere = { first: p.carried.first, versions: [...p.versions], schema: schemaVersionOf(p.carried.kind), base: p.base.content };
    const before = standing.carried(p.id);
    return p.kind === 'same' && before !== undefined && JSON.stringify(before.versions) === JSON.stringify(carried.versions) ? [] : [{ row, carried }];
  });
}

function numberOf(id: ArtefactId): number {
  return parseArtefactId(id)?.number ?? 0;
}

function valueAt(rows: readonly NewArtefactRow[], place: number): NewArtefactRow['value'] {
  const row = rows[place];
  if (row === undefined) throw new RangeError(`Every row was made of one that was asked for: expected one at ${place}`);
  return row.value;
}
