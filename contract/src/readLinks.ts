import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import { z } from 'zod';
import { artefactIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { textUpTo } from './text.ts';

const moment = z.iso.datetime();

/** A link by which somebody without an account reads one artefact. It ends after so many days; `forWhom` is for those who gave it. */
export const newReadLinkSchema = z.strictObject({ id: artefactIdSchema, forWhom: textUpTo(LIMITS.name), days: z.int().min(1).max(366) });
/** See {@link newReadLinkSchema}. */
export type NewReadLink = z.infer<typeof newReadLinkSchema>;

/** A link that still opens something. `opened`: how often it was; `openedAt`: last; null: never yet. */
export const readLinkSchema = z.object({ id: z.uuid(), of: artefactIdSchema, title: z.string(), forWhom: z.string(), by: z.string(), madeAt: moment, endsAt: moment, opened: z.int(), openedAt: moment.nullable() });
/** See {@link readLinkSchema}. */
export type ReadLink = z.infer<typeof readLinkSchema>;
/** The word of a link that was made, this once, among all of the project. */
export const madeReadLinkSchema = z.object({ token: z.string(), links: z.array(readLinkSchema) });

const field = z.enum(['text', 'answer', 'purpose', 'objective', 'mission', 'areas', 'ideas', 'preconditions', 'scenarios']);
const parts = z.array(z.object({ kind: z.enum(['text', 'value', 'missing', 'unbound', 'gone']), text: z.string() })).readonly();
const step = z.object({ from: z.string(), action: parts, expected: parts });
const instance = z.object({ name: z.string(), texts: z.array(z.object({ field, parts })).readonly(), steps: z.array(step).readonly() });
/** A reading copy. `beyond`: a whole number as text, as a case may have more instances than a number holds. */
const copy = z.object({
  title: z.string(),
  texts: z.array(z.object({ field, text: z.string() })).readonly(),
  table: z.array(z.array(z.string()).readonly()).readonly().nullable(),
  instances: z.array(instance).readonly(),
  beyond: z.string().regex(/^\d+$/),
  files: z.array(z.string()).readonly(),
});
/** What a link shows: an artefact in the version of now, as a copy for reading. */
export const shownByLinkSchema = z.object({ id: artefactIdSchema, project: z.string(), version: z.int(), state: z.enum(ARTEFACT_STATES), savedAt: moment, by: z.string(), endsAt: moment, copy });
/** See {@link shownByLinkSchema}. */
export type ShownByLink = z.infer<typeof shownByLinkSchema>;
