import { SIDES } from '@caderno/core/versions';
import { z } from 'zod';
import { featureIdSchema } from './ids.ts';
import { chosenSchema } from './many.ts';

const count = z.int().min(0);

/** Why a file that was brought is no feature. */
export const FEATURE_LEFT_REASONS = ['too_large', 'not_text', 'bad_path', 'twice'] as const;
export type FeatureLeftReason = (typeof FEATURE_LEFT_REASONS)[number];

const problem = z.object({
  path: z.string(),
  code: z.enum(['unexpected_line', 'unexpected_end', 'unknown_language', 'space_in_tag', 'uneven_table', 'not_read_further']),
  line: z.int(),
  column: z.int(),
  found: z.string(),
});

/** What files of features that wait would do; of long lists the first. */
export const featuresDraftSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  counts: z.object({ added: count, changed: count, same: count, missing: count, problems: count, left: count, scenarios: count }),
  added: z.array(z.object({ path: z.string(), title: z.string(), scenarios: count })),
  /** `from`: the path it had; null: the same. `both`: what was changed both here and in the file, null: taken out there. Those with something first; all that have. */
  changed: z.array(z.object({ id: featureIdSchema, title: z.string(), path: z.string(), from: z.string().nullable(), both: z.array(z.object({ path: z.string(), mine: z.string().nullable(), theirs: z.string().nullable() })) })),
  conflicts: count,
  /** What came from a file once and is not among these: it stays. */
  missing: z.array(z.object({ id: featureIdSchema, path: z.string() })),
  /** Lines that are not good Gherkin; they come in as they are. */
  problems: z.array(problem),
  /** Files that do not come in. */
  left: z.array(z.object({ path: z.string(), reason: z.enum(FEATURE_LEFT_REASONS) })),
});
/** See {@link featuresDraftSchema}. */
export type FeaturesDraft = z.infer<typeof featuresDraftSchema>;

/** Which side counts where a feature was changed both here and in its file. */
export const runFeaturesSchema = z.strictObject({ choices: z.record(featureIdSchema, z.enum(SIDES)) });

/** Which features are written out: one as its file, several as a zip of their folders. */
export const exportFeaturesSchema = z.strictObject({ of: chosenSchema });
/** See {@link exportFeaturesSchema}. */
export type ExportFeatures = z.infer<typeof exportFeaturesSchema>;
