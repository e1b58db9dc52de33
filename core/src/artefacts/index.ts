export type { DefectLink } from './defectLink.ts';
export {
  ARTEFACT_KINDS,
  ARTEFACT_STATES,
  PRIORITIES,
  artefactId,
  parseArtefactId,
  kindOfId,
  type ArtefactKind,
  type ArtefactId,
  type ArtefactState,
  type RequirementId,
  type ConditionId,
  type CaseId,
  type QuestionId,
  type SharedId,
  type IdOfKind,
  type Priority,
} from './artefact.ts';
