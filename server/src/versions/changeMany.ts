import { randomUUID } from 'node:crypto';
import { artefactId, type ArtefactId } from '@caderno/core/artefacts';
import { cloneCase } from '@caderno/core/cases';
import { copiedTo } from '@caderno/core/conditions';
import { ownTextFields } from '@caderno/core/fields';
import { editMany, type EditingProject } from '@caderno/core/many';
import { withReplaced } from '@caderno/core/replacing';
import { KIND_SCHEMA, type ChangeMany, type ChangedMany, type KindAndContent, type LeftReason } from '@caderno/contract';
import { changeOfRetry, changeStates, idOfRow, insertArtefacts, keptByOthers, lockProject, readHeads, reserveNumbers, rowsOfIds, writeJournalEntry, writeVersions, type Actor, type JournalEntryPart } from '../artefacts/index.ts';
import { idRow, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { finderOrRefused } from '../find/index.ts';
import { readSettings } from '../projects/index.ts';
import { readChange } from './journal.ts';
import { madeBy } from './writeArtefacts.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;
/** Clones made by one command. */
const MOST_MADE = 5_000;

/** What became of some of them. */
interface Done {
  readonly parts: readonly JournalEntryPart[];
  readonly left: ChangedMany['left'];
}

/**
 * Does the same with many artefacts as one entry of the journal, on what they are now: nobody's version is asked for.
 * What cannot be done with one of them is told, the rest is done.
 * @throws {DomainError} when what would come of it could not stand, as cases that wait for each other.
 */
export async function changeMany(work: UnitOfWork, actor: Actor, ids: readonly ArtefactId[], { done, detail }: Pick<ChangeMany, 'done' | 'detail'>): Promise<ChangedMany> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return { change: await readChange(work, actor.projectId, earlier), changed: 0, made: await madeBy(work, earlier), left: [] };
  if (done.kind === 'clone' && ids.length * done.sets.length > MOST_MADE) throw new DomainError({ code: 'too_many_made', limit: MOST_MADE });
  const change = randomUUID();
  const { settings } = await readSettings(work, actor.projectId);
  const found = await rowsOfIds(work, actor.projectId, ids);
  const parts: JournalEntryPart[] = [];
  const left: ChangedMany['left'] = found.absent.map((id) => ({ id, reason: 'absent' }));
  // A condition that is copied to another requirement stays as it is where it was; a clone is in the same module.
  const kept = new Map(done.kind === 'copyTo' ? [] : (await keptByOthers(work, actor, found.rows.map((row) => ({ id: row.id, before: null })))).map((k) => [k.rowId, k.id]));
  left.push(...[...kept.values()].map((id) => ({ id, reason: 'kept' as const })));
  const rows = found.rows.filter((row) => !kept.has(row.id));
  for (let from = 0; from < rows.length; from += AT_A_TIME) {
    const some = await doneWith(work, actor, change, rows.slice(from, from + AT_A_TIME), done, settings);
    parts.push(...some.parts);
    left.push(...some.left);
  }
  if (parts.length === 0) return { change: null, changed: 0, made: [], left };
  await writeJournalEntry(work, actor, { action: 'write', parts, detail, note: '' }, change);
  const made = parts.flatMap((p) => (p.artefact !== null && p.fromVersion === null && p.toVersion === 1 ? [idOfRow(p.artefact)] : []));
  return { change: await readChange(work, actor.projectId, change), changed: parts.length - made.length, made, left };
}

function doneWith(work: UnitOfWork, actor: Actor, change: string, rows: readonly ArtefactRow[], done: ChangeMany['done'], project: EditingProject): Promise<Done> {
  switch (done.kind) {
    case 'state':
      return changeStates(work, actor, rows.filter((r) => r.state !== done.state), done.state).then((parts) => ({ parts, left: [] }));
    case 'edit':
      return edited(work, actor, change, rows, (value) => editMany(done.edit, value, project));
    case 'replace':
      return replaced(work, actor, change, rows, done);
    case 'clone':
      return madeOf(work, actor, change, rows, (row, head) => (head.kind === 'case' ? done.sets.map((set) => ({ kind: 'case', content: cloneCase({ id: artefactId('case', row.number), version: row.head }, head.content, done.parts, set) })) : null));
    case 'copyTo':
      return madeOf(work, actor, change, rows, (_, head) => (head.kind === 'condition' ? [{ kind: 'condition', content: copiedTo(head.content, done.requirement, done.seenVersion) }] : null));
  }
}

async function edited(work: UnitOfWork, actor: Actor, change: string, rows: readonly ArtefactRow[], edit: (value: KindAndContent) => ReturnType<typeof editMany>): Promise<Done> {
  const heads = await readHeads(work, rows);
  const left: { id: ArtefactId; reason: LeftReason }[] = [];
  const saves = rows.flatMap((row) => {
    const head = heads.get(row.id);
    const value = head === undefined ? undefined : edit(head);
    if (value == null) left.push({ id: idOfRow(row), reason: head === undefined ? 'broken' : 'otherKind' });
    // Checked by its schema like all that is written.
    return value == null || value === head || head === undefined ? [] : [{ row, value: value as KindAndContent, head }];
  });
  return { parts: await writeVersions(work, actor, change, saves), left };
}

/** What would be left without a title, or with a text that is too long, stays as it is, and so does what changed since it was looked through. */
async function replaced(work: UnitOfWork, actor: Actor, change: string, rows: readonly ArtefactRow[], { search, parts, without, asOf }: Extract<ChangeMany['done'], { kind: 'replace' }>): Promise<Done> {
  const replacing = { find: finderOrRefused(search), parts: new Set(parts), own: ownTextFields((await readSettings(work, actor.projectId)).settings.fields) };
  const moved = new Set((await selectRows(work, idRow, 'SELECT id FROM artefact WHERE id = ANY($1) AND revision > $2', [rows.map((r) => r.id), asOf])).map((r) => r.id));
  const unticked = new Map(without.map(({ id, paths }) => [id, new Set(paths)]));
  const heads = await readHeads(work, rows);
  const left: { id: ArtefactId; reason: LeftReason }[] = [];
  const saves = rows.flatMap((row) => {
    const head = heads.get(row.id);
    const id = idOfRow(row);
    const value = head === undefined ? undefined : withReplaced(head, replacing, unticked.get(id) ?? new Set());
    if (value === head) return [];
    const reason = head === undefined || value === undefined ? 'broken' : moved.has(row.id) ? 'changedMeanwhile' : value.content.title.trim() === '' ? 'untitled' : KIND_SCHEMA[value.kind].content.safeParse(value.content).success ? null : 'tooLong';
    if (reason !== null) left.push({ id, reason });
    return reason !== null || head === undefined || value === undefined ? [] : [{ row, value, head }];
  });
  return { parts: await writeVersions(work, actor, change, saves), left };
}

/** Makes new artefacts, all of one kind, of those that have something to make them of (null: they have not). */
async function madeOf(work: UnitOfWork, actor: Actor, change: string, rows: readonly ArtefactRow[], make: (row: ArtefactRow, head: KindAndContent) => readonly KindAndContent[] | null): Promise<Done> {
  const heads = await readHeads(work, rows);
  const left: { id: ArtefactId; reason: LeftReason }[] = [];
  const values = rows.flatMap((row) => {
    const head = heads.get(row.id);
    const made = head === undefined ? null : make(row, head);
    if (made === null) left.push({ id: idOfRow(row), reason: head === undefined ? 'broken' : 'otherKind' });
    return made ?? [];
  });
  const [some] = values;
  if (some === undefined) return { parts: [], left };
  const first = await reserveNumbers(work, actor.projectId, some.kind, values.length);
  const made = values.map((value, i) => ({ number: first + i, value, parent: null, position: 0 }));
  return { parts: (await insertArtefacts(work, actor, change, made)).parts, left };
}
