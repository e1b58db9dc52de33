import type { DataSetContent } from '@caderno/core/dataSets';
import { z } from 'zod';
import { conditionIdSchema, dataSetIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { rowsSchema } from '../rows.ts';
import type { KindSchema } from './kind.ts';
import { count, head, line, name, own, title, uniqueById, withOwn } from './parts.ts';
import { carriedBy, parameterSchema } from './steps.ts';

/** What a version of a data set holds. */
export const dataSetContentSchema: z.ZodType<DataSetContent> = z.strictObject({
  title,
  purpose: line,
  parameters: uniqueById(z.array(parameterSchema).max(LIMITS.parameters)),
  rows: uniqueById(rowsSchema),
  serves: uniqueById(z.array(z.strictObject(carriedBy)).max(LIMITS.links)),
  module: name,
  tags: z.array(name).max(LIMITS.tags),
  own,
});

/** What lists show of a data set. `serves`: the conditions its columns carry values of. */
export const dataSetSummarySchema = z.object({ kind: z.literal('dataSet'), id: dataSetIdSchema, ...head, tags: z.array(z.string()), rows: count, parameters: z.array(z.string()), serves: z.array(conditionIdSchema) });
/** See {@link dataSetSummarySchema}. */
export type DataSetSummary = z.infer<typeof dataSetSummarySchema>;

export const dataSetSchemas: KindSchema<DataSetContent, DataSetSummary> = { content: dataSetContentSchema, summary: dataSetSummarySchema, migrations: [withOwn] };
