import { randomUUID } from 'node:crypto';
import { artefactId, type SharedId } from '@caderno/core/artefacts';
import type { Step } from '@caderno/core/cases';
import type { Change, KindAndContent, TakeOut } from '@caderno/contract';
import { changeOfRetry, dropDraft, idOfRow, insertArtefacts, lockProject, writeJournalEntry, reserveNumbers, writeVersions, type Actor } from '../artefacts/index.ts';
import type { UnitOfWork } from '../database/index.ts';
import { takeRemarksAlong } from '../remarks/index.ts';
import { findUnmoved, madeBy, readChange } from '../versions/index.ts';

type User = TakeOut['users'][number];

/**
 * Makes shared steps of a run of steps and uses them where the run stood, in one case or in many, as one entry of the
 * journal. The first user is the one who took them out: its draft has become the version.
 * @throws {DomainError} `version_moved` when a user is no longer at the version named: nothing is done then.
 */
export async function takeOut(work: UnitOfWork, actor: Actor, { shared, users }: TakeOut): Promise<{ change: Change | null; made: SharedId[] }> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return { change: await readChange(work, actor.projectId, earlier), made: (await madeBy(work, earlier)).filter((id): id is SharedId => id.startsWith('S-')) };
  const change = randomUUID();
  const number = await reserveNumbers(work, actor.projectId, 'shared', 1);
  const id = artefactId('shared', number);
  const { parts } = await insertArtefacts(work, actor, change, [{ number, value: { kind: 'shared', content: shared }, parent: null, position: 0 }]);
  const saves = [];
  for (const user of users) saves.push({ row: await findUnmoved(work, actor.projectId, user), value: withUses(user, id) });
  const [first] = saves;
  const [made] = parts;
  if (first !== undefined) await dropDraft(work, actor.projectId, actor.personId, idOfRow(first.row));
  if (first !== undefined && made?.artefact != null) await takeRemarksAlong(work, actor.projectId, first.row, made.artefact, shared.steps.map((s) => s.id));
  const saved = await writeVersions(work, actor, change, saves);
  await writeJournalEntry(work, actor, { action: 'takeOut', parts: [...parts, ...saved], detail: shared.title, note: '' }, change);
  return { change: await readChange(work, actor.projectId, change), made: [id] };
}

function withUses(user: User, shared: SharedId): KindAndContent {
  const steps = user.uses.reduce<readonly Step[]>((all, { at, step, arguments: given }) => all.toSpliced(at, 0, { kind: 'shared', id: step, shared, pinned: null, arguments: given }), user.content.steps);
  return user.kind === 'case' ? { kind: 'case', content: { ...user.content, steps } } : { kind: 'shared', content: { ...user.content, steps } };
}
