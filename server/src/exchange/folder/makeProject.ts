import { randomUUID } from 'node:crypto';
import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { attachmentId } from '@caderno/core/attachments';
import { LIMITS, type KindAndContent, type NewProject, type ProjectRef, type ProjectSettings } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { attachmentOf, deriveAnew, insertVersions, noteAttachment, readHeads, refuseUnsound, storedContent, writeJournalEntry, type Actor } from '../../artefacts/index.ts';
import { execute, inTransaction, modelsOf, selectRows, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import type { Files } from '../../files/index.ts';
import { createProject } from '../../projects/index.ts';
import { readableSettings, storeSettings } from '../../versions/index.ts';
import type { FolderHead, FolderVersionHead, ReadFolder } from './readFolder.ts';

/** Artefacts that are written at a time. */
const AT_A_TIME = 500;

/** Who makes a project, and when. */
export type Maker = Omit<Actor, 'projectId'>;

/** Makes a project of a folder: the same ids, versions and states, for its maker to administrate. Everything or nothing. */
export async function makeProject(db: Sequelize, files: Files, maker: Maker, project: NewProject, folder: ReadFolder): Promise<ProjectRef> {
  const attachments = await keepFiles(files, folder);
  return inTransaction(db, async (work) => {
    const { id: projectId, ...made } = await createProject(work, maker.personId, project);
    const actor: Actor = { ...maker, projectId };
    for (const attachment of attachments) await noteAttachment(work, projectId, attachment, maker.at);
    await storeSettings(work, NO_SECRETS, projectId, 'administrator', withoutPeople(withoutSecrets(readableSettings(folder.settings))));
    const change = randomUUID();
    await writeArtefacts(work, actor, change, folder);
    await settle(work, projectId, folder);
    const { project: from, baseline } = folder.manifest;
    const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId }, transaction: work.transaction });
    const parts = rows.map((artefact) => ({ artefact, fromVersion: null, toVersion: artefact.head, undo: { kind: 'existence' as const, exists: false } }));
    await writeJournalEntry(work, actor, { action: 'import', parts, detail: `${from.name} B-${baseline.number} ${baseline.name}`.slice(0, 300), note: '' }, change);
    return made;
  });
}

/** Bytes are kept before anything else is: nothing is held while they are written. @throws {DomainError} when a file is not what it is named. */
async function keepFiles(files: Files, folder: ReadFolder): Promise<Awaited<ReturnType<typeof attachmentOf>>[]> {
  const total = [...folder.attachments.values()].reduce((sum, bytes) => sum + bytes.length, 0);
  if (total > LIMITS.projectAttachments) throw new DomainError({ code: 'quota_exceeded', of: 'project', limit: LIMITS.projectAttachments });
  const kept = [];
  for (const [hash, bytes] of folder.attachments) {
    const attachment = await attachmentOf(hash, bytes);
    if (attachment.id !== attachmentId(hash)) throw new DomainError({ code: 'folder_unreadable', at: `files/${hash}`, reason: 'has other bytes than it is named by' });
    await files.keep(bytes);
    kept.push(attachment);
  }
  return kept;
}

const NO_SECRETS = {
  seal: (): Buffer => {
    throw new Error('A folder carries no value of a secret constant');
  },
};

/** Who keeps a module there is nobody here. */
function withoutPeople(settings: ProjectSettings): ProjectSettings {
  return { ...settings, keepers: [] };
}

/** Of secret constants a folder has the names only: their values are to be set anew. */
function withoutSecrets(settings: ProjectSettings): ProjectSettings {
  return readableSettings({ ...settings, constants: settings.constants.map((constant) => (constant.secret ? { ...constant, value: '', others: {} } : constant)) });
}

const insertedRow = z.object({ id: z.string(), kind: z.string(), number: z.number() });

/** A page of contents at a time: all of them would be many times the room of their files. */
async function writeArtefacts(work: UnitOfWork, actor: Actor, change: string, { artefacts, versions, settings, valueOf }: ReadFolder): Promise<void> {
  const earlier = new Map<ArtefactId, FolderVersionHead[]>();
  for (const version of versions) earlier.set(version.id, [...(earlier.get(version.id) ?? []), version]);
  const ids = new Map<string, ArtefactId>();
  for (let from = 0; from < artefacts.length; from += AT_A_TIME) {
    const some = artefacts.slice(from, from + AT_A_TIME).map((artefact) => ({ artefact, value: valueOf(artefact) }));
    const rows = await insertRows(work, actor, some);
    const contents = some.flatMap(({ artefact, value }) => {
      const rowId = rows.get(artefact.id) ?? '';
      ids.set(rowId, artefact.id);
      return [{ rowId, version: artefact.version, value }, ...(earlier.get(artefact.id) ?? []).map((v) => ({ rowId, version: v.version, value: valueOf(v) }))];
    });
    await insertVersions(work, actor, change, contents.map(({ value, ...version }) => ({ ...version, stored: storedContent(value) })), '');
  }
  // Only now every link has where it leads, and only then circles are seen.
  await inPages(work, ids, (page) => deriveAnew(work, actor.projectId, settings.riskScale, page));
  await inPages(work, ids, (page) => refuseUnsound(work, actor.projectId, page));
}

interface Written {
  readonly rowId: string;
  readonly id: ArtefactId;
  readonly value: KindAndContent;
}

async function inPages(work: UnitOfWork, ids: ReadonlyMap<string, ArtefactId>, carryOut: (page: readonly Written[]) => Promise<void>): Promise<void> {
  const rows = [...ids];
  for (let from = 0; from < rows.length; from += AT_A_TIME) {
    const page = rows.slice(from, from + AT_A_TIME);
    const values = await readHeads(work, page.map(([id]) => ({ id })));
    await carryOut(page.flatMap(([rowId, id]) => {
      const value = values.get(rowId);
      return value === undefined ? [] : [{ rowId, id, value }];
    }));
  }
}

/** The rows with what is told of them; what is derived of their contents comes behind. Answers them by their ids. */
async function insertRows(work: UnitOfWork, { projectId, personId, at }: Actor, some: readonly { readonly artefact: FolderHead; readonly value: KindAndContent }[]): Promise<Map<ArtefactId, string>> {
  const records = some.map(({ artefact: { id, kind, state, version, meaningSince, agreed, position }, value }) => ({ kind, number: numberOf(id), state: stateOf(state, agreed, version), head: version, meaning_since: meaningSince, agreed_version: agreed, position, title: value.content.title }));
  const rows = await selectRows(
    work,
    insertedRow,
    `INSERT INTO artefact (project_id, author_id, updated_at, kind, number, state, head, meaning_since, agreed_version, position, title, module, owner, tags, facts)
     SELECT $2, $3, $4, r.kind, r.number, r.state, r.head, r.meaning_since, r.agreed_version, r.position, r.title, '', '', '{}', '{}' FROM jsonb_to_recordset($1::jsonb) AS r(kind text, number int, state text, head int, meaning_since int, agreed_version int, position int, title text)
     RETURNING id::text AS id, kind, number`,
    [JSON.stringify(records), projectId, personId, at],
  );
  const byKey = new Map(rows.map((row) => [`${row.kind} ${row.number}`, row.id]));
  return new Map(some.map(({ artefact: { id, kind } }) => [id, byKey.get(`${kind} ${numberOf(id)}`) ?? '']));
}

/** No review comes along: what was in one is a draft, or agreed as it was before. */
function stateOf(state: FolderHead['state'], agreed: number | null, version: number): FolderHead['state'] {
  if (state !== 'inReview') return state;
  return agreed === version ? 'agreed' : 'draft';
}

/** Where requirements stand, and which number comes next of each kind. */
async function settle(work: UnitOfWork, projectId: string, { artefacts }: ReadFolder): Promise<void> {
  const below = artefacts.flatMap(({ id, under }) => (under === null ? [] : [{ number: numberOf(id), above: numberOf(under) }]));
  await execute(
    work,
    `UPDATE artefact SET parent_id = above.id FROM jsonb_to_recordset($2::jsonb) AS r(number int, above int) JOIN artefact above ON above.project_id = $1 AND above.kind = 'requirement' AND above.number = r.above
     WHERE artefact.project_id = $1 AND artefact.kind = 'requirement' AND artefact.number = r.number`,
    [projectId, JSON.stringify(below)],
  );
  await execute(work, 'INSERT INTO artefact_counter (project_id, kind, last) SELECT $1, kind, max(number) FROM artefact WHERE project_id = $1 GROUP BY kind', [projectId]);
}

function numberOf(id: ArtefactId): number {
  return parseArtefactId(id)?.number ?? 0;
}
