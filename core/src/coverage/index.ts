export {
  NO_ITEMS,
  STANDINGS,
  addCounts,
  countStandings,
  itemsToShow,
  linkedRatio,
  percentDown,
  shownRatio,
  type Ratio,
  type Standing,
  type StandingCounts,
} from './standing.ts';
export { caseEvidence, fieldValues, modelJudge, type Evidence, type InstanceRef, type ModelJudge } from './evidence.ts';
export { conditionCoverage, itemsToMake, type ConditionCoverage, type CoveringCase, type ItemCoverage } from './conditionCoverage.ts';
export type { Design, DesignCase, DesignCondition, DesignRequirement } from './design.ts';
export { CoverageIndex, sumTallies, type ConditionTally, type DesignChange } from './coverageIndex.ts';
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
export { addProposedRows, coverOf, type NewId } from './addRows.ts';
