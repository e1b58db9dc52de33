export {
  RISKS,
  RISK_WEIGHT,
  REQUIREMENT_TYPES,
  EMPTY_REQUIREMENT,
  requirementMeaning,
  type Risk,
  type RequirementType,
  type RequirementContent,
} from './requirement.ts';
export {
  orderOutline,
  makesCircle,
  moveTowards,
  DEEPEST_OUTLINE,
  OUTLINE_DIRECTIONS,
  type OutlineDirection,
  type OutlineEntry,
  type OutlineMove,
  type OutlinePlace,
} from './outline.ts';
