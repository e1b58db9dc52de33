import { DEEPEST_PART, type RunsIn, type SuiteContent, type SuiteEntry } from '@caderno/core/suites';
import { z } from 'zod';
import { coveringIdSchema, entryIdSchema, innerIdSchema, suiteIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { isEachOnce } from '../once.ts';
import type { KindSchema, Migration } from './kind.ts';
import { count, head, line, name, own, title, uniqueById } from './parts.ts';
import { pinSchema } from './steps.ts';

const rule = z.strictObject({ of: z.enum(['cases', 'scenarios']), asks: line, pinned: z.literal('agreed').nullable() });
/** Configurations of the project, by their ids. */
export const configurationsSchema = z.array(innerIdSchema).max(LIMITS.configurations).refine(isEachOnce, 'must not repeat');
/** Null: in those of the part that it stands in. */
export const runsInSchema: z.ZodType<RunsIn> = configurationsSchema.nullable();
const part = z.strictObject({ kind: z.literal('part'), id: entryIdSchema, title, depth: z.int().min(1).max(DEEPEST_PART), rule: rule.nullable(), runsIn: runsInSchema });
const member = z.strictObject({ kind: z.literal('member'), id: entryIdSchema, of: coveringIdSchema, pinned: pinSchema, runsIn: runsInSchema });

/** The lines of a suite, as they are kept and as they are measured. */
export const suiteEntriesSchema: z.ZodType<SuiteEntry[]> = uniqueById(z.array(z.discriminatedUnion('kind', [part, member])).max(LIMITS.suiteEntries));

/** What a version of a suite holds. */
export const suiteContentSchema: z.ZodType<SuiteContent> = z.strictObject({ title, purpose: line, folder: title, entries: suiteEntriesSchema, configurations: configurationsSchema, module: name, owner: name, tags: z.array(name).max(LIMITS.tags), own });

/** What lists show of a suite. `members`: those picked by hand; `rules`: parts that are kept by one. */
export const suiteSummarySchema = z.object({ kind: z.literal('suite'), id: suiteIdSchema, ...head, folder: z.string(), owner: z.string(), tags: z.array(z.string()), members: count, rules: count });
/** See {@link suiteSummarySchema}. */
export type SuiteSummary = z.infer<typeof suiteSummarySchema>;

const withRunsIn: Migration = (stored) => ({ ...stored, configurations: [], entries: z.array(z.looseObject({})).parse(stored.entries).map((entry) => ({ ...entry, runsIn: null })) });

export const suiteSchemas: KindSchema<SuiteContent, SuiteSummary> = { content: suiteContentSchema, summary: suiteSummarySchema, migrations: [withRunsIn] };
