import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import { SIDES } from '@caderno/core/versions';
import { z } from 'zod';
import { artefactIdSchema, requirementIdSchema } from './ids.ts';
import { KIND_SCHEMA } from './kinds/index.ts';
import { chosenSchema } from './many.ts';
import { constantSchema, ownFieldSchema } from './settings.ts';
import { textUpTo } from './text.ts';

const count = z.int().min(0);

/** What is written first in a design file, so that whoever reads it knows what it is. */
export const DESIGN_FORMAT = 'caderno-design';

const version = z.object({ version: z.int().min(1), first: z.int().min(1).nullable(), content: z.unknown() });

/**
 * A design file as it is read: a part of a project with all that it uses. Contents are checked by the schema of their
 * kind after they were migrated from the schema that the file names. `files`: bytes by their hash, in base 64.
 */
export const designFileSchema = z.object({
  format: z.literal(DESIGN_FORMAT),
  version: z.literal(1),
  project: z.object({ id: z.uuid(), key: textUpTo(200), name: textUpTo(200) }),
  schemas: z.record(z.enum(ARTEFACT_KINDS), z.int().min(1)),
  artefacts: z.array(
    z.object({
      kind: z.enum(ARTEFACT_KINDS),
      id: artefactIdSchema,
      first: z.object({ project: z.uuid(), id: artefactIdSchema }),
      under: requirementIdSchema.nullable(),
      versions: z.array(version).min(1),
      base: z.unknown().nullable(),
    }),
  ),
  fields: z.array(ownFieldSchema),
  constants: z.array(constantSchema),
  depths: z.array(textUpTo(60)),
  priorities: z.array(textUpTo(60)),
  files: z.record(z.string().regex(/^[0-9a-f]{64}$/), z.object({ name: textUpTo(300), base64: z.string() })),
});
/** See {@link designFileSchema}. */
export type DesignFile = z.infer<typeof designFileSchema>;

/** What a design file is checked by, with contents as they are written today. */
export function designJsonSchema(): object {
  const [first, ...others] = ARTEFACT_KINDS.map(artefactSchemaOf);
  return z.toJSONSchema(designFileSchema.extend({ artefacts: z.array(z.discriminatedUnion('kind', [first ?? artefactSchemaOf('case'), ...others])) }), { io: 'input', unrepresentable: 'any' });
}

function artefactSchemaOf(kind: ArtefactKind) {
  const { content } = KIND_SCHEMA[kind];
  return designFileSchema.shape.artefacts.element.extend({ kind: z.literal(kind), versions: z.array(version.extend({ content })).min(1), base: content.nullable() });
}

/** What comes along with some artefacts: how many of each kind, and the bytes of their files. */
export const alongSchema = z.object({ counts: z.record(z.enum(ARTEFACT_KINDS), count), files: count, bytes: count });
/** See {@link alongSchema}. */
export type ComesAlong = z.infer<typeof alongSchema>;

/** Which artefacts what comes along is asked of. */
export const askAlongSchema = z.strictObject({ of: chosenSchema });

/** `files`: whether the bytes of attached files come along; `form`: the file, or what it is checked by. */
export const exportDesignSchema = z.strictObject({ of: chosenSchema, files: z.boolean(), form: z.enum(['file', 'schema']) });
/** See {@link exportDesignSchema}. */
export type ExportDesign = z.infer<typeof exportDesignSchema>;

const planned = z.object({ kind: z.enum(ARTEFACT_KINDS), id: artefactIdSchema, title: z.string() });
const outOf = z.array(z.object({ name: z.string(), count }));

/** What a design file that waits would do; of long lists the first. */
export const designDraftSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  /** The project that it comes from. */
  from: z.object({ key: z.string(), name: z.string() }),
  counts: z.record(z.enum(ARTEFACT_KINDS), z.object({ added: count, changed: count, same: count })),
  /** Ids in the file. */
  added: z.array(planned),
  /** `here`: its id here; `both`: what was changed both here and in the file, null: taken out there; empty where nothing was. Those with something first; all that have. */
  changed: z.array(planned.extend({ here: artefactIdSchema, both: z.array(z.object({ path: z.string(), mine: z.string().nullable(), theirs: z.string().nullable() })) })),
  conflicts: count,
  /** What the project's settings get. */
  settings: z.object({ fields: z.array(z.string()), constants: z.array(z.string()), depths: z.array(z.string()), priorities: z.array(z.string()) }),
  /** What has no place here. */
  out: z.object({ links: count, files: count, fields: outOf, people: outOf }),
});
/** See {@link designDraftSchema}. */
export type DesignDraft = z.infer<typeof designDraftSchema>;

/** Which side counts where an artefact was changed both here and in the file, by its id in the file. */
export const runDesignSchema = z.strictObject({ choices: z.record(artefactIdSchema, z.enum(SIDES)) });
