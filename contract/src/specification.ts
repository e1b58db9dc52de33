import { ARTEFACT_STATES, kindOfId } from '@caderno/core/artefacts';
import type { SpecifiedArtefact } from '@caderno/core/specification';
import { z } from 'zod';
import { artefactIdSchema, requirementIdSchema, suiteIdSchema } from './ids.ts';
import { KIND_SCHEMA, unionOfKinds } from './kinds/index.ts';
import { LIMITS } from './limits.ts';
import { textUpTo } from './text.ts';

/** What of the project: one of these, with all that it uses; of none the whole. */
export const specificationQuerySchema = z.object({ module: textUpTo(LIMITS.name).optional(), requirement: requirementIdSchema.optional(), suite: suiteIdSchema.optional() });

/** An artefact as it was saved last. */
const specifiedSchema = unionOfKinds<SpecifiedArtefact>((kind) => ({
  id: artefactIdSchema.refine((id) => kindOfId(id) === kind, 'must be of its kind'),
  content: KIND_SCHEMA[kind].content,
  version: z.int(),
  state: z.enum(ARTEFACT_STATES),
  parent: requirementIdSchema.nullable(),
  position: z.number(),
}));

/** All that stands in a specification, nothing that is withdrawn; `broken`: what cannot be read. */
export const specificationSchema = z.object({ project: z.string(), at: z.iso.datetime(), artefacts: z.array(specifiedSchema), broken: z.array(artefactIdSchema) });
/** See {@link specificationSchema}. */
export type SpecificationRead = z.infer<typeof specificationSchema>;
