import { randomUUID } from 'node:crypto';
import { type ArtefactId, type ArtefactState } from '@caderno/core/artefacts';
import type { KindAndContent, NewArtefact } from '@caderno/contract';
import { execute, modelsOf, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { artefactOfRetry, idOfRow, lockProject, writeJournalEntry, type Actor, type JournalEntryPart } from './journalEntry.ts';
import { dropDraft } from './draft.ts';
import { placeAfter } from './outline.ts';
import { refuseAgreedCircles } from './library.ts';
import { findArtefact } from './findArtefact.ts';
import { leaveReviews, refuseByHand, stateToReturnTo } from './underReview.ts';
import type { UndoPlan } from './undoPlan.ts';
import { insertArtefacts, reserveNumbers, writeVersions } from './write.ts';

/** Makes an artefact with its first version. */
export async function createArtefact(work: UnitOfWork, actor: Actor, made: NewArtefact): Promise<ArtefactRow> {
  await lockProject(work, actor.projectId);
  const earlier = await artefactOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const number = await reserveNumbers(work, actor.projectId, made.kind, 1);
  const change = randomUUID();
  const { rows, parts } = await insertArtefacts(work, actor, change, [{ number, value: made, parent: null, position: 0 }]);
  const [row] = rows;
  if (row === undefined) throw new Error('One artefact was to be made: expected its row');
  if (made.kind === 'requirement') await placeAfter(work, row, made.parent ?? null, made.after === undefined ? 'last' : made.after);
  await writeJournalEntry(work, actor, { action: 'create', parts, detail: '', note: '' }, change);
  return row;
}

/**
 * Makes the next version from `base`. Content equal to the head makes none. It takes the place of the person's draft,
 * unless it was not made of it.
 * @throws {DomainError} `version_moved` when the head is no longer `base`: nothing is overwritten.
 */
export async function saveArtefact(work: UnitOfWork, actor: Actor, id: ArtefactId, base: number, value: KindAndContent, note: string, draft: { readonly keeps?: boolean; readonly sequence?: number } = {}): Promise<ArtefactRow> {
  await lockProject(work, actor.projectId);
  const earlier = await artefactOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const row = await findArtefact(work, actor.projectId, id);
  if (row.kind !== value.kind) throw new DomainError({ code: 'kind_mismatch', id, kind: value.kind });
  if (row.head !== base) throw await versionMoved(work, row, base);
  const change = randomUUID();
  if (draft.keeps !== true) await dropDraft(work, actor.projectId, actor.personId, id, draft.sequence ?? null);
  const parts = await writeVersions(work, actor, change, [{ row, value }], note);
  if (parts.length > 0) await writeJournalEntry(work, actor, { action: 'save', parts, detail: '', note }, change);
  return row;
}

/** Sets the state by hand. Setting `agreed` agrees the head version. */
export async function setState(work: UnitOfWork, actor: Actor, id: ArtefactId, state: ArtefactState): Promise<ArtefactRow> {
  await lockProject(work, actor.projectId);
  const row = (await artefactOfRetry(work, actor)) ?? (await findArtefact(work, actor.projectId, id));
  if (row.state === state) return row;
  await writeJournalEntry(work, actor, { action: 'state', parts: await changeStates(work, actor, [row], state), detail: state, note: '' });
  return row;
}

/** The part of setting a state by hand that other commands share; what a review asks for leaves it. The rows are brought up to date. */
export async function changeStates(work: UnitOfWork, actor: Actor, rows: readonly ArtefactRow[], state: ArtefactState): Promise<JournalEntryPart[]> {
  await refuseByHand(work, actor.projectId, state);
  await leaveReviews(work, actor, rows);
  return putStates(work, rows.map((row) => ({ row, state, agreed: state === 'agreed' ? row.head : row.agreedVersion })));
}

/** Takes back the setting of a state: what came about meanwhile in reviews stays. */
export async function returnState(work: UnitOfWork, actor: Actor, row: ArtefactRow, { from, agreed }: Extract<UndoPlan, { kind: 'state' }>): Promise<JournalEntryPart[]> {
  const before = agreed !== undefined && agreed.to === row.agreedVersion ? agreed.from : row.agreedVersion;
  const state = await stateToReturnTo(work, { id: row.id, meaningSince: row.meaningSince, agreedVersion: before }, from);
  if (state !== 'inReview') await leaveReviews(work, actor, [row]);
  return putStates(work, [{ row, state, agreed: before }]);
}

/** The state of an artefact from now on, and which of its versions is agreed. */
export interface StateNow {
  readonly row: ArtefactRow;
  readonly state: ArtefactState;
  readonly agreed: number | null;
}

/** Puts states in one statement. The rows are brought up to date. @throws {DomainError} when what follows an agreed version would use itself. */
export async function putStates(work: UnitOfWork, now: readonly StateNow[]): Promise<JournalEntryPart[]> {
  const records = now.map(({ row, state, agreed }) => ({ id: row.id, state, agreed }));
  await execute(work, 'UPDATE artefact SET state = r.state, agreed_version = r.agreed FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, state text, agreed int) WHERE artefact.id = r.id', [JSON.stringify(records)]);
  await refuseAgreedCircles(work, now.flatMap(({ row, agreed }) => (agreed === row.agreedVersion ? [] : [row])));
  return now.map(({ row: artefact, state, agreed }) => {
    const [from, before] = [artefact.state, artefact.agreedVersion];
    artefact.set({ state, agreedVersion: agreed });
    return { artefact, fromVersion: null, toVersion: null, undo: { kind: 'state', from, to: state, agreed: { from: before, to: agreed } } };
  });
}

async function versionMoved(work: UnitOfWork, row: ArtefactRow, base: number): Promise<DomainError> {
  const author = await modelsOf(work.db).Person.findByPk(row.authorId, { transaction: work.transaction });
  return new DomainError({ code: 'version_moved', id: idOfRow(row), head: row.head, base, author: author?.name ?? 'someone' });
}
