export {
  REQUIREMENT_TYPES,
  EMPTY_REQUIREMENT,
  idInSource,
  sectionId,
  type Attribute,
  type Origin,
  type Relation,
  type RequirementContent,
  type RequirementType,
} from './requirement.ts';
export {
  DEFAULT_RISK_SCALE,
  LONGEST_SCALE,
  RISKS,
  SHORTEST_SCALE,
  effectiveRisk,
  ratedRisk,
  resizeScale,
  type Risk,
  type RiskRating,
  type RiskScale,
} from './riskScale.ts';
export { requirementKind } from './requirementKind.ts';
export { questionKind } from './questionKind.ts';
export type { Observation } from './observation.ts';
export {
  EMPTY_QUESTION,
  QUESTION_STATUSES,
  answered,
  reopened,
  withdrawnQuestion,
  type ConditionSubject,
  type QuestionContent,
  type QuestionStatus,
  type QuestionSubject,
  type RequirementSubject,
} from './question.ts';
export {
  FEWEST_PARTS,
  MERGED_INTO,
  MOST_PARTS,
  SPLIT_FROM,
  absorbedContent,
  mergedContent,
  mergedText,
  movedQuestion,
  partWithWords,
  splitContents,
  type SplitAssignment,
  type SplitPart,
} from './splitMerge.ts';
export { OFF_AT_FIRST, WORDING_RULES, type WordingMark, type WordingRule } from './wording/rule.ts';
export { dismissalOf, type Dismissal } from './wording/dismissal.ts';
export { Glossary, type Term, type TermPlace } from './wording/terms.ts';
export { BasisWording, LONGEST_WORDING, type WordingText } from './wording/wordingMarks.ts';
export {
  orderOutline,
  withoutHidden,
  makesCircle,
  moveTowards,
  movedPlaces,
  DEEPEST_OUTLINE,
  OUTLINE_DIRECTIONS,
  type OutlineDirection,
  type OutlineEntry,
  type OutlineMove,
  type OutlinePlace,
} from './outline.ts';
export { outlineBefore, type MoveMade, type StoodAt } from './outlineBefore.ts';
export { vagueWords } from './wording/vagueWords.ts';
