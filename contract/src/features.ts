import { SIDES } from '@caderno/core/versions';
import { z } from 'zod';
import { featureIdSchema, phraseKeySchema } from './ids.ts';
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

const valueKindSchema = z.union([z.enum(['string', 'int', 'float', 'word', 'placeholder']), z.templateLiteral(['{', z.string(), '}'])]);

/** The phrases of a project, and those that may say the same. */
export const phrasesSchema = z.object({
  phrases: z.array(z.object({ key: phraseKeySchema, holes: z.array(valueKindSchema), uses: count, features: count, kinds: z.object({ given: count, when: count, then: count, other: count }) })),
  alike: z.array(z.object({ why: z.enum(['sameWords', 'oneWord']), keys: z.array(phraseKeySchema) })),
});
/** See {@link phrasesSchema}. */
export type Phrases = z.infer<typeof phrasesSchema>;

const scenarioPlace = z.object({ feature: featureIdSchema, scenario: count });

/** Scenarios that are the same but for values, and pairs nearly the same with their share of phrases in common. */
export const writtenTwiceSchema = z.object({ same: z.array(z.array(scenarioPlace)), alike: z.array(z.object({ first: scenarioPlace, second: scenarioPlace, likeness: z.number() })) });
/** See {@link writtenTwiceSchema}. */
export type WrittenTwiceAnswer = z.infer<typeof writtenTwiceSchema>;

/** How many features are known to stand in the code as they stand here. */
export const rememberedFeaturesSchema = z.object({ remembered: count });

/** Which phrases' uses are asked for. */
export const phraseUsesSchema = z.strictObject({ keys: z.array(phraseKeySchema).min(1).max(200) });

/** Where phrases are used, feature by feature; of many uses the first. `scenario`: its number; 0: a background. */
export const foundPhrasesSchema = z.object({
  total: count,
  features: z.array(z.object({ id: featureIdSchema, uses: z.array(z.object({ key: phraseKeySchema, scenario: count, line: z.int().min(1), text: z.string() })) })),
});
/** See {@link foundPhrasesSchema}. */
export type FoundPhrases = z.infer<typeof foundPhrasesSchema>;

/** Which side counts where a feature was changed both here and in its file. */
export const runFeaturesSchema = z.strictObject({ choices: z.record(featureIdSchema, z.enum(SIDES)) });

/** Which features are written out: one as its file, several as a zip of their folders; or a zip however many they are. */
export const exportFeaturesSchema = z.strictObject({ of: chosenSchema, form: z.enum(['file', 'zip']).default('file') });
/** See {@link exportFeaturesSchema}. */
export type ExportFeatures = z.infer<typeof exportFeaturesSchema>;
