import { attachmentId, isPlainStep, pictureType, type AttachmentId, type PictureType } from '@caderno/core/cases';
import { imageSize } from 'image-size';
import { LIMITS, type FileAnswer, type KindAndContent } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, idRow, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { fileHash, type Files } from '../files/index.ts';

/** A picture that may be kept, with what its bytes say that it is. */
export interface Picture {
  readonly type: PictureType;
  readonly size: number;
}

/** Keeps a picture under the hash of its bytes. @throws {DomainError} when it is no picture that can be shown, or the project has no room. */
export async function keepAttachment(db: Sequelize, files: Files, projectId: string, bytes: Uint8Array, at: Date): Promise<AttachmentId> {
  const picture = pictureOf(bytes);
  const id = attachmentId(fileHash(bytes));
  await inTransaction(db, (work) => refuseFullProject(work, projectId, id, picture.size));
  await files.keep(bytes);
  await inTransaction(db, (work) => noteAttachment(work, projectId, id, picture, at));
  return id;
}

/** What a picture is. @throws {DomainError} when it is none that can be shown. */
export function pictureOf(bytes: Uint8Array): Picture {
  if (bytes.length > LIMITS.picture) throw new DomainError({ code: 'attachment_too_large', limit: LIMITS.picture });
  const type = pictureType(bytes);
  if (type === null) throw new DomainError({ code: 'attachment_not_picture' });
  refuseWidePicture(bytes);
  return { type, size: bytes.length };
}

/** Notes that a project has a picture whose bytes are kept. */
export async function noteAttachment(work: UnitOfWork, projectId: string, id: AttachmentId, { type, size }: Picture, at: Date): Promise<void> {
  await execute(work, 'INSERT INTO attachment (project_id, id, type, size, kept_at) VALUES ($1, $2, $3, $4, $5) ON CONFLICT DO NOTHING', [projectId, id, type, size, at]);
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
  const [kept] = await selectRows(work, keptRow, 'SELECT coalesce(sum(size), 0) AS bytes, coalesce(bool_or(id = $2), false) AS there FROM attachment WHERE project_id = $1', [projectId, id]);
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

const typeRow = z.object({ type: z.string() });

/** A picture of a project, to be sent. @throws {DomainError} when the project has none of this hash. */
export async function readAttachment(db: Sequelize, files: Files, projectId: string, id: AttachmentId): Promise<FileAnswer> {
  const [found] = await inTransaction(db, (work) => selectRows(work, typeRow, 'SELECT type FROM attachment WHERE project_id = $1 AND id = $2', [projectId, id]));
  const bytes = found === undefined ? null : await files.read(id);
  if (found === undefined || bytes === null) throw new DomainError({ code: 'attachment_unknown', name: id.slice(0, 8) });
  return { name: `picture.${found.type.slice('image/'.length)}`, type: found.type, bytes, neverChanges: true };
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
