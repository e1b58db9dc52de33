import { randomUUID } from 'node:crypto';
import { parseArtefactId, type ArtefactId, type ArtefactKind, type ArtefactState } from '@caderno/core/artefacts';
import { CONTENT_SCHEMA_VERSION, type KindAndContent, type NewArtefact } from '@caderno/contract';
import { modelsOf, selectRows, type ArtefactRow, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { artefactOfRetry, idOfRow, lockProject, recordDeed, type Commander } from './command.ts';
import { writeLinks } from './links.ts';
import { placeAfter } from './outline.ts';
import { writeSearch } from './search.ts';
import { contentHash, kindAndContentFromStore, meaningText } from './stored.ts';
import { summaryColumns } from './summary.ts';

/** @throws Refused when the project has no such artefact, or it was deleted. */
export async function findArtefact(work: Work, projectId: string, id: ArtefactId): Promise<ArtefactRow> {
  const parsed = parseArtefactId(id);
  const row = parsed && (await modelsOf(work.db).Artefact.findOne({ where: { projectId, ...parsed, deletedAt: null }, transaction: work.transaction }));
  if (!row) throw new Refused({ code: 'artefact_unknown', id });
  return row;
}

/** @throws Refused when the artefact has no such version. */
export async function readContent(work: Work, row: ArtefactRow, version: number): Promise<KindAndContent> {
  const stored = await modelsOf(work.db).Version.findOne({ where: { artefactId: row.id, version }, transaction: work.transaction });
  if (stored === null) throw new Refused({ code: 'version_unknown', id: idOfRow(row), version });
  return kindAndContentFromStore(row.kind, stored.schema, stored.content);
}

/** Makes an artefact with its first version. */
export async function createArtefact(work: Work, commander: Commander, made: NewArtefact): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const earlier = await artefactOfRetry(work, commander);
  if (earlier !== null) return earlier;
  requireTitle(made);
  const { Artefact } = modelsOf(work.db);
  const row = await Artefact.create(
    {
      projectId: commander.projectId,
      kind: made.kind,
      number: await nextNumber(work, commander.projectId, made.kind),
      parentId: null,
      position: 0,
      state: 'draft',
      head: 1,
      meaningSince: 1,
      agreedVersion: null,
      ...summaryColumns(made),
      authorId: commander.personId,
      updatedAt: commander.at,
      deletedAt: null,
    },
    { transaction: work.transaction },
  );
  if (made.kind === 'requirement') await placeAfter(work, row, made.parent ?? null, made.after === undefined ? 'last' : made.after);
  const change = randomUUID();
  await writeVersion(work, commander, row, made, { version: 1, note: '', change });
  await recordDeed(work, commander, { action: 'create', artefact: row, fromVersion: null, toVersion: 1, detail: '', note: '', undo: { kind: 'existence', exists: false } }, change);
  return row;
}

/**
 * Makes the next version from `base`. Content equal to the head makes none. An agreed artefact becomes a draft
 * again; its agreed version stays what it was.
 * @throws Refused `version_moved` when the head is no longer `base`: nothing is overwritten.
 */
export async function saveArtefact(work: Work, commander: Commander, id: ArtefactId, base: number, value: KindAndContent, note: string): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const earlier = await artefactOfRetry(work, commander);
  if (earlier !== null) return earlier;
  const row = await findArtefact(work, commander.projectId, id);
  if (row.kind !== value.kind) throw new Refused({ code: 'kind_mismatch', id, kind: value.kind });
  requireTitle(value);
  if (row.head !== base) throw await versionMoved(work, row, base);
  return storeNextVersion(work, commander, row, value, { action: 'save', note, detail: '' });
}

/** The part of a save that an undo shares. The caller has checked the head. */
export async function storeNextVersion(work: Work, commander: Commander, row: ArtefactRow, value: KindAndContent, deed: { action: 'save' | 'undo'; note: string; detail: string }): Promise<ArtefactRow> {
  const { Draft } = modelsOf(work.db);
  await Draft.destroy({ where: { artefactId: row.id, personId: commander.personId }, transaction: work.transaction });
  const head = await readContent(work, row, row.head);
  if (contentHash(head.content) === contentHash(value.content)) return row;
  const from = row.head;
  const version = from + 1;
  const meaningSince = meaningText(head) === meaningText(value) ? row.meaningSince : version;
  const state: ArtefactState = row.state === 'agreed' || row.state === 'inReview' ? 'draft' : row.state;
  await row.update({ ...summaryColumns(value), head: version, meaningSince, state, authorId: commander.personId, updatedAt: commander.at }, { transaction: work.transaction });
  const change = randomUUID();
  await writeVersion(work, commander, row, value, { version, note: deed.note, change });
  await recordDeed(work, commander, { ...deed, artefact: row, fromVersion: from, toVersion: version, undo: { kind: 'content', from, to: version } }, change);
  return row;
}

/** Sets the state. Setting `agreed` agrees the head version. */
export async function setState(work: Work, commander: Commander, id: ArtefactId, state: ArtefactState): Promise<ArtefactRow> {
  await lockProject(work, commander.projectId);
  const row = (await artefactOfRetry(work, commander)) ?? (await findArtefact(work, commander.projectId, id));
  return row.state === state ? row : changeState(work, commander, row, state, { action: 'state', detail: state });
}

export async function changeState(work: Work, commander: Commander, row: ArtefactRow, state: ArtefactState, deed: { action: 'state' | 'undo'; detail: string }): Promise<ArtefactRow> {
  const from = row.state;
  await row.update({ state, ...(state === 'agreed' ? { agreedVersion: row.head } : {}) }, { transaction: work.transaction });
  await recordDeed(work, commander, { ...deed, artefact: row, fromVersion: null, toVersion: null, note: '', undo: { kind: 'state', from, to: state } });
  return row;
}

async function writeVersion(work: Work, commander: Commander, row: ArtefactRow, value: KindAndContent, made: { version: number; note: string; change: string }): Promise<void> {
  await modelsOf(work.db).Version.create(
    {
      artefactId: row.id,
      version: made.version,
      content: value.content,
      schema: CONTENT_SCHEMA_VERSION[value.kind],
      hash: contentHash(value.content),
      authorId: commander.personId,
      at: commander.at,
      note: made.note,
      changeId: made.change,
    },
    { transaction: work.transaction },
  );
  await writeLinks(work, commander.projectId, row.id, value);
  await writeSearch(work, row.id, value);
}

async function nextNumber(work: Work, projectId: string, kind: ArtefactKind): Promise<number> {
  const [counter] = await selectRows<{ last: number }>(
    work,
    `INSERT INTO artefact_counter (project_id, kind, last) VALUES ($1, $2, 1)
     ON CONFLICT (project_id, kind) DO UPDATE SET last = artefact_counter.last + 1 RETURNING last`,
    [projectId, kind],
  );
  if (counter === undefined) throw new Error(`Every ${kind} has a number: expected a counter, got none`);
  return counter.last;
}

function requireTitle(value: KindAndContent): void {
  if (value.content.title.trim() === '') throw new Refused({ code: 'title_missing' });
}

async function versionMoved(work: Work, row: ArtefactRow, base: number): Promise<Refused> {
  const author = await modelsOf(work.db).Person.findByPk(row.authorId, { transaction: work.transaction });
  return new Refused({ code: 'version_moved', id: idOfRow(row), head: row.head, base, author: author?.name ?? 'someone' });
}
