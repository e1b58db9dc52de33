import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { baselineNumber } from '@caderno/core/baselines';
import { RISKS } from '@caderno/core/basis';
import type { DesignReport } from '@caderno/core/report';
import { reviewNumber } from '@caderno/core/reviews';
import { z } from 'zod';
import { baselineNumberSchema } from './baselines.ts';
import { standingCountsSchema } from './coverage.ts';
import { artefactIdSchema, questionIdSchema, requirementIdSchema } from './ids.ts';
import { trendFiguresSchema } from './trend.ts';

const count = z.int().min(0);
const moment = z.iso.datetime();
const some = <T>(line: z.ZodType<T>) => z.object({ first: z.array(line), more: count });

/** Which baseline a report is held against; without one nothing is said of what changed. */
export const reportQuerySchema = z.object({ since: baselineNumberSchema.optional() });

/** What those who decide are told. */
export const designReportSchema: z.ZodType<DesignReport> = z.object({
  project: z.string(),
  at: moment,
  figures: trendFiguresSchema,
  worst: some(z.object({ id: requirementIdSchema, title: z.string(), module: z.string(), risk: z.enum(RISKS), counts: standingCountsSchema, isAnalysed: z.boolean() })),
  waiting: z.array(
    z.object({
      who: z.string(),
      questions: z.array(z.object({ id: questionIdSchema, title: z.string(), holdsUp: count })),
      reviews: z.array(z.object({ number: z.number().transform(reviewNumber), title: z.string(), due: z.string().nullable(), artefacts: count })),
    }),
  ),
  trend: z.object({ points: z.array(z.object({ at: moment, counts: standingCountsSchema })), left: count }),
  since: z
    .object({
      number: z.number().transform(baselineNumber),
      name: z.string(),
      at: moment,
      part: z.string(),
      figures: z.object({ counts: standingCountsSchema, unanalysed: count, cases: count, instances: count, minutes: z.number() }).nullable(),
      kinds: z.array(z.object({ kind: z.enum(ARTEFACT_KINDS), added: count, meant: count, gone: count })),
      requirements: some(z.object({ id: artefactIdSchema, title: z.string(), became: z.enum(['added', 'changed', 'gone']) })),
    })
    .nullable(),
  unreadable: count,
});
