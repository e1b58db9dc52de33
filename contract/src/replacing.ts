import { TEXT_PARTS, type PlaceName, type Search } from '@caderno/core/replacing';
import { z } from 'zod';
import { artefactIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { textUpTo } from './text.ts';

/** Places that are told at a time. */
export const PLACES_PAGE = 500;

const place = textUpTo(LIMITS.title);

/** What is looked for, what takes its place, and in which texts. */
export const searchSchema: z.ZodType<Search> = z.strictObject({ text: textUpTo(LIMITS.title), replacement: textUpTo(LIMITS.note), isPattern: z.boolean(), matchCase: z.boolean(), wholeWords: z.boolean(), inNames: z.boolean() });
export const textPartsSchema = z.array(z.enum(TEXT_PARTS)).min(1).max(TEXT_PARTS.length);

/** Texts that keep what they say: places that were not ticked. */
export const withoutSchema = z.array(z.strictObject({ id: artefactIdSchema, paths: z.array(place).min(1).max(LIMITS.rows) })).max(LIMITS.many);

const number = z.int().min(0);
const placeNameSchema: z.ZodType<PlaceName> = z.discriminatedUnion('kind', [
  z.object({ kind: z.enum(['field', 'own']), field: z.string() }),
  z.object({ kind: z.literal('step'), number, field: z.enum(['action', 'expected']) }),
  z.object({ kind: z.literal('argument'), number, parameter: z.string() }),
  z.object({ kind: z.literal('row'), row: z.string(), number, field: z.enum(['name', 'description']) }),
  z.object({ kind: z.literal('cell'), row: z.string(), number, column: z.string() }),
]);

/** A text in which something was found: what it says, and each match with what would stand there. */
const foundPlaceSchema = z.object({
  id: artefactIdSchema,
  path: z.string(),
  part: z.enum(TEXT_PARTS),
  name: placeNameSchema,
  text: z.string(),
  matches: z.array(z.object({ at: number, length: number, replacement: z.string() })),
});
/** See {@link foundPlaceSchema}. */
export type FoundInArtefact = z.infer<typeof foundPlaceSchema>;

/** A page of what was found; the counts are of all. `revision`: of the project when it was looked through. */
export const foundPlacesSchema = z.object({ revision: z.int(), places: z.array(foundPlaceSchema), total: number, matches: number, artefacts: number });
/** See {@link foundPlacesSchema}. */
export type FoundPlaces = z.infer<typeof foundPlacesSchema>;
