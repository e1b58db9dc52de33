import { randomUUID } from 'node:crypto';
import { ARTEFACT_KINDS, type ArtefactId } from '@caderno/core/artefacts';
import type { Change, Write } from '@caderno/contract';
import { changeOfRetry, findArtefact, idOfRow, insertArtefacts, lastPosition, lockProject, recordDeed, reserveNumbers, writeVersions, type Commander, type DeedPart, type Save } from '../artefacts/index.ts';
import type { Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { readChange } from './journal.ts';

/**
 * Makes and changes several artefacts as one entry of the journal. Nothing is done unless all of it can be.
 * @throws Refused `version_moved` when one that is to be changed is no longer at the version named.
 */
export async function writeArtefacts(work: Work, commander: Commander, { made, changed, detail }: Write): Promise<{ change: Change | null; made: ArtefactId[] }> {
  await lockProject(work, commander.projectId);
  const earlier = await changeOfRetry(work, commander);
  if (earlier !== null) return { change: await readChange(work, commander.projectId, earlier), made: [] };
  const change = randomUUID();
  const saves: Save[] = [];
  for (const { id, version, ...value } of changed) {
    const row = await findArtefact(work, commander.projectId, id);
    if (row.kind !== value.kind) throw new Refused({ code: 'kind_mismatch', id, kind: value.kind });
    if (row.head !== version) throw new Refused({ code: 'version_moved', id, head: row.head, base: version, author: 'someone' });
    saves.push({ row, value });
  }
  const parts = [...(await insertMade(work, commander, change, made)), ...(await writeVersions(work, commander, change, saves))];
  if (parts.length === 0) return { change: null, made: [] };
  await recordDeed(work, commander, { action: 'write', parts, detail, note: '' }, change);
  const ids = parts.slice(0, made.length).flatMap((p) => (p.artefact === null ? [] : [idOfRow(p.artefact)]));
  return { change: await readChange(work, commander.projectId, change), made: ids };
}

async function insertMade(work: Work, commander: Commander, change: string, made: Write['made']): Promise<DeedPart[]> {
  const parts = new Map<number, DeedPart>();
  for (const kind of ARTEFACT_KINDS) {
    const own = made.flatMap((value, at) => (value.kind === kind ? [{ value, at }] : []));
    if (own.length === 0) continue;
    const first = await reserveNumbers(work, commander.projectId, kind, own.length);
    const position = kind === 'requirement' ? await lastPosition(work, commander.projectId, null) : 0;
    const inserted = await insertArtefacts(work, commander, change, own.map(({ value }, i) => ({ number: first + i, value, parent: null, position: kind === 'requirement' ? position + i + 1 : 0 })));
    own.forEach(({ at }, i) => {
      const part = inserted.parts[i];
      if (part !== undefined) parts.set(at, part);
    });
  }
  return made.flatMap((_, at) => parts.get(at) ?? []);
}
