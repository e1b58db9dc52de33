import { DATATYPE_KINDS, SPEC_TYPE_KINDS, type ReqifTypes } from '@caderno/core/exchange';
import { z } from 'zod';

const named = { id: z.string(), name: z.string() };
const value = z.object({ ...named, key: z.string(), other: z.string() });
const attribute = z.object({ ...named, kind: z.enum(DATATYPE_KINDS), datatype: z.string(), multiValued: z.boolean() });

/** The types of a ReqIF document, as they are stored with its source. */
export const reqifTypesSchema: z.ZodType<ReqifTypes> = z.object({
  header: z.object({ id: z.string(), title: z.string(), comment: z.string() }),
  datatypes: z.array(z.object({ ...named, kind: z.enum(DATATYPE_KINDS), limits: z.record(z.string(), z.string()), values: z.array(value) })),
  specTypes: z.array(z.object({ ...named, kind: z.enum(SPEC_TYPE_KINDS), attributes: z.array(attribute) })),
  specifications: z.array(z.object({ ...named, type: z.string() })),
});
