import { CASE_LAYOUTS, CASE_TARGETS, type CaseField, type CaseMapping } from '@caderno/core/caseFiles';
import { z } from 'zod';
import { caseIdSchema } from './ids.ts';
import { conflictChoiceSchema, fileProblemSchema, importDraftSchema, ownTargetSchema, readingSchema } from './imports.ts';
import { chosenSchema } from './many.ts';
import { LIMITS } from './limits.ts';
import { textUpTo, trimmedTextUpTo } from './text.ts';

const count = z.int().min(0);

/** Which column of a file with cases becomes what. */
export const caseMappingSchema: z.ZodType<CaseMapping> = z.strictObject({
  source: trimmedTextUpTo(100),
  columns: z.record(textUpTo(200), z.union([z.enum(CASE_TARGETS), ownTargetSchema])),
  layout: z.enum(CASE_LAYOUTS),
  headings: z.boolean(),
  module: textUpTo(LIMITS.name),
});

/** A file of cases that waits to be imported: what it holds, and how its columns would be matched. */
export const caseDraftSchema = importDraftSchema.omit({ mapping: true, sections: true }).extend({ mapping: caseMappingSchema });
/** See {@link caseDraftSchema}. */
export type CaseDraft = z.infer<typeof caseDraftSchema>;

const caseField = z.custom<CaseField>((value) => typeof value === 'string');

/** What an import of cases would do; of long lists the first. */
export const casePreviewSchema = z.object({
  counts: z.object({ added: count, changed: count, same: count, gone: count, conflicts: count, errors: count, warnings: count, steps: count, conditions: count, titles: count }),
  added: z.array(z.object({ line: z.int(), title: z.string(), module: z.string(), steps: count, firstStep: z.string(), parameters: z.array(z.string()) })),
  /** Those with conflicts first; all that have one. */
  changed: z.array(
    z.object({
      id: caseIdSchema,
      title: z.string(),
      line: z.int(),
      fields: z.array(z.object({ field: caseField, from: z.string(), to: z.string() })),
      conflicts: z.array(z.object({ field: caseField, base: z.string(), mine: z.string(), theirs: z.string() })),
    }),
  ),
  gone: z.array(caseIdSchema),
  problems: z.array(fileProblemSchema),
});
/** See {@link casePreviewSchema}. `counts.conditions`: plain conditions made for requirements that have none; `counts.titles`: cases to be added whose title is here already. */
export type CasePreview = z.infer<typeof casePreviewSchema>;

/** What a file of cases is previewed with. */
export const caseStepSchema = z.object({ mapping: caseMappingSchema, reading: readingSchema });
/** `choices`: which side counts where the file and the project both changed. */
export const runCasesSchema = caseStepSchema.extend({ choices: z.record(textUpTo(400), conflictChoiceSchema) });

/** The formats cases go out in. `schema`: what the JSON is checked by. */
export const CASE_FORMATS = ['xlsx', 'csv', 'md', 'json', 'schema'] as const;
/** See {@link CASE_FORMATS}. */
export type CaseFormat = (typeof CASE_FORMATS)[number];
/** `layout`: a row a step, a case or an instance; `figures`: whether requirements and coverage stand beside; `sheets`: one for each module; `files`: in a zip with what is attached to the cases, which rows of instances do not name. */
export const exportCasesSchema = z.strictObject({ of: chosenSchema, format: z.enum(CASE_FORMATS), layout: z.enum([...CASE_LAYOUTS, 'instanceRows']), figures: z.boolean(), sheets: z.boolean(), files: z.boolean() })
  .refine(({ layout, files }) => !files || layout !== 'instanceRows');
/** See {@link exportCasesSchema}. */
export type ExportCases = z.infer<typeof exportCasesSchema>;
