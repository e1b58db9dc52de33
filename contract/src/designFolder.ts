import { ARTEFACT_KINDS, ARTEFACT_STATES } from '@caderno/core/artefacts';
import { z } from 'zod';
import { artefactIdSchema, requirementIdSchema } from './ids.ts';
import { newProjectSchema } from './people.ts';
import { textUpTo } from './text.ts';

const versionNumber = z.int().min(1).max(999_999_999);
const hash = z.string().regex(/^[0-9a-f]{64}$/);

/** What stands first in the manifest of a folder, so that whoever opens it knows what it is. */
export const FOLDER_FORMAT = 'caderno-folder';
/** The version of the layout. A folder of a later one is not read. */
export const FOLDER_VERSION = 1;

/** What a folder is of, and the SHA-256 of each file in it by its path. */
export const folderManifestSchema = z.object({
  format: z.literal(FOLDER_FORMAT),
  version: z.int().min(1),
  project: z.object({ id: z.uuid(), key: textUpTo(200), name: textUpTo(200) }),
  baseline: z.object({ number: z.int().min(1), name: textUpTo(300), note: textUpTo(5_000), by: textUpTo(200), at: z.iso.datetime(), part: textUpTo(1_000), seal: hash }),
  files: z.record(textUpTo(400), hash),
});
/** See {@link folderManifestSchema}. */
export type FolderManifest = z.infer<typeof folderManifestSchema>;

/** A content with the schema that it was written by. */
const content = { schema: z.int().min(1), content: z.unknown() };

/** The file of an artefact: how it stood in the baseline, and what it held. */
export const folderArtefactSchema = z.strictObject({
  id: artefactIdSchema,
  kind: z.enum(ARTEFACT_KINDS),
  state: z.enum(ARTEFACT_STATES),
  version: versionNumber,
  /** The version with which its meaning began, and the one that was agreed. */
  meaningSince: versionNumber,
  agreed: versionNumber.nullable(),
  /** What a requirement stands below, and at which place there. */
  under: requirementIdSchema.nullable(),
  position: z.int(),
  ...content,
});
/** See {@link folderArtefactSchema}. */
export type FolderArtefact = z.infer<typeof folderArtefactSchema>;

/** The file of an earlier version, which something in the folder names. */
export const folderVersionSchema = z.strictObject({ id: artefactIdSchema, version: versionNumber, ...content });
/** See {@link folderVersionSchema}. */
export type FolderVersion = z.infer<typeof folderVersionSchema>;

/** What a project is called that is made from a folder; `changed`: also when files are not as they were written. */
export const projectFromFolderSchema = newProjectSchema.extend({ changed: z.enum(['yes', 'no']).default('no') });
