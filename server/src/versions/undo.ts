import { randomUUID } from 'node:crypto';
import { asJson, mergeContent } from '@caderno/core/versions';
import { schemaVersionOf, type Change, type KindAndContent, type Role } from '@caderno/contract';
import {
  changeOfRetry, findArtefact, idOfRow, issuesOf, kindAndContentOrBroken, lockProject, readContent, writeJournalEntry, restorePlace, returnState, undoPlanSchema, writeVersions, type UndoPlan, type Actor, type JournalEntryPart,
} from '../artefacts/index.ts';
import { z } from 'zod';
import { modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { DomainError } from '../domainError.ts';
import { rememberCarried } from './carriedHere.ts';
import { setExistence } from './existence.ts';
import { storeImportBase } from './importBase.ts';
import { readChange } from './journal.ts';
import { readableSettings, storeSettings } from './storeSettings.ts';
import type { SecretBox } from '../secrets/index.ts';

const storedPartRow = z.object({ artefactId: z.string().nullable(), undo: undoPlanSchema });
type StoredPart = z.infer<typeof storedPartRow>;

/** Undoes a command by a further one, which can be undone in turn. What was changed elsewhere since stays. */
export async function undoChange(work: UnitOfWork, box: SecretBox, actor: Actor, role: Role, changeId: string): Promise<Change> {
  await lockProject(work, actor.projectId);
  const { Change } = modelsOf(work.db);
  const change = await Change.findOne({ where: { id: changeId, projectId: actor.projectId }, transaction: work.transaction });
  if (change === null) throw new DomainError({ code: 'change_unknown', change: changeId });
  if ((await changeOfRetry(work, actor)) === null) {
    if (change.action === 'review') throw new DomainError({ code: 'undo_of_review' });
    if (change.action === 'baseline') throw new DomainError({ code: 'undo_of_baseline' });
    if (change.undoneBy !== null) throw new DomainError({ code: 'undo_done_already', change: changeId });
    const undo = randomUUID();
    const parts = await undoParts(work, box, actor, role, changeId, undo);
    await writeJournalEntry(work, actor, { action: 'undo', parts, detail: changeId, note: '' }, undo);
    await change.update({ undoneBy: undo }, { transaction: work.transaction });
  }
  return readChange(work, actor.projectId, changeId);
}

/** Undoes the parts from the last to the first; a run of parts that made artefacts is taken back at once. */
async function undoParts(work: UnitOfWork, box: SecretBox, actor: Actor, role: Role, changeId: string, undo: string): Promise<JournalEntryPart[]> {
  const stored = await selectRows(work, storedPartRow, 'SELECT artefact_id AS "artefactId", undo FROM change_part WHERE change_id = $1 ORDER BY place DESC', [changeId]);
  const rows = await rowsOf(work, stored);
  const parts: JournalEntryPart[] = [];
  for (let at = 0; at < stored.length; ) {
    const run = runOfExistence(stored, at);
    if (run.length > 0) {
      parts.push(...(await setExistence(work, actor, run.map((p) => rowOf(rows, p)), run[0]?.undo.kind === 'existence' && run[0].undo.exists)));
      at += run.length;
    } else {
      const part = stored[at];
      if (part !== undefined) parts.push(...(await undoPart(work, box, actor, role, part, rows, undo)));
      at += 1;
    }
  }
  return parts;
}

async function rowsOf(work: UnitOfWork, parts: readonly StoredPart[]): Promise<Map<string, ArtefactRow>> {
  const ids = parts.flatMap((p) => p.artefactId ?? []);
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { id: ids }, transaction: work.transaction });
  return new Map(rows.map((row) => [row.id, row]));
}

function rowOf(rows: ReadonlyMap<string, ArtefactRow>, { artefactId }: StoredPart): ArtefactRow {
  const row = rows.get(artefactId ?? '');
  if (row === undefined) throw new Error(`A part of a change names its artefact: expected a row, got ${artefactId}`);
  return row;
}

/** The parts from here on that made, or took away, artefacts. */
function runOfExistence(parts: readonly StoredPart[], from: number): StoredPart[] {
  const first = parts[from]?.undo;
  if (first?.kind !== 'existence') return [];
  const end = parts.findIndex((p, i) => i > from && !(p.undo.kind === 'existence' && p.undo.exists === first.exists));
  return parts.slice(from, end < 0 ? parts.length : end);
}

async function undoPart(work: UnitOfWork, box: SecretBox, actor: Actor, role: Role, part: StoredPart, rows: ReadonlyMap<string, ArtefactRow>, undo: string): Promise<JournalEntryPart[]> {
  const plan = part.undo;
  switch (plan.kind) {
    case 'content':
      return undoContent(work, actor, rowOf(rows, part), plan, undo);
    case 'existence':
      return setExistence(work, actor, [rowOf(rows, part)], plan.exists);
    case 'state':
      return returnState(work, actor, rowOf(rows, part), plan);
    case 'place':
      return [await restorePlace(work, rowOf(rows, part), plan.from)];
    case 'settings':
      return [await undoSettings(work, box, actor.projectId, role, plan)];
    case 'imported':
      return [await storeImportBase(work, rowOf(rows, part), plan.from)];
    case 'carried':
      return rememberCarried(work, [{ row: rowOf(rows, part), carried: plan.from }]);
  }
}

/** Takes the change out of the head by a three-way merge, so that later edits elsewhere in it stay. */
async function undoContent(work: UnitOfWork, actor: Actor, row: ArtefactRow, plan: { from: number; to: number }, undo: string): Promise<JournalEntryPart[]> {
  await findArtefact(work, actor.projectId, idOfRow(row));
  const before = await readContent(work, row, plan.from);
  const after = await readContent(work, row, plan.to);
  const head = await readContent(work, row, row.head);
  const merge = mergeContent(asJson(after.content), asJson(before.content), asJson(head.content));
  if (merge.conflicts.length > 0) throw new DomainError({ code: 'undo_blocked', id: idOfRow(row), paths: merge.conflicts.map((c) => c.path) });
  const value = mergedValue(row, merge.content);
  const parts = await writeVersions(work, actor, undo, [{ row, value }]);
  if (parts.length === 0) throw new DomainError({ code: 'undo_done_already', change: '' });
  return parts;
}

/** @throws {DomainError} when what is left without the change could not be read again. */
function mergedValue(row: ArtefactRow, content: unknown): KindAndContent {
  const value = kindAndContentOrBroken(row.kind, schemaVersionOf(row.kind), content);
  if (value === null) throw new DomainError({ code: 'undo_blocked', id: idOfRow(row), paths: issuesOf(row.kind, { schema: schemaVersionOf(row.kind), content }).map((i) => i.path) });
  return value;
}

async function undoSettings(work: UnitOfWork, box: SecretBox, projectId: string, role: Role, plan: Extract<UndoPlan, { kind: 'settings' }>): Promise<JournalEntryPart> {
  const { settings } = await readSettings(work, projectId);
  const merge = mergeContent(asJson(plan.to), asJson(plan.from), asJson(settings));
  if (merge.conflicts.length > 0) throw new DomainError({ code: 'settings_moved', paths: merge.conflicts.map((c) => c.path) });
  return storeSettings(work, box, projectId, role, readableSettings(merge.content));
}
