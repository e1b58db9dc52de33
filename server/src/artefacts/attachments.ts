import { createHash } from 'node:crypto';
import { attachmentId, isPlainStep, pictureType, type AttachmentId } from '@caderno/core/cases';
import { imageSize } from 'image-size';
import { LIMITS, type FileAnswer, type KindAndContent } from '@caderno/contract';
import { z } from 'zod';
import { answersAny, idRow, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** Keeps a picture under the hash of its bytes: the same one again is kept once. */
export async function keepAttachment(work: UnitOfWork, projectId: string, bytes: Uint8Array, at: Date): Promise<AttachmentId> {
  if (bytes.length > LIMITS.picture) throw new DomainError({ code: 'attachment_too_large', limit: LIMITS.picture });
  const type = pictureType(bytes);
  if (type === null) throw new DomainError({ code: 'attachment_not_picture' });
  refuseWidePicture(bytes);
  const id = attachmentId(createHash('sha256').update(bytes).digest('hex'));
  await refuseFullProject(work, projectId, id, bytes.length);
  await execute(work, 'INSERT INTO attachment (project_id, id, type, bytes, kept_at) VALUES ($1, $2, $3, $4, $5) ON CONFLICT DO NOTHING', [projectId, id, type, Buffer.from(bytes), at]);
  return id;
}

/** A small file may hold a picture that takes gigabytes once it is shown. */
const WIDEST = { side: 10_000, pixels: 50_000_000 } as const;

function refuseWidePicture(bytes: Uint8Array): void {
  const { width, height } = sizeOf(bytes);
  if (width > WIDEST.side || height > WIDEST.side || width * height > WIDEST.pixels) throw new DomainError({ code: 'attachment_too_wide', ...WIDEST });
}

/** @throws {DomainError} when the picture says no size: nothing could show it. */
function sizeOf(bytes: Uint8Array): { readonly width: number; readonly height: number } {
  try {
    return imageSize(bytes);
  } catch (cause) {
    // The library throws whatever it stumbles over in a file that only looks like a picture.
    throw new DomainError({ code: 'attachment_not_picture' }, { cause });
  }
}

const keptRow = z.object({ bytes: z.string(), there: z.boolean() });

async function refuseFullProject(work: UnitOfWork, projectId: string, id: AttachmentId, size: number): Promise<void> {
  const [kept] = await selectRows(work, keptRow, 'SELECT coalesce(sum(length(bytes)), 0) AS bytes, coalesce(bool_or(id = $2), false) AS there FROM attachment WHERE project_id = $1', [projectId, id]);
  if (kept !== undefined && !kept.there && Number(kept.bytes) + size > LIMITS.projectPictures) throw new DomainError({ code: 'quota_exceeded', of: 'project', limit: LIMITS.projectPictures });
}

/** How long a picture is kept that no version and no draft names: somebody may be about to save. */
const UNUSED_HOURS = 48;

/** Removes pictures that nothing names any more. Answers how many. */
export async function sweepAttachments(work: UnitOfWork): Promise<number> {
  const old = await answersAny(work, `SELECT 1 FROM attachment WHERE kept_at < now() - interval '${UNUSED_HOURS} hours' LIMIT 1`);
  if (!old) return 0;
  const named = (table: string): string => `SELECT a.project_id, p #>> '{}' AS id FROM ${table} v JOIN artefact a ON a.id = v.artefact_id AND a.kind IN ('case', 'shared'), jsonb_path_query(v.content, '$.steps[*].attachments[*].id') p`;
  const swept = await selectRows(
    work,
    idRow,
    `WITH named AS (${named('artefact_version')} UNION ${named('draft')})
     DELETE FROM attachment WHERE kept_at < now() - interval '${UNUSED_HOURS} hours' AND NOT EXISTS (SELECT 1 FROM named WHERE named.project_id = attachment.project_id AND named.id = attachment.id) RETURNING id`,
  );
  return swept.length;
}

const attachmentRow = z.object({ type: z.string(), bytes: z.instanceof(Buffer) });

export async function readAttachment(work: UnitOfWork, projectId: string, id: AttachmentId): Promise<FileAnswer> {
  const [found] = await selectRows(work, attachmentRow, 'SELECT type, bytes FROM attachment WHERE project_id = $1 AND id = $2', [projectId, id]);
  if (found === undefined) throw new DomainError({ code: 'attachment_unknown', name: id.slice(0, 8) });
  return { name: `picture.${found.type.slice('image/'.length)}`, type: found.type, bytes: found.bytes, neverChanges: true };
}

/** @throws {DomainError} when a step names a picture that is not kept in the project. */
export async function refuseUnknownAttachments(work: UnitOfWork, projectId: string, values: readonly KindAndContent[]): Promise<void> {
  const steps = values.flatMap((v) => (v.kind === 'case' || v.kind === 'shared' ? v.content.steps : []));
  const named = steps.filter(isPlainStep).flatMap((s) => s.attachments);
  if (named.length === 0) return;
  const kept = await selectRows(work, idRow, 'SELECT id FROM attachment WHERE project_id = $1 AND id = ANY($2)', [projectId, [...new Set(named.map((a) => a.id))]]);
  const lost = named.find((a) => !kept.some((k) => k.id === a.id));
  if (lost !== undefined) throw new DomainError({ code: 'attachment_unknown', name: lost.name });
}
