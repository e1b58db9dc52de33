import { remarkId, type RemarkId, type RemarkPlace } from '@caderno/core/remarks';
import { z } from 'zod';
import { artefactIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { textUpTo } from './text.ts';

/** Of a remark; made by whoever writes it, so that one that is sent twice is one. */
export const remarkIdSchema: z.ZodType<RemarkId> = z.uuid().transform(remarkId);

const around = textUpTo(LIMITS.title);
const anchor = z.strictObject({ quote: textUpTo(LIMITS.definition).refine((t) => t !== '', 'must not be empty'), start: z.int().min(0).max(LIMITS.text), before: around, after: around });

/** Paths are short: a content has few levels. */
const MOST_PARTS = 8;

const path = textUpTo(LIMITS.address).refine((text) => text === '' || (text.split('/').length <= MOST_PARTS && text.split('/').every((part) => part !== '' && !(part in Object.prototype))), 'must be names and ids with slashes between them');
const place: z.ZodType<RemarkPlace> = z.strictObject({ path, words: anchor.nullable() });

const remarkText = textUpTo(LIMITS.definition).refine((text) => text.trim() !== '', 'must say something');

/** What is to stand at the place instead; left out: no change is offered. */
const offer = textUpTo(LIMITS.text).optional();

/** What is said at a place of an artefact. */
export const newThreadSchema = z.strictObject({ remark: remarkIdSchema, place, said: textUpTo(LIMITS.title), version: versionNumberSchema, text: remarkText, offer });
/** What is answered in a thread. */
export const answerSchema = z.strictObject({ remark: remarkIdSchema, text: remarkText, offer });
/** The version whose text an offer is to change. */
export const takeOfferSchema = z.strictObject({ version: versionNumberSchema });
/** What a remark says from now on. */
export const remarkTextSchema = z.strictObject({ text: remarkText });
/** Whether a thread is settled. */
export const settledSchema = z.strictObject({ settled: z.boolean() });

const at = z.iso.datetime();
const offered = z.object({ text: z.string(), taken: z.object({ name: z.string(), at, version: z.int() }).nullable() });
const remark = z.object({ id: remarkIdSchema, author: z.uuid(), name: z.string(), text: z.string(), at, editedAt: at.nullable(), earlier: z.array(z.object({ text: z.string(), until: at })).readonly(), takenBackAt: at.nullable(), offer: offered.nullable() });

/** A remark with its answers. */
export const remarkThreadSchema = z.object({ id: remarkIdSchema, place, said: z.string(), version: z.int(), settled: z.object({ name: z.string(), at }).nullable(), remarks: z.array(remark).readonly() });

/** An open thread in the list of the project; `forMe`: it names who asks, or somebody answered them. */
export const openThreadSchema = z.object({ artefact: artefactIdSchema, title: z.string(), id: remarkIdSchema, said: z.string(), text: z.string(), name: z.string(), at, answers: z.int(), forMe: z.boolean() });
/** See {@link openThreadSchema}. */
export type OpenThread = z.infer<typeof openThreadSchema>;

/** Open threads that one answer tells, the latest first. */
export const MOST_OPEN_THREADS = 500;

/** Tells pages that something was said of an artefact. */
export const remarkedSchema = z.object({ id: artefactIdSchema });

