export {
  CountSum,
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
export { caseEvidence, fieldValue, instanceRef, walkedEvents, type Evidence, type InstanceRef } from './evidence.ts';
export { shownIn, shows, type ShownList } from './shownList.ts';
export { conditionCoverage, itemsToMake, shownBy, type ConditionCoverage, type CoveringCase, type Grounds, type ItemCoverage } from './conditionCoverage.ts';
export type { Design, DesignCase, DesignCondition, DesignLibrary, DesignQuestion, DesignRequirement, DesignSettings, RiskWeights } from './design.ts';
export { heldUp } from './heldUp.ts';
export type { CaseCounts } from './caseCounts.ts';
export { CoverageIndex, type ConditionEntry, type DesignChange } from './coverageIndex.ts';
export { perTechnique, type ConditionTally } from './totals.ts';
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
  unanalysedRows,
} from './report.ts';
export { changedRows, coverageRows, type CaseRow, type ConditionRow, type CoverageRow, type CoverageRowId, type CoverageRows, type QuestionRow } from './coverageRows.ts';
export { caseRow, instancesOf, markOf, reportOfRows, type CaseHead, type ReportHeads } from './rowsReport.ts';
export { fillGap, type GapFilling } from './gapFilling.ts';
export { FILLINGS, type Filling, type ProposedRow, type RowsMade } from './rowsMade.ts';
export { CombinationRows } from './combinationRows.ts';
export { addProposedRows, coverOf, mapFields, withCover, type NewId, type SeenCondition } from './addRows.ts';
export { pathSteps, writtenCases, type WrittenAs } from './writtenCases.ts';
export { derivationOf, rowRefusal, type Derivation, type DerivedValue, type RowRefusal } from './derivation.ts';
export { mergedConditions, mergedCovers, type ConditionMerge } from './mergedConditions.ts';
export { gainedItems, type CoveredCondition } from './gainedItems.ts';
export { redundantRows, type RedundantRow } from './redundantRows.ts';
export { unrefusedRows, type UnrefusedRow } from './unrefusedRows.ts';
export { UNTOLD, untoldRows, whyUntold, type Untold } from './telling.ts';
export { type Choice } from './chosen.ts';
export { riskOf, type RiskShare } from './judged.ts';
export { chosenCoverage, type ChosenCase, type ChosenCoverage } from './chosenCoverage.ts';
export { additions, type Addition, type Additions } from './additions.ts';
export type { AskedItems } from './askedItems.ts';
export { askedMatrix, type AskedMatrix } from './askedMatrix.ts';
export { shownMatrix, type ShownMatrix } from './shownMatrix.ts';
export { CELL_SIZE, CELL_STANDINGS, choiceCells, matrixCells, type MatrixCells } from './matrixCells.ts';
export { readPercent, reaches, type Hundredths } from './threshold.ts';
export { badge } from './badge.ts';
