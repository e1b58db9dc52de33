export {
  NO_ITEMS,
  STANDINGS,
  countStandings,
  itemsToShow,
  linkedRatio,
  percentDown,
  shownRatio,
  type Ratio,
  type Standing,
  type StandingCounts,
} from './standing.ts';
export { caseEvidence, modelJudge, type Evidence, type InstanceRef, type ModelJudge } from './evidence.ts';
export { conditionCoverage, itemsToMake, type ConditionCoverage, type CoveringCase, type Grounds, type ItemCoverage } from './conditionCoverage.ts';
export type { Design, DesignCase, DesignCondition, DesignQuestion, DesignRequirement, RiskWeights } from './design.ts';
export { heldUp } from './openQuestions.ts';
export { CoverageIndex, type ConditionEntry, type DesignChange } from './coverageIndex.ts';
export type { ConditionTally } from './totals.ts';
export {
  MOST_LISTED_INSTANCES,
  caseMarks,
  coverageReport,
  listItems,
  type CaseMark,
  type CoverageReport,
  type ItemFilter,
  type ListedItem,
  type RequirementCoverage,
} from './report.ts';
export { fillGap, type GapFilling, type ProposedRow } from './fillGap.ts';
export { addProposedRows, type NewId } from './addRows.ts';
