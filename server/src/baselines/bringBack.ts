import { randomUUID } from 'node:crypto';
import type { BackStep, BaselineNumber } from '@caderno/core/baselines';
import type { BringBack, KindAndContent, ResponseOf } from '@caderno/contract';
import { changeOfRetry, changeStates, idOfRow, lockProject, refuseUnsound, writeJournalEntry, writeUnproven, type Actor, type JournalEntryPart, type Save } from '../artefacts/index.ts';
import { modelsOf, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { readChange, setExistence } from '../versions/index.ts';
import { contentsOfThen, stepsOf, type Back } from './planBack.ts';
import { baselineHead } from './read.ts';

/**
 * Brings artefacts back to how a baseline holds them, as one entry of the journal that can be undone: contents as new
 * versions, what is gone or withdrawn as drafts. What cannot be read any more is told and left as it is.
 * @throws {DomainError} when what would come of it could not stand.
 */
export async function bringBack(work: UnitOfWork, actor: Actor, number: BaselineNumber, { of }: BringBack): Promise<ResponseOf<'bringBack'>> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return { change: await readChange(work, actor.projectId, earlier), changed: 0, left: [] };
  const { name } = await baselineHead(work, actor.projectId, number);
  const planned = await stepsOf(work, actor.projectId, number, of);
  const contents = await contentsOfThen(work, planned);
  const isReadable = ({ steps, rowId }: Back): boolean => steps.includes('withdraw') || contents.has(rowId);
  const backs = planned.filter(isReadable);
  const left = planned.filter((b) => !isReadable(b)).map(({ id }) => ({ id, reason: 'broken' as const }));
  const change = randomUUID();
  const parts = await carryOut(work, actor, change, backs, contents);
  if (parts.length === 0) return { change: null, changed: 0, left };
  await writeJournalEntry(work, actor, { action: 'write', parts, detail: `brought back from B-${number} ${name}`.slice(0, 300), note: '' }, change);
  return { change: await readChange(work, actor.projectId, change), changed: new Set(parts.map((p) => p.artefact?.id)).size, left };
}

/** What is made again comes first, so that contents may lead there, and what is withdrawn last. */
async function carryOut(work: UnitOfWork, actor: Actor, change: string, backs: readonly Back[], contents: ReadonlyMap<string, KindAndContent>): Promise<JournalEntryPart[]> {
  const found = await modelsOf(work.db).Artefact.findAll({ where: { id: backs.map((b) => b.rowId) }, transaction: work.transaction });
  const byRow = new Map(found.map((row) => [row.id, row]));
  const rowsTo = (step: BackStep): ArtefactRow[] => backs.flatMap((b) => (b.steps.includes(step) ? (byRow.get(b.rowId) ?? []) : []));
  const remade = rowsTo('remake');
  const parts = remade.length === 0 ? [] : await setExistence(work, actor, remade, true);
  const saves = rowsTo('content').flatMap((row): Save[] => {
    const value = contents.get(row.id);
    return value === undefined ? [] : [{ row, value }];
  });
  parts.push(...(await writeUnproven(work, actor, change, saves)));
  parts.push(...(await changeStates(work, actor, rowsTo('return'), 'draft')), ...(await changeStates(work, actor, rowsTo('withdraw'), 'withdrawn')));
  // What is only made again is asked about too: what it uses may have gone since.
  await refuseUnsound(work, actor.projectId, backs.flatMap(({ rowId, steps }) => {
    const [row, value] = [byRow.get(rowId), contents.get(rowId)];
    return row === undefined || value === undefined || steps.includes('withdraw') ? [] : [{ id: idOfRow(row), value }];
  }));
  return parts;
}
