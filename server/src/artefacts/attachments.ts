import { ATTACHMENT_TYPES, attachmentForm, attachmentId, safeFileName, type Attachment, type AttachmentId, type AttachmentType } from '@caderno/core/attachments';
import { isPlainStep } from '@caderno/core/cases';
import { imageSize } from 'image-size';
import { LIMITS, type FileAnswer, type KindAndContent } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { answersAny, execute, idRow, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { fileHash, typeOfFile, type Files } from '../files/index.ts';

/** What the bytes of a file say that it is. */
interface Known {
  readonly type: AttachmentType;
  readonly size: number;
}

/** Keeps a file under the hash of its bytes; answers how it is named. @throws {DomainError} when it is of no kind that is kept, or the project has no room. */
export async function keepAttachment(db: Sequelize, files: Files, projectId: string, name: string, bytes: Uint8Array, at: Date): Promise<Attachment> {
  const attachment = await attachmentOf(name, bytes);
  await inTransaction(db, (work) => refuseFullProject(work, projectId, attachment.id, attachment.size));
  await files.keep(bytes);
  await inTransaction(db, (work) => noteAttachment(work, projectId, attachment, at));
  return attachment;
}

/** How bytes are named once they are kept. @throws {DomainError} when they are of no kind that is. */
export async function attachmentOf(name: string, bytes: Uint8Array): Promise<Attachment & Known> {
  if (bytes.length > LIMITS.attachment) throw new DomainError({ code: 'attachment_too_large', limit: LIMITS.attachment });
  const type = await typeOfFile(bytes);
  if (type === null) throw new DomainError({ code: 'attachment_type_refused', name });
  if (attachmentForm(type) === 'picture') refuseWidePicture(name, bytes);
  return { id: attachmentId(fileHash(bytes)), name: safeFileName(name, type), type, size: bytes.length };
}

/** Notes that a project has a file whose bytes are kept. */
export async function noteAttachment(work: UnitOfWork, projectId: string, { id, type, size }: { readonly id: AttachmentId } & Known, at: Date): Promise<void> {
  await execute(work, 'INSERT INTO attachment (project_id, id, type, size, kept_at) VALUES ($1, $2, $3, $4, $5) ON CONFLICT DO NOTHING', [projectId, id, type, size, at]);
}

/** A small file may hold a picture that takes gigabytes once it is shown. */
const WIDEST = { side: 10_000, pixels: 50_000_000 } as const;

function refuseWidePicture(name: string, bytes: Uint8Array): void {
  const { width, height } = sizeOf(name, bytes);
  if (width > WIDEST.side || height > WIDEST.side || width * height > WIDEST.pixels) throw new DomainError({ code: 'attachment_too_wide', ...WIDEST });
}

/** @throws {DomainError} when the picture says no size: nothing could show it. */
function sizeOf(name: string, bytes: Uint8Array): { readonly width: number; readonly height: number } {
  try {
    return imageSize(bytes);
  } catch (cause) {
    // The library throws whatever it stumbles over in a file that only looks like a picture.
    throw new DomainError({ code: 'attachment_type_refused', name }, { cause });
  }
}

const keptRow = z.object({ bytes: z.string(), there: z.boolean() });

async function refuseFullProject(work: UnitOfWork, projectId: string, id: AttachmentId, size: number): Promise<void> {
  const [kept] = await selectRows(work, keptRow, 'SELECT coalesce(sum(size), 0) AS bytes, coalesce(bool_or(id = $2), false) AS there FROM attachment WHERE project_id = $1', [projectId, id]);
  if (kept !== undefined && !kept.there && Number(kept.bytes) + size > LIMITS.projectAttachments) throw new DomainError({ code: 'quota_exceeded', of: 'project', limit: LIMITS.projectAttachments });
}

/** How long a file is kept that no version and no draft names: somebody may be about to save. */
const UNUSED_HOURS = 48;

const IDS_IN_CONTENT = ['$.attachments[*].id', '$.steps[*].attachments[*].id'].map((path) => `SELECT jsonb_path_query(v.content, '${path}')`).join(' UNION ALL ');
/** The files that contents name: rows (project_id, id). */
const named = (table: 'artefact_version' | 'draft'): string => `SELECT a.project_id, p.id #>> '{}' AS id FROM ${table} v JOIN artefact a ON a.id = v.artefact_id, LATERAL (${IDS_IN_CONTENT}) p (id)`;

/** Takes from a project, as one that was made of another, all files that no version of it names. */
export async function dropUnnamedAttachments(work: UnitOfWork, projectId: string): Promise<void> {
  await execute(work, `WITH named AS MATERIALIZED (${named('artefact_version')} WHERE a.project_id = $1) DELETE FROM attachment WHERE project_id = $1 AND id NOT IN (SELECT id FROM named WHERE id IS NOT NULL)`, [projectId]);
}

/** Removes files that nothing names any more. Answers how many. */
export async function sweepAttachments(work: UnitOfWork): Promise<number> {
  const old = await answersAny(work, `SELECT 1 FROM attachment WHERE kept_at < now() - interval '${UNUSED_HOURS} hours' LIMIT 1`);
  if (!old) return 0;
  const swept = await selectRows(
    work,
    idRow,
    `WITH named AS MATERIALIZED (${named('artefact_version')} UNION ${named('draft')})
     DELETE FROM attachment WHERE kept_at < now() - interval '${UNUSED_HOURS} hours' AND NOT EXISTS (SELECT 1 FROM named WHERE named.project_id = attachment.project_id AND named.id = attachment.id) RETURNING id`,
  );
  return swept.length;
}

const typeRow = z.object({ type: z.enum(ATTACHMENT_TYPES) });

/** A file of a project, to be saved under a name. @throws {DomainError} when the project has none of this hash. */
export async function readAttachment(db: Sequelize, files: Files, projectId: string, id: AttachmentId, name: string): Promise<FileAnswer> {
  const [found] = await inTransaction(db, (work) => selectRows(work, typeRow, 'SELECT type FROM attachment WHERE project_id = $1 AND id = $2', [projectId, id]));
  const bytes = found === undefined ? null : await files.read(id);
  if (found === undefined || bytes === null) throw new DomainError({ code: 'attachment_unknown', name: name === '' ? id.slice(0, 8) : name });
  return { name: safeFileName(name, found.type), type: found.type, bytes, neverChanges: true };
}

const knownRow = z.object({ id: z.string(), type: z.string(), size: z.int() });

/** @throws {DomainError} when a file is named that is not kept in the project, or not as what it is named. */
export async function refuseUnknownAttachments(work: UnitOfWork, projectId: string, values: readonly KindAndContent[]): Promise<void> {
  const named = values.flatMap(attachmentsOf);
  if (named.length === 0) return;
  const kept = await selectRows(work, knownRow, 'SELECT id, type, size FROM attachment WHERE project_id = $1 AND id = ANY($2)', [projectId, [...new Set(named.map((a) => a.id))]]);
  const known = new Map(kept.map((k) => [k.id, k]));
  const lost = named.find((a) => {
    const is = known.get(a.id);
    return is === undefined || (a.type !== null && a.type !== is.type) || (a.size !== null && a.size !== is.size);
  });
  if (lost !== undefined) throw new DomainError({ code: 'attachment_unknown', name: lost.name });
}

/** The files that a content names. */
export function attachmentsOf(value: KindAndContent): readonly Attachment[] {
  switch (value.kind) {
    case 'case':
      return [...value.content.attachments, ...value.content.steps.filter(isPlainStep).flatMap((s) => s.attachments)];
    case 'shared':
      return value.content.steps.filter(isPlainStep).flatMap((s) => s.attachments);
    case 'requirement':
    case 'question':
    case 'condition':
      return value.content.attachments;
    case 'dataSet':
    case 'feature':
    case 'suite':
      return [];
  }
}
