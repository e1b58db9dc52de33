import { randomUUID } from 'node:crypto';
import { parseArtefactId, type ArtefactId, type ArtefactState } from '@caderno/core/artefacts';
import type { KindAndContent, NewArtefact } from '@caderno/contract';
import { modelsOf, type ArtefactRow, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { artefactOfRetry, idOfRow, lockProject, recordDeed, type Commander, type DeedPart } from './deed.ts';
import { dropDraft } from './draft.ts';
import { placeAfter } from './outline.ts';
import { BrokenContent, kindAndContentFromStore } from './stored.ts';
import { insertArtefacts, reserveNumbers, writeVersions } from './write.ts';

/** @throws Refused when the project has no such artefact, or it was deleted. */
export async function findArtefact(work: Work, projectId: string, id: ArtefactId): Promise<ArtefactRow> {
  const parsed = parseArtefactId(id);
  const row = parsed && (await modelsOf(work.db).Artefact.findOne({ where: { projectId, ...parsed, deletedAt: null }, transaction: work.transaction }));
  if (!row) throw new Refused({ code: 'artefact_unknown', id });
  return row;
}

/** @throws Refused when the artefact has no such version, or it cannot be read. */
export async function readContent(work: Work, row: ArtefactRow, version: number): Promise<KindAndContent> {
  const stored = await modelsOf(work.db).Version.findOne({ where: { artefactId: row.id, version }, transaction: work.transaction });
  if (stored === null) throw new Refused({ code: 'version_unknown', id: idOfRow(row), version });
  try {
    return kindAndContentFromStore(row.kind, stored.schema, stored.content);
  } catch (cause) {
    if (!(cause instanceof BrokenContent)) throw cause;
    throw new Refused({ code: 'artefact_broken', id: idOfRow(row), version }, { cause });
  }
}

/** Makes an artefact with its first version. */
export async function createArtefact(work: Work, commander: Commander, made: NewArtefact): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const earlier = await artefactOfRetry(work, commander);
  if (earlier !== null) return earlier;
  const number = await reserveNumbers(work, commander.projectId, made.kind, 1);
  const change = randomUUID();
  const { rows, parts } = await insertArtefacts(work, commander, change, [{ number, value: made, parent: null, position: 0 }]);
  const [row] = rows;
  if (row === undefined) throw new Error('One artefact was to be made: expected its row');
  if (made.kind === 'requirement') await placeAfter(work, row, made.parent ?? null, made.after === undefined ? 'last' : made.after);
  await recordDeed(work, commander, { action: 'create', parts, detail: '', note: '' }, change);
  return row;
}

/**
 * Makes the next version from `base`. Content equal to the head makes none. It takes the place of the person's draft,
 * unless it was not made of it.
 * @throws Refused `version_moved` when the head is no longer `base`: nothing is overwritten.
 */
export async function saveArtefact(work: Work, commander: Commander, id: ArtefactId, base: number, value: KindAndContent, note: string, draft: { readonly keeps?: boolean; readonly sequence?: number } = {}): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const earlier = await artefactOfRetry(work, commander);
  if (earlier !== null) return earlier;
  const row = await findArtefact(work, commander.projectId, id);
  if (row.kind !== value.kind) throw new Refused({ code: 'kind_mismatch', id, kind: value.kind });
  if (row.head !== base) throw await versionMoved(work, row, base);
  const change = randomUUID();
  if (draft.keeps !== true) await dropDraft(work, commander.projectId, commander.personId, id, draft.sequence ?? null);
  const parts = await writeVersions(work, commander, change, [{ row, value }], note);
  if (parts.length > 0) await recordDeed(work, commander, { action: 'save', parts, detail: '', note }, change);
  return row;
}

/** Sets the state. Setting `agreed` agrees the head version. */
export async function setState(work: Work, commander: Commander, id: ArtefactId, state: ArtefactState): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const row = (await artefactOfRetry(work, commander)) ?? (await findArtefact(work, commander.projectId, id));
  if (row.state === state) return row;
  await recordDeed(work, commander, { action: 'state', parts: [await changeState(work, row, state)], detail: state, note: '' });
  return row;
}

/** The part of setting a state that other commands share. */
export async function changeState(work: Work, row: ArtefactRow, state: ArtefactState): Promise<DeedPart> {
  const from = row.state;
  await row.update({ state, ...(state === 'agreed' ? { agreedVersion: row.head } : {}) }, { transaction: work.transaction });
  return { artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'state', from, to: state } };
}

async function versionMoved(work: Work, row: ArtefactRow, base: number): Promise<Refused> {
  const author = await modelsOf(work.db).Person.findByPk(row.authorId, { transaction: work.transaction });
  return new Refused({ code: 'version_moved', id: idOfRow(row), head: row.head, base, author: author?.name ?? 'someone' });
}
