import { createHash } from 'node:crypto';
import { attachmentId, isPlainStep, pictureType, type AttachmentId } from '@caderno/core/cases';
import { LIMITS, type FileAnswer, type KindAndContent } from '@caderno/contract';
import { execute, selectRows, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';

/** Keeps a picture under the hash of its bytes: the same one again is kept once. */
export async function keepAttachment(work: Work, projectId: string, bytes: Uint8Array, at: Date): Promise<AttachmentId> {
  if (bytes.length > LIMITS.picture) throw new Refused({ code: 'attachment_too_large', limit: LIMITS.picture });
  const type = pictureType(bytes);
  if (type === null) throw new Refused({ code: 'attachment_not_picture' });
  const id = attachmentId(createHash('sha256').update(bytes).digest('hex'));
  await execute(work, 'INSERT INTO attachment (project_id, id, type, bytes, kept_at) VALUES ($1, $2, $3, $4, $5) ON CONFLICT DO NOTHING', [projectId, id, type, Buffer.from(bytes), at]);
  return id;
}

export async function readAttachment(work: Work, projectId: string, id: AttachmentId): Promise<FileAnswer> {
  const [found] = await selectRows<{ type: string; bytes: Buffer }>(work, 'SELECT type, bytes FROM attachment WHERE project_id = $1 AND id = $2', [projectId, id]);
  if (found === undefined) throw new Refused({ code: 'attachment_unknown', name: id.slice(0, 8) });
  return { name: `picture.${found.type.slice('image/'.length)}`, type: found.type, bytes: found.bytes };
}

/** @throws Refused when a step names a picture that is not kept in the project. */
export async function refuseUnknownAttachments(work: Work, projectId: string, values: readonly KindAndContent[]): Promise<void> {
  const steps = values.flatMap((v) => (v.kind === 'case' || v.kind === 'shared' ? v.content.steps : []));
  const named = steps.filter(isPlainStep).flatMap((s) => s.attachments);
  if (named.length === 0) return;
  const kept = await selectRows<{ id: string }>(work, 'SELECT id FROM attachment WHERE project_id = $1 AND id = ANY($2)', [projectId, [...new Set(named.map((a) => a.id))]]);
  const lost = named.find((a) => !kept.some((k) => k.id === a.id));
  if (lost !== undefined) throw new Refused({ code: 'attachment_unknown', name: lost.name });
}
