import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import type { ContentOfKind, KindAndContent } from '@caderno/core/kinds';
import { z } from 'zod';
import { caseSchemas, type CaseSummary } from './case.ts';
import { conditionSchemas, type ConditionSummary } from './condition.ts';
import { dataSetSchemas, type DataSetSummary } from './dataSet.ts';
import { featureSchemas, type FeatureSummary } from './feature.ts';
import type { KindSchema } from './kind.ts';
import { questionSchemas, type QuestionSummary } from './question.ts';
import { requirementSchemas, type RequirementSummary } from './requirement.ts';
import { sharedSchemas, type SharedSummary } from './shared.ts';
import { suiteSchemas, type SuiteSummary } from './suite.ts';

/** The head that lists show of artefacts of a kind. */
export interface SummaryOfKind {
  requirement: RequirementSummary;
  condition: ConditionSummary;
  case: CaseSummary;
  question: QuestionSummary;
  shared: SharedSummary;
  dataSet: DataSetSummary;
  feature: FeatureSummary;
  suite: SuiteSummary;
}
/** What lists show of an artefact of any kind: its head. */
export type Summary = SummaryOfKind[ArtefactKind];

/** The schemas of every kind. */
export const KIND_SCHEMA: { readonly [K in ArtefactKind]: KindSchema<ContentOfKind[K], SummaryOfKind[K]> } = {
  requirement: requirementSchemas,
  condition: conditionSchemas,
  case: caseSchemas,
  question: questionSchemas,
  shared: sharedSchemas,
  dataSet: dataSetSchemas,
  feature: featureSchemas,
  suite: suiteSchemas,
};

/** Written into every stored version; a kind whose content changes shape gets a migration, and with it the next number. */
export function schemaVersionOf(kind: ArtefactKind): number {
  return KIND_SCHEMA[kind].migrations.length + 1;
}

/** A union over all kinds that `kind` tells apart; `T` says what the members are together. */
export function unionOfKinds<T>(member: (kind: ArtefactKind) => Readonly<Record<string, z.ZodType>>): z.ZodType<T> {
  const [first, ...others] = ARTEFACT_KINDS.map((kind) => z.object({ kind: z.literal(kind), ...member(kind) }));
  if (first === undefined) throw new Error('There are kinds of artefact: expected some, got none');
  return z.discriminatedUnion('kind', [first, ...others]) as unknown as z.ZodType<T>;
}

/** A content with its kind beside it, as it crosses the wire. */
export const kindAndContentSchema = unionOfKinds<KindAndContent>((kind) => ({ content: KIND_SCHEMA[kind].content }));

/** What lists show of an artefact of any kind. */
export const summarySchema = unionOfKinds<Summary>((kind) => KIND_SCHEMA[kind].summary.shape);
