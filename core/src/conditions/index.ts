export { POLARITIES, conditionMeaning, type ConditionContent, type LeftOut, type Polarity, type RequirementLink } from './condition.ts';
export { MODEL_KINDS, type Model, type ModelKind, type PlainModel } from './model.ts';
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
  readIntervals,
  type BoundaryRule,
  type Choice,
  type Field,
  type FieldId,
  type Interval,
  type OtherClass,
  type ReadInterval,
  type ValueRangesModel,
} from './valueRanges.ts';
export { CLASS_KINDS, offeredClasses, type ClassKind, type FieldValue } from './otherClass.ts';
export { boundaryValues } from './rangeItems.ts';
export { itemsShown, itemsShownByRow, rangeJudge, type RangeJudge } from './rangeEvidence.ts';
export { rangeProblems, type RangeProblem } from './rangeProblems.ts';
export { coverageItems } from './modelItems.ts';
export { anchorAt, anchorIn, placeAnchor, type Anchor, type AnchorPlace } from './anchor.ts';
