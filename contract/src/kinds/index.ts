export { KIND_SCHEMA, kindAndContentSchema, schemaVersionOf, summarySchema, unionOfKinds, type Summary, type SummaryOfKind } from './kinds.ts';
export type { KindSchema } from './kind.ts';
export { requirementContentSchema, type RequirementSummary } from './requirement.ts';
export { conditionContentSchema, conditionHeadSchema, type ConditionSummary } from './condition.ts';
export { caseContentSchema, type CaseSummary } from './case.ts';
export { questionContentSchema, type QuestionSummary } from './question.ts';
export { sharedContentSchema, type SharedSummary } from './shared.ts';
export { dataSetContentSchema, type DataSetSummary } from './dataSet.ts';
export { argumentsSchema, carriedStepsSchema, plainStepSchema, stepSchema, type CarriedSteps } from './steps.ts';
