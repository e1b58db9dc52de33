export { TRACE_TYPES, ledTo, plainLink, traceLink, type Kind, type Link, type LinkType, type NamedVersion, type Pin, type PinOf, type Targets, type TraceType } from './kind.ts';
export { isNewerThanAgreed, isSuspect, withSeen, type SeenLink } from './suspect.ts';
export { FIRST_PRIORITIES, priorityNamed, usualPriority, type Priority } from './priority.ts';
export type { DefectLink } from './defectLink.ts';
export {
  ARTEFACT_KINDS,
  ARTEFACT_STATES,
  artefactId,
  parseArtefactId,
  kindOfId,
  scenarioId,
  isScenarioId,
  parseScenarioId,
  isCaseId,
  compareCovering,
  type ArtefactKind,
  type ArtefactId,
  type ArtefactState,
  type RequirementId,
  type ConditionId,
  type CaseId,
  type QuestionId,
  type SharedId,
  type DataSetId,
  type FeatureId,
  type SuiteId,
  type ScenarioId,
  type CoveringId,
  type IdOfKind,
} from './artefact.ts';
