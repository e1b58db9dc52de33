import { withOffer, type RemarkId, type RemarkThread } from '@caderno/core/remarks';
import { asJson } from '@caderno/core/versions';
import { kindAndContentSchema, remarkThreadSchema } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact, lockProject, readContent, saveArtefact, type Actor } from '../artefacts/index.ts';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { findRemark, settle, told, type Speaker } from './remarks.ts';

const offerRow = z.object({ place: remarkThreadSchema.shape.place, offer: z.string().nullable(), name: z.string(), taken: z.boolean() });

/**
 * Makes the next version from `version`, with what a remark offers at its place; the thread is settled by it. Taken
 * twice it is taken once.
 * @throws {DomainError} `offer_gone` when nothing is offered, or there is nothing any more it could stand for;
 * `offer_unfit` when what it would make cannot be read again, or has no title;
 * `version_moved` when somebody saved meanwhile: nobody takes what they have not seen.
 */
export async function takeOffer(work: UnitOfWork, speaker: Speaker, actor: Actor, id: RemarkId, version: number): Promise<RemarkThread[]> {
  // As every command that makes versions: the project first, then what belongs to it.
  await lockProject(work, speaker.projectId);
  const there = await findRemark(work, speaker, id);
  const [offered] = await selectRows(
    work,
    offerRow,
    'SELECT t.place, r.offer, p.name, r.taken_at IS NOT NULL AS taken FROM remark r JOIN remark t ON t.id = r.thread_id JOIN person p ON p.id = r.author_id WHERE r.id = $1',
    [id],
  );
  if (offered === undefined || offered.offer === null) throw new DomainError({ code: 'offer_gone' });
  if (offered.taken) return told(work, speaker, there.of);
  const row = await findArtefact(work, speaker.projectId, there.of);
  const value = await readContent(work, row, row.head);
  const next = withOffer(asJson(value.content), offered.place, offered.offer);
  if (next === null) throw new DomainError({ code: 'offer_gone' });
  const read = kindAndContentSchema.safeParse({ kind: value.kind, content: next });
  if (!read.success || read.data.content.title.trim() === '') throw new DomainError({ code: 'offer_unfit' });
  const saved = await saveArtefact(work, actor, there.of, version, read.data, `Offered by ${offered.name}`, { keeps: true });
  await execute(work, 'UPDATE remark SET taken_at = $2, taken_by = $3, taken_version = $4 WHERE id = $1', [id, speaker.at, speaker.personId, saved.head]);
  await settle(work, there.thread, speaker);
  return told(work, speaker, there.of);
}
