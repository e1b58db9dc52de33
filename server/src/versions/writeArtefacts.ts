import { randomUUID } from 'node:crypto';
import { ARTEFACT_KINDS, artefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import type { Change, KindAndContent, Write } from '@caderno/contract';
import { changeOfRetry, changeStates, findArtefact, idOfRow, insertArtefacts, lastPosition, lockProject, writeJournalEntry, reserveNumbers, writeVersions, type Actor, type JournalEntryPart, type NewArtefactRow, type Save } from '../artefacts/index.ts';
import { artefactKeyRow, modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readChange } from './journal.ts';

type Made = Write['made'][number];

/**
 * Makes, changes and withdraws several artefacts as one entry of the journal. Nothing is done unless all of it can be.
 * @throws {DomainError} `version_moved` when one that is to be changed is no longer at the version named.
 */
export async function writeArtefacts(work: UnitOfWork, actor: Actor, { made, changed, withdrawn, states = [], detail }: Write): Promise<{ change: Change | null; made: ArtefactId[] }> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return { change: await readChange(work, actor.projectId, earlier), made: await madeBy(work, earlier) };
  const change = randomUUID();
  const saves: Save[] = [];
  for (const { id, version, ...value } of changed) {
    saves.push({ row: await findUnmoved(work, actor.projectId, { id, kind: value.kind, version }), value });
  }
  const inserted = await insertMade(work, actor, change, made);
  const parts = [...inserted, ...(await writeVersions(work, actor, change, saves))];
  for (const id of withdrawn) parts.push(...(await changeStates(work, actor, [await findArtefact(work, actor.projectId, id)], 'withdrawn')));
  for (const { id, state } of states) {
    const row = await findArtefact(work, actor.projectId, id);
    if (row.state !== state) parts.push(...(await changeStates(work, actor, [row], state)));
  }
  if (parts.length === 0) return { change: null, made: [] };
  await writeJournalEntry(work, actor, { action: 'write', parts, detail, note: '' }, change);
  return { change: await readChange(work, actor.projectId, change), made: inserted.flatMap((p) => (p.artefact === null ? [] : [idOfRow(p.artefact)])) };
}

/** The artefact that is to be changed. @throws {DomainError} when it is of another kind or no longer at the version named. */
export async function findUnmoved(work: UnitOfWork, projectId: string, { id, kind, version }: { readonly id: ArtefactId; readonly kind: ArtefactKind; readonly version: number }): Promise<ArtefactRow> {
  const row = await findArtefact(work, projectId, id);
  if (row.kind !== kind) throw new DomainError({ code: 'kind_mismatch', id, kind });
  if (row.head === version) return row;
  const author = await modelsOf(work.db).Person.findByPk(row.authorId, { transaction: work.transaction });
  throw new DomainError({ code: 'version_moved', id, head: row.head, base: version, author: author?.name ?? 'someone' });
}

/** What an earlier command made, in the order of its parts. */
export async function madeBy(work: UnitOfWork, change: string): Promise<ArtefactId[]> {
  const rows = await selectRows(
    work,
    artefactKeyRow,
    `SELECT a.kind, a.number FROM change_part p JOIN artefact a ON a.id = p.artefact_id WHERE p.change_id = $1 AND p.from_version IS NULL AND p.to_version = 1 ORDER BY a.kind, a.number`,
    [change],
  );
  return rows.map((row) => artefactId(row.kind, row.number));
}

/** Parts in the order in which the artefacts were asked for; kinds are numbered apart. */
async function insertMade(work: UnitOfWork, actor: Actor, change: string, made: readonly Made[]): Promise<JournalEntryPart[]> {
  const parts: { at: number; part: JournalEntryPart }[] = [];
  for (const kind of ARTEFACT_KINDS) {
    const places = made.flatMap((value, at) => (value.kind === kind ? [at] : []));
    if (places.length === 0) continue;
    const first = await reserveNumbers(work, actor.projectId, kind, places.length);
    const position = kind === 'requirement' ? (await lastPosition(work, actor.projectId, null)) + 1 : 0;
    const numberOf = new Map(places.map((at, i) => [at, first + i]));
    const rows = places.flatMap((at, i): NewArtefactRow[] => (made[at] === undefined ? [] : [{ number: first + i, value: placed(made[at], numberOf), parent: null, position: position + (kind === 'requirement' ? i : 0) }]));
    const inserted = await insertArtefacts(work, actor, change, rows);
    inserted.parts.forEach((part, i) => parts.push({ at: places[i] ?? 0, part }));
  }
  return parts.toSorted((a, b) => a.at - b.at).map((p) => p.part);
}

/** A condition that stands below another new one learns that one's id only now. */
function placed({ under, ...value }: Made, numberOf: ReadonlyMap<number, number>): KindAndContent {
  const number = under == null ? undefined : numberOf.get(under);
  if (value.kind !== 'condition' || number === undefined) return value;
  return { kind: 'condition', content: { ...value.content, under: artefactId('condition', number) } };
}
