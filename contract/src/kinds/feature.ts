import { PART_KINDS, type FeatureContent } from '@caderno/core/scenarios';
import { z } from 'zod';
import { conditionIdSchema, featureIdSchema, lineIdSchema, partIdSchema, requirementIdSchema, versionNumberSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { caseCoverSchema } from './case.ts';
import type { KindSchema, Migration } from './kind.ts';
import { count, head, name, own, text, title, uniqueById } from './parts.ts';

const featureLine = z.strictObject({ id: lineIdSchema, text });
const part = z.strictObject({ id: partIdSchema, kind: z.enum(PART_KINDS), number: count.max(LIMITS.number), lines: uniqueById(z.array(featureLine).max(LIMITS.featureLines)), covers: uniqueById(z.array(caseCoverSchema).max(LIMITS.links)) });
const cover = z.strictObject({ id: requirementIdSchema, seenVersion: versionNumberSchema, parts: z.array(partIdSchema).max(LIMITS.featureParts) });

/** A path within a folder: names parted by `/`, none of which leads out of it or hides. */
export const featurePathSchema = title.refine((path) => path !== '' && path.split('/').every((name) => name !== '' && name !== '.' && name !== '..' && !/[\\\p{Cc}]/u.test(name)), 'must be a path of folders and a file');

/** What a version of a feature holds. */
export const featureContentSchema: z.ZodType<FeatureContent> = z.strictObject({
  title,
  path: featurePathSchema,
  parts: uniqueById(z.array(part).max(LIMITS.featureParts)),
  lastNumber: count.max(LIMITS.number),
  requirements: uniqueById(z.array(cover).max(LIMITS.links)),
  module: name,
  owner: name,
  own,
});

/** The requirements that single scenarios of a feature are written for, with their numbers. */
export const scenariosForSchema = z.array(z.object({ requirement: requirementIdSchema, scenarios: z.array(count) }));

/** A scenario as lists show it. `instances`: how often it is executed, once for each row of its examples. */
const listedScenario = z.object({ number: count, name: z.string(), tags: z.array(z.string()), steps: count, instances: count });

/** What lists show of a feature. `problems`: lines that are not good Gherkin. */
export const featureSummarySchema = z.object({
  kind: z.literal('feature'),
  id: featureIdSchema,
  ...head,
  path: z.string(),
  owner: z.string(),
  /** All tags that stand in it. */
  tags: z.array(z.string()),
  scenarios: z.array(listedScenario),
  problems: count,
  requirements: z.array(requirementIdSchema),
  /** Of these, those that only some scenarios are written for. */
  scenariosFor: scenariosForSchema,
  /** That its scenarios cover, each once. */
  covers: z.array(conditionIdSchema),
});
/** See {@link featureSummarySchema}. */
export type FeatureSummary = z.infer<typeof featureSummarySchema>;

/** Single scenarios may be written for a requirement since schema 2; before, the whole feature was. */
const withParts: Migration = (stored) => ({ ...stored, requirements: z.array(z.looseObject({})).parse(stored.requirements).map((r) => ({ ...r, parts: [] })) });

export const featureSchemas: KindSchema<FeatureContent, FeatureSummary> = { content: featureContentSchema, summary: featureSummarySchema, migrations: [withParts] };
