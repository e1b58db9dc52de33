import { ARTEFACT_STATES, type ArtefactState } from '@caderno/core/artefacts';
import type { ImportBase } from '@caderno/core/exchange';
import { storedSettingsSchema, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';

/** A requirement's place as stored: row ids, so that it survives as data. */
export interface StoredPlace {
  readonly parentId: string | null;
  readonly position: number;
}

/** How to undo a part of a command. Each kind's undoing is again a part with a plan. */
export type UndoPlan =
  | { readonly kind: 'content'; readonly from: number; readonly to: number }
  | { readonly kind: 'existence'; readonly exists: boolean }
  | { readonly kind: 'state'; readonly from: ArtefactState; readonly to: ArtefactState }
  | { readonly kind: 'place'; readonly from: StoredPlace; readonly to: StoredPlace }
  | { readonly kind: 'settings'; readonly from: ProjectSettings; readonly to: ProjectSettings }
  /** What an import remembers of a requirement. */
  | { readonly kind: 'imported'; readonly from: ImportBase | null; readonly to: ImportBase | null };

/** What an import remembers of a requirement, as it is stored. */
export const importBaseSchema: z.ZodType<ImportBase> = z.object({
  fields: z.record(z.string(), z.string()),
  parent: z.string().nullable().optional(),
  relations: z.array(z.string()),
  facts: z.string(),
});

const state = z.enum(ARTEFACT_STATES);
const place = z.object({ parentId: z.string().nullable(), position: z.number() });
const version = z.number();

/** As it is stored beside the journal; settings of before a part was known have its default. */
export const undoPlanSchema: z.ZodType<UndoPlan> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('content'), from: version, to: version }),
  z.object({ kind: z.literal('existence'), exists: z.boolean() }),
  z.object({ kind: z.literal('state'), from: state, to: state }),
  z.object({ kind: z.literal('place'), from: place, to: place }),
  z.object({ kind: z.literal('settings'), from: storedSettingsSchema, to: storedSettingsSchema }),
  z.object({ kind: z.literal('imported'), from: importBaseSchema.nullable(), to: importBaseSchema.nullable() }),
]);
