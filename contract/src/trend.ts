import { RISKS } from '@caderno/core/basis';
import { TECHNIQUES } from '@caderno/core/conditions';
import type { Bend, TrendFigures } from '@caderno/core/trend';
import type { ScenarioEffort } from '@caderno/core/scenarios';
import { z } from 'zod';
import { standingCountsSchema } from './coverage.ts';
import { requirementIdSchema, suiteIdSchema } from './ids.ts';
import { LIMITS } from './limits.ts';

const count = z.int().min(0);

/** A moment of the journal, as it stands in a path or a query. */
export const revisionSchema = z.coerce.number().pipe(z.int().min(0).max(LIMITS.number));

/** What executing scenarios takes. */
const scenarioEffortSchema: z.ZodType<ScenarioEffort> = z.object({ scenarios: count, byHand: count, instances: count, minutes: z.number() });

/** What a project came to at the end of a day. */
export const trendFiguresSchema: z.ZodType<TrendFigures> = z.object({
  counts: standingCountsSchema,
  weighted: standingCountsSchema,
  byRisk: z.record(z.enum(RISKS), standingCountsSchema),
  byTechnique: z.record(z.enum(TECHNIQUES), standingCountsSchema),
  byModule: z.array(z.object({ module: z.string(), counts: standingCountsSchema })),
  suites: z.array(z.object({ id: suiteIdSchema, title: z.string(), counts: standingCountsSchema })),
  requirements: count,
  unanalysed: count,
  cases: count,
  instances: count,
  minutes: z.number(),
  scenarios: scenarioEffortSchema,
});

/** What the project comes to at a moment. */
export const pointSchema = z.object({ revision: z.int(), at: z.iso.datetime(), figures: trendFiguresSchema });
/** See {@link trendSchema}. */
export type TrendPoint = z.infer<typeof pointSchema>;

/** The days that are counted so far, in their order, each as its last change left it; how many days there are, how many of them are still to be counted, perhaps again; and what the project comes to now. */
export const trendSchema = z.object({ points: z.array(pointSchema), days: count, left: count, now: pointSchema });
/** See {@link trendSchema}. */
export type Trend = z.infer<typeof trendSchema>;

/** How many days are still to be counted. */
export const trendLeftSchema = z.object({ left: count });

/** What one requirement came to at the days that are counted; null: it was not counted then. */
export const requirementTrendSchema = z.array(z.object({ revision: z.int(), counts: standingCountsSchema.nullable() }));

/** A requirement as it stood at a moment. */
export const requirementThenSchema = z.object({ title: z.string(), counts: standingCountsSchema });

/** Requirements told of at once; `total` counts all. */
export const MOST_BENDS = 200;
const bendSchema: z.ZodType<Bend> = z.object({ id: requirementIdSchema, title: z.string(), before: standingCountsSchema.nullable(), after: standingCountsSchema.nullable() });

/** What changed from the counted day before to this one, or to now; `from`: the revision of that day, 0: there was none. */
export const bendsSchema = z.object({ from: z.int(), bends: z.array(bendSchema), total: count });
/** See {@link bendsSchema}. */
export type Bends = z.infer<typeof bendsSchema>;
