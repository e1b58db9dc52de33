import { mergeContent } from '@caderno/core/versions';
import { CONTENT_SCHEMA_VERSION, type Change } from '@caderno/contract';
import {
  artefactOfRetry, asJson, changeState, findArtefact, idOfRow, kindAndContentFromStore, lockProject, readContent, recordDeed, restorePlace, storeNextVersion, usersOf, type Commander,
} from '../artefacts/index.ts';
import { modelsOf, type ArtefactRow, type ChangeRow, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { readChange } from './journal.ts';
import type { UndoPlan } from './undoPlan.ts';

/** Undoes a command by a further one, which can be undone in turn. What was changed elsewhere since stays. */
export async function undoChange(work: Work, commander: Commander, changeId: string): Promise<Change> {
  await lockProject(work, commander.projectId);
  const { Change, Artefact } = modelsOf(work.db);
  const change = await Change.findOne({ where: { id: changeId, projectId: commander.projectId }, transaction: work.transaction });
  if (change === null) throw new Refused({ code: 'change_unknown', change: changeId });
  if ((await artefactOfRetry(work, commander)) === null) {
    if (change.undoneBy !== null) throw new Refused({ code: 'undo_done_already', change: changeId });
    const row = await Artefact.findByPk(change.artefactId, { transaction: work.transaction, rejectOnEmpty: true });
    await carryOut(work, commander, row, change);
    const latest = await Change.findOne({ where: { projectId: commander.projectId }, order: [['revision', 'DESC']], transaction: work.transaction, rejectOnEmpty: true });
    await change.update({ undoneBy: latest.id }, { transaction: work.transaction });
  }
  return readChange(work, commander.projectId, changeId);
}

async function carryOut(work: Work, commander: Commander, row: ArtefactRow, change: ChangeRow): Promise<void> {
  const plan = change.undo as UndoPlan;
  const detail = change.id;
  switch (plan.kind) {
    case 'content':
      await findArtefact(work, commander.projectId, idOfRow(row));
      return undoContent(work, commander, row, plan, detail);
    case 'existence':
      return setExistence(work, commander, row, plan.exists, detail);
    case 'state':
      await changeState(work, commander, row, plan.from, { action: 'undo', detail });
      return;
    case 'place':
      await restorePlace(work, commander, row, plan.from, detail);
      return;
  }
}

/** Takes the change out of the head by a three-way merge, so that later edits elsewhere in it stay. */
async function undoContent(work: Work, commander: Commander, row: ArtefactRow, plan: { from: number; to: number }, detail: string): Promise<void> {
  const [before, after, head] = await Promise.all([plan.from, plan.to, row.head].map((v) => readContent(work, row, v)));
  if (!before || !after || !head) throw new Error('Three versions were asked for');
  const merge = mergeContent(asJson(after.content), asJson(before.content), asJson(head.content));
  if (merge.conflicts.length > 0) throw new Refused({ code: 'undo_blocked', id: idOfRow(row), paths: merge.conflicts.map((c) => c.path) });
  const value = kindAndContentFromStore(row.kind, CONTENT_SCHEMA_VERSION[row.kind], merge.content);
  const was = row.head;
  await storeNextVersion(work, commander, row, value, { action: 'undo', note: '', detail });
  if (row.head === was) throw new Refused({ code: 'undo_done_already', change: detail });
}

async function setExistence(work: Work, commander: Commander, row: ArtefactRow, exists: boolean, detail: string): Promise<void> {
  const users = exists ? [] : await usersOf(work, row.id);
  if (users.length > 0) throw new Refused({ code: 'still_used', id: idOfRow(row), users });
  await row.update({ deletedAt: exists ? null : commander.at }, { transaction: work.transaction });
  await recordDeed(work, commander, { action: 'undo', artefact: row, fromVersion: null, toVersion: null, detail, note: '', undo: { kind: 'existence', exists: !exists } });
}
