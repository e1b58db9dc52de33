import { ITEM_STANDINGS, reviewNumber, type ReviewNumber } from '@caderno/core/reviews';
import { z } from 'zod';
import { artefactIdSchema, versionNumberSchema } from './ids.ts';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

/** People who may be asked in one review. */
const MOST_ASKED = 50;

/** As it stands in a path. */
export const reviewNumberSchema: z.ZodType<ReviewNumber> = z.coerce.number().pipe(versionNumberSchema).transform(reviewNumber);

const ids = z.array(artefactIdSchema).min(1).max(LIMITS.leftOut).refine(isEachOnce, 'must not repeat');
const people = z.array(z.uuid()).min(1).max(MOST_ASKED).refine(isEachOnce, 'must not repeat');
/** What can be said otherwise while a review goes on. `due`: the last day. */
const terms = z.strictObject({ title: trimmedTextUpTo(LIMITS.title), note: textUpTo(LIMITS.note), due: z.iso.date().nullable(), people });

/** A review to be asked for. */
export const newReviewSchema = terms.extend({ ids });
/** See {@link newReviewSchema}. */
export type NewReview = z.infer<typeof newReviewSchema>;
/** What a review is called and whom it asks, from now on. */
export const reviewTermsSchema = terms;
/** Artefacts that were objected to, or taken out, and are asked for again as they are now. */
export const askAgainSchema = z.strictObject({ ids });

/** What somebody says of exact versions. */
export const answersSchema = z.strictObject({
  of: z.array(z.strictObject({ id: artefactIdSchema, version: versionNumberSchema })).min(1).max(LIMITS.leftOut).refine((of) => isEachOnce(of.map((o) => o.id)), 'must not repeat'),
  agrees: z.boolean(),
  note: textUpTo(LIMITS.note),
});
/** See {@link answersSchema}. */
export type Answers = z.infer<typeof answersSchema>;

const at = z.iso.datetime();
/** Somebody who is asked; `may`: their role lets them agree. `waiting`: artefacts that wait for their answer. */
const askedSchema = z.object({ person: z.uuid(), name: z.string(), may: z.boolean(), waiting: z.int() });
const head = z.object({ number: z.number().transform(reviewNumber), title: z.string(), note: z.string(), due: z.string().nullable(), by: z.string(), at, endedAt: at.nullable(), endedBy: z.string().nullable(), asked: z.array(askedSchema) });
const counts = z.object(Object.fromEntries(ITEM_STANDINGS.map((s) => [s, z.int()])) as Record<(typeof ITEM_STANDINGS)[number], z.ZodInt>);

/** A review in the list of the project; of one that goes on, with the artefacts it still asks for. */
export const reviewLineSchema = head.extend({ counts, modules: z.array(z.string()), ids: z.array(artefactIdSchema) });
/** See {@link reviewLineSchema}. */
export type ReviewLine = z.infer<typeof reviewLineSchema>;

const answer = z.object({ person: z.uuid(), name: z.string(), version: z.int(), agrees: z.boolean(), note: z.string(), at });
/** Of what is reviewed: the version asked for, the one that was agreed before, who wrote what is between them, and the head by now. */
const reviewItemSchema = z.object({ id: artefactIdSchema, title: z.string(), module: z.string(), version: z.int(), since: z.int().nullable(), head: z.int(), standing: z.enum(ITEM_STANDINGS), authors: z.array(z.uuid()).readonly(), answers: z.array(answer).readonly() });
/** See {@link reviewItemSchema}. */
export type ReviewItem = z.infer<typeof reviewItemSchema>;
/** A review with all that it asks for. */
export const reviewSchema = head.extend({ items: z.array(reviewItemSchema) });
/** See {@link reviewSchema}. */
export type Review = z.infer<typeof reviewSchema>;

/** Why an artefact was not asked for. */
export const UNREVIEWED_REASONS = ['absent', 'withdrawn', 'inReview', 'agreedAlready', 'question', 'unchanged'] as const;
/** Not there, withdrawn, in a review already, agreed as it is, a question, or as it was when somebody objected. */
export type UnreviewedReason = (typeof UNREVIEWED_REASONS)[number];
/** A review and what was left out of it. */
export const askedReviewSchema = z.object({ review: reviewSchema, left: z.array(z.object({ id: artefactIdSchema, reason: z.enum(UNREVIEWED_REASONS) })) });

/** What hangs on a requirement: what is below it, its conditions, what covers them, and all that these use. */
export const hangingSchema = z.array(artefactIdSchema);

/** Tells pages that a review moved on. */
export const reviewedSchema = z.object({ review: z.number().transform(reviewNumber) });
