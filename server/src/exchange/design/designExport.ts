import { ARTEFACT_KINDS, type ArtefactId } from '@caderno/core/artefacts';
import { attachmentId, type Attachment } from '@caderno/core/attachments';
import { constantsIn, fieldsIn, prioritiesIn, type CarriedArtefact } from '@caderno/core/carrying';
import { FILE_LIMITS } from '@caderno/core/exchange';
import { DESIGN_FORMAT, designJsonSchema, schemaVersionOf, type ComesAlong, type DesignFile, type ExportDesign, type KindAndContent } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { attachmentsOf } from '../../artefacts/index.ts';
import { inSnapshot, selectRows, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import type { Files } from '../../files/index.ts';
import { readSettings } from '../../projects/index.ts';
import { gatherDesign } from './gatherDesign.ts';

const projectRow = z.object({ id: z.string(), key: z.string(), name: z.string() });

async function readProject(work: UnitOfWork, projectId: string): Promise<DesignFile['project']> {
  const [project] = await selectRows(work, projectRow, 'SELECT id, key, name FROM project WHERE id = $1', [projectId]);
  if (project === undefined) throw new Error('A part of a project belongs to one: expected a project, got none');
  return project;
}

/** How many artefacts of each kind come along with some, and what their files come to. */
export async function readAlong(work: UnitOfWork, projectId: string, roots: readonly ArtefactId[]): Promise<ComesAlong> {
  const artefacts = await gatherDesign(work, projectId, roots);
  const counts: ComesAlong['counts'] = { requirement: 0, condition: 0, case: 0, question: 0, shared: 0, dataSet: 0, feature: 0, suite: 0 };
  for (const { kind } of artefacts) counts[kind] += 1;
  const files = filesOf(artefacts);
  return { counts, files: files.length, bytes: files.reduce((sum, { size }) => sum + (size ?? 0), 0) };
}

/** A part of a project with all that it uses, as a design file. @throws {DomainError} when it would be too large to be brought in anywhere. */
export async function exportDesign(db: Sequelize, files: Files, projectId: string, roots: readonly ArtefactId[], { files: withFiles, form }: Omit<ExportDesign, 'of'>): Promise<{ readonly name: string; readonly type: string; readonly bytes: Uint8Array }> {
  const { project, artefacts, settings } = await inSnapshot(db, async (work) => ({ project: await readProject(work, projectId), artefacts: form === 'schema' ? [] : await gatherDesign(work, projectId, roots), settings: (await readSettings(work, projectId)).settings }));
  if (form === 'schema') return { name: `${project.key}-design.schema.json`, type: 'application/schema+json', bytes: Buffer.from(JSON.stringify(designJsonSchema(), null, 2)) };
  const contents = artefacts.flatMap((a) => a.versions.map((v) => v.content));
  const depths = new Set(artefacts.flatMap((a) => (a.kind === 'condition' ? a.versions.flatMap((v) => v.content.depths) : [])));
  const design: DesignFile = {
    format: DESIGN_FORMAT,
    version: 1,
    project,
    schemas: Object.fromEntries(ARTEFACT_KINDS.map((kind) => [kind, schemaVersionOf(kind)])) as DesignFile['schemas'],
    artefacts: artefacts.map((a) => ({ ...a, versions: [...a.versions] })),
    fields: fieldsIn(contents, settings.fields),
    constants: constantsIn(contents, settings.constants),
    depths: settings.depths.filter((depth) => depths.has(depth)),
    priorities: prioritiesIn(contents, settings.priorities),
    files: withFiles ? await bytesOf(files, filesOf(artefacts)) : {},
  };
  const bytes = Buffer.from(`${JSON.stringify(design, null, 1)}\n`);
  if (bytes.length > FILE_LIMITS.bytes) throw new DomainError({ code: 'design_too_large', bytes: bytes.length, limit: FILE_LIMITS.bytes, files: withFiles });
  return { name: `${project.key}-design.json`, type: 'application/json', bytes };
}

/** The files that the latest versions name, each once. */
function filesOf(artefacts: readonly CarriedArtefact[]): Attachment[] {
  const named = artefacts.flatMap((a) => attachmentsOf({ kind: a.kind, content: a.versions.at(-1)?.content } as KindAndContent));
  return [...new Map(named.map((a) => [a.id, a])).values()];
}

async function bytesOf(files: Files, attachments: readonly Attachment[]): Promise<DesignFile['files']> {
  const total = attachments.reduce((sum, { size }) => sum + (size ?? 0), 0);
  // Told before they are read: they may be many times what is let through.
  if (total > FILE_LIMITS.bytes) throw new DomainError({ code: 'design_too_large', bytes: total, limit: FILE_LIMITS.bytes, files: true });
  const read: DesignFile['files'] = {};
  for (const { id, name } of attachments) read[attachmentId(id)] = { name, base64: Buffer.from(await files.readWhole(id)).toString('base64') };
  return read;
}
