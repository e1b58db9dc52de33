import { ARTEFACT_STATES, type ArtefactState } from '@caderno/core/artefacts';
import type { FirstWritten } from '@caderno/core/carrying';
import type { ImportBase } from '@caderno/core/exchange';
import { artefactIdSchema, storedSettingsSchema, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';

/** A requirement's place as stored: row ids, so that it survives as data. `after`: the one it stood after, null: it was the first; not kept of moves of long ago. */
export interface StoredPlace {
  readonly parentId: string | null;
  readonly position: number;
  readonly after?: string | null | undefined;
}

/** How to undo a part of a command. Each kind's undoing is again a part with a plan. */
export type UndoPlan =
  /** `state`: what it was before, where the change of meaning made it another; not known of changes of long ago. */
  | { readonly kind: 'content'; readonly from: number; readonly to: number; readonly state?: ArtefactState | undefined }
  | { readonly kind: 'existence'; readonly exists: boolean }
  /** `agreed`: the agreed version before and after; not known of changes of long ago. */
  | { readonly kind: 'state'; readonly from: ArtefactState; readonly to: ArtefactState; readonly agreed?: { readonly from: number | null; readonly to: number | null } | undefined }
  | { readonly kind: 'place'; readonly from: StoredPlace; readonly to: StoredPlace }
  | { readonly kind: 'settings'; readonly from: ProjectSettings; readonly to: ProjectSettings }
  /** What an import remembers of a requirement. */
  | { readonly kind: 'imported'; readonly from: ImportBase | null; readonly to: ImportBase | null }
  /** What is remembered of an artefact that was carried here. */
  | { readonly kind: 'carried'; readonly from: CarriedHere | null; readonly to: CarriedHere | null };

/** What is remembered of an artefact that was carried from another project: what it was then, and its versions here by what they are where it was written first. */
export interface CarriedHere {
  readonly first: FirstWritten;
  readonly versions: readonly (readonly [number, number])[];
  readonly schema: number;
  readonly base: unknown;
}

/** What an import remembers of a requirement, as it is stored. */
export const importBaseSchema: z.ZodType<ImportBase> = z.object({
  fields: z.record(z.string(), z.string()),
  parent: z.string().nullable().optional(),
  relations: z.array(z.string()),
  facts: z.string(),
});

/** As it is stored. */
const carriedHereSchema: z.ZodType<CarriedHere> = z.object({ first: z.object({ project: z.string(), id: artefactIdSchema }), versions: z.array(z.tuple([z.number(), z.number()])), schema: z.number(), base: z.unknown() });

const state = z.enum(ARTEFACT_STATES);
/** As it is stored. */
export const storedPlaceSchema = z.object({ parentId: z.string().nullable(), position: z.number(), after: z.string().nullable().optional() });
const version = z.number();

/** As it is stored beside the journal; settings of before a part was known have its default. */
export const undoPlanSchema: z.ZodType<UndoPlan> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('content'), from: version, to: version, state: state.optional() }),
  z.object({ kind: z.literal('existence'), exists: z.boolean() }),
  z.object({ kind: z.literal('state'), from: state, to: state, agreed: z.object({ from: version.nullable(), to: version.nullable() }).optional() }),
  z.object({ kind: z.literal('place'), from: storedPlaceSchema, to: storedPlaceSchema }),
  z.object({ kind: z.literal('settings'), from: storedSettingsSchema, to: storedSettingsSchema }),
  z.object({ kind: z.literal('imported'), from: importBaseSchema.nullable(), to: importBaseSchema.nullable() }),
  z.object({ kind: z.literal('carried'), from: carriedHereSchema.nullable(), to: carriedHereSchema.nullable() }),
]);
