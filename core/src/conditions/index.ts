export { conditionKind } from './conditionKind.ts';
export { EMPTY_CONDITION, POLARITIES, copiedTo, type ConditionContent, type LeftOut, type Polarity, type RequirementLink } from './condition.ts';
export { MODEL_KINDS, type ModelKind } from './modelKind.ts';
export { carriedFields, countItems, type CarriedField, type Model, type PlainModel } from './model.ts';
export { ModelJudge, coverageItems, type Showing } from './modelJudge.ts';
export { DEFAULT_MOST_ITEMS } from './itemLimit.ts';
export {
  ITEM_KINDS,
  PLAIN_ITEM,
  TECHNIQUES,
  TECHNIQUE_OF_ITEM,
  itemKey,
  type CoverageItem,
  type ItemKey,
  type ItemKind,
  type Technique,
} from './item.ts';
export {
  BOUNDARY_RULES,
  fieldId,
  moveBoundary,
  readIntervals,
  type BoundaryRule,
  type Choice,
  type Field,
  type FieldId,
  type Interval,
  type OtherClass,
  type PatternPart,
  type ReadInterval,
  type ValueRangesModel,
} from './valueRanges.ts';
export { CLASS_KINDS, type ClassKind } from './classKind.ts';
export { offeredClasses, type FieldValue } from './otherClass.ts';
export { boundaryValues, rangeItems } from './rangeItems.ts';
export { itemsShownByRow, rangeJudge, type RangeJudge } from './rangeEvidence.ts';
export { rangeProblems, type RangeProblem } from './rangeProblems.ts';
export { anchorAt, anchorIn, placeAnchor, type Anchor, type AnchorPlace } from './anchor.ts';
export { namedValuesOf, withAlias, withoutAliases } from './aliases.ts';
export { fieldValues, type FieldValues } from './fieldValues.ts';
export type { NamedValue } from './namedValue.ts';
export { placeOfValue } from './namedValue.ts';
export {
  MOST_TABLE_VALUES,
  entriesOf,
  outcomeOf,
  type DecisionTableModel,
  type Rule,
  type TableAction,
  type TableCondition,
} from './decisionTable/decisionTable.ts';
export { entriesOfBox, type Box } from './decisionTable/boxes.ts';
export { MOST_NAMED_BOXES, tableProblems, type TableProblem } from './decisionTable/tableCheck.ts';
export { chooseRule, ruleKey, tableJudge, valuesSelecting, type RuleChoice, type TableJudge } from './decisionTable/tableEvidence.ts';
export { smallestTable, type MergedRule, type SmallerTable } from './decisionTable/smallestTable.ts';
export { MOST_TABLE_RULES, tableAsGrid, tableFromGrid, type GridProblem } from './decisionTable/tableGrid.ts';
export {
  STATE_LEVELS,
  eventId,
  eventWords,
  initialState,
  liveTransitions,
  stateId,
  stateName,
  transitionId,
  type EventId,
  type State,
  type StateEvent,
  type StateId,
  type StateLevel,
  type StateTransitionsModel,
  type Transition,
  type TransitionId,
} from './stateTransitions/stateTransitions.ts';
export { invalidPairKey, invalidPairs, sequenceKey, stateKey } from './stateTransitions/stateItems.ts';
export { stateProblems, type StateProblem } from './stateTransitions/stateCheck.ts';
export { walk, type WalkStep, type WalkedEvent } from './stateTransitions/stateEvidence.ts';
export { statePaths, type StatePath, type StatePaths } from './stateTransitions/statePaths.ts';
export { STRENGTHS, basePlace, type CombinationModel, type ConstraintText, type Factor, type FactorGroup, type FactorValue, type Strength } from './combination/combination.ts';
export { completeConstraint, quoted, readConstraint, type Completion, type ConstraintProblem, type Expected, type ReadConstraint } from './combination/constraintText.ts';
export { liesIn, type Forbidden } from './combination/forbidden.ts';
export { Feasibility } from './combination/feasibility.ts';
export { combinationItems, combinationJudge, feasibilityOf, readCombinationRow, tuplesShown, type CombinationJudge, type RowReading, type Tuple } from './combination/combinationItems.ts';
export { combinationProblems, explainInfeasible, explainTuple, type CombinationProblem, type ExplainedTuple } from './combination/combinationCheck.ts';
export { MOST_CHECKLIST_ENTRIES, inChecklistOrder, parseChecklist, reordered, type ChecklistEntry } from './checklist.ts';
