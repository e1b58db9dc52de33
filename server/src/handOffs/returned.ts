import { createHash } from 'node:crypto';
import { GUESS_ALL, readFile } from '@caderno/core/exchange';
import { RETURNED_TABLE, executedInstances, handOffName, notesOfTable, returnedProposals, type ReturnedNote, type ReturnedProposal } from '@caderno/core/handOffs';
import { remarkId, type RemarkId } from '@caderno/core/remarks';
import { LIMITS, MOST_RETURNED_TOLD, handOffNotesSchema, type ReturnedNotes } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { idRow, inSnapshot, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readHanded, type WhichHandOff } from './handed.ts';

/** A file that came back for a hand-off. */
export interface ReadReturned extends WhichHandOff {
  readonly name: string;
  readonly path: string;
}

/** What was noted in a file of a hand-off: remarks and changed texts at the places where the steps are written, as they can be put there. */
export async function readReturned(db: Sequelize, { name, ...which }: ReadReturned, bytes: Uint8Array): Promise<ReturnedNotes> {
  const { by, notes } = name.toLowerCase().endsWith('.json') ? notesOfPage(bytes) : { by: '', notes: await notesOfSheet(name, bytes) };
  return inSnapshot(db, (work) => placedNotes(work, which, by, notes));
}

/** Notes at the places where what was executed is written, and those that have none. */
export async function placedNotes(work: UnitOfWork, which: WhichHandOff, by: string, notes: readonly ReturnedNote[]): Promise<ReturnedNotes> {
  const { lines, handed, ...head } = await readHanded(work, which);
  const handOff = handOffName(head);
  const { proposals, unplaced } = returnedProposals(notes, { handOff, lines, contents: handed.contents, library: handed.library, instances: executedInstances(lines, handed) });
  const [long, fitting] = [proposals.filter(isTooLong), proposals.filter((p) => !isTooLong(p))];
  const named = fitting.map((p) => ({ ...p, said: p.said.slice(0, LIMITS.title).toWellFormed(), instances: [...p.instances], remark: idOf(`${which.projectId} ${handOff}`, p) }));
  const there = new Set((await selectRows(work, idRow, 'SELECT id::text AS id FROM remark WHERE id = ANY($1::uuid[])', [named.map((p) => p.remark)])).map((row) => row.id));
  // Those that are at their places come last: the same file again tells of the rest.
  const told = named.map((p) => ({ ...p, there: there.has(p.remark) })).toSorted((x, y) => Number(x.there) - Number(y.there));
  const without = [...unplaced, ...long.map((p) => ({ instance: p.instances[0] ?? '', step: p.step, why: 'tooLong' as const }))];
  return {
    by,
    proposals: told.slice(0, MOST_RETURNED_TOLD),
    total: fitting.length,
    unplaced: without.slice(0, MOST_RETURNED_TOLD).map((u) => ({ ...u, step: Number.isInteger(u.step) ? u.step : null })),
    unplacedTotal: without.length,
  };
}

/** What no remark can hold. */
function isTooLong({ text, offer }: ReturnedProposal): boolean {
  return text.length > LIMITS.definition || (offer ?? '').length > LIMITS.text;
}

function notesOfPage(bytes: Uint8Array): { readonly by: string; readonly notes: readonly ReturnedNote[] } {
  const read = handOffNotesSchema.safeParse(jsonOf(bytes));
  if (!read.success) throw new DomainError({ code: 'returned_unreadable' });
  const { project, handOff, by, notes } = read.data;
  return { by, notes: notes.map(({ instance, step, remark, minutes }) => ({ handOff: `${project} H-${handOff}`, instance, step, remark: remark.trim(), action: null, expected: null, minutes: minutes.trim() })) };
}

function jsonOf(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch (cause) {
    throw new DomainError({ code: 'returned_unreadable' }, { cause });
  }
}

async function notesOfSheet(name: string, bytes: Uint8Array): Promise<readonly ReturnedNote[]> {
  const { columns, records, problems } = await readFile(name, bytes, GUESS_ALL, { table: RETURNED_TABLE });
  if (problems.some((p) => p.code === 'too_many_records' || p.code === 'sheet_too_tall')) throw new DomainError({ code: 'returned_too_long', limit: RETURNED_TABLE.most });
  const notes = notesOfTable(columns, records.map((r) => r.cells));
  if (notes === null || problems.some((p) => p.severity === 'error')) throw new DomainError({ code: 'returned_unreadable' });
  return notes;
}

/** A UUID of one's own making (RFC 9562, version 8): the same for the same words at the same place of the same hand-off. */
function idOf(handOff: string, { of, place, text, offer }: ReturnedProposal): RemarkId {
  const hash = createHash('sha256').update(JSON.stringify([handOff, of, place, text, offer])).digest('hex');
  return remarkId(`${hash.slice(0, 8)}-${hash.slice(8, 12)}-8${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`);
}
