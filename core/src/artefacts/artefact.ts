/** The kinds of artefact, each with the letter its ids begin with. Ids are never reused. */
export const ARTEFACT_KINDS = ['requirement', 'condition', 'case', 'question', 'shared', 'dataSet', 'feature', 'suite'] as const;
export type ArtefactKind = (typeof ARTEFACT_KINDS)[number];

export type RequirementId = `R-${number}`;
export type ConditionId = `K-${number}`;
export type CaseId = `C-${number}`;
export type QuestionId = `Q-${number}`;
/** Shared steps. */
export type SharedId = `S-${number}`;
/** A data set that many may use. */
export type DataSetId = `D-${number}`;
/** A feature: a file of scenarios. */
export type FeatureId = `F-${number}`;
/** A suite: an ordered choice of cases and scenarios. */
export type SuiteId = `U-${number}`;
/** A scenario within its feature. */
export type ScenarioId = `${FeatureId}/${number}`;
/** What covers conditions: a case, or a scenario. */
export type CoveringId = CaseId | ScenarioId;

/** Template types, not plain strings: a case's id where a condition's is wanted does not compile. */
export interface IdOfKind {
  requirement: RequirementId;
  condition: ConditionId;
  case: CaseId;
  question: QuestionId;
  shared: SharedId;
  dataSet: DataSetId;
  feature: FeatureId;
  suite: SuiteId;
}
export type ArtefactId = IdOfKind[ArtefactKind];

const LETTER = { requirement: 'R', condition: 'K', case: 'C', question: 'Q', shared: 'S', dataSet: 'D', feature: 'F', suite: 'U' } as const satisfies Record<ArtefactKind, string>;

const ID = /^([RKCQSDFU])-([1-9]\d{0,8})$/;

/** The one maker of ids from numbers. */
export function artefactId<K extends ArtefactKind>(kind: K, number: number): IdOfKind[K] {
  return `${LETTER[kind]}-${number}` as IdOfKind[K];
}

/** Reads an id from outside; null when it is none. */
export function parseArtefactId(text: string): { readonly kind: ArtefactKind; readonly number: number } | null {
  const parts = ID.exec(text);
  if (!parts) return null;
  const kind = ARTEFACT_KINDS.find((k) => LETTER[k] === parts[1]);
  return kind === undefined ? null : { kind, number: Number(parts[2]) };
}

const SCENARIO_ID = /^(F-[1-9]\d{0,8})\/([1-9]\d{0,8})$/;

/** The one maker of ids of scenarios. */
export function scenarioId(feature: FeatureId, number: number): ScenarioId {
  return `${feature}/${number}`;
}

/** Whether an id is one of a scenario in its feature. */
export function isScenarioId(id: string): id is ScenarioId {
  return parseScenarioId(id) !== null;
}

/** Reads the id of a scenario from outside; null when it is none. */
export function parseScenarioId(text: string): { readonly feature: FeatureId; readonly number: number } | null {
  const parts = SCENARIO_ID.exec(text);
  return parts === null ? null : { feature: parts[1] as FeatureId, number: Number(parts[2]) };
}

/** Whether it is a case that covers, not a scenario. */
export function isCaseId(id: CoveringId): id is CaseId {
  return id.startsWith('C');
}

/** Cases before scenarios, each by their numbers. */
export function compareCovering(a: CoveringId, b: CoveringId): number {
  const [of, at] = [a, b].map((id) => parseScenarioId(id));
  if (of == null || at == null) return of == null && at == null ? Number(a.slice(2)) - Number(b.slice(2)) : of == null ? -1 : 1;
  return Number(of.feature.slice(2)) - Number(at.feature.slice(2)) || of.number - at.number;
}

export function kindOfId(id: ArtefactId): ArtefactKind {
  const parsed = parseArtefactId(id);
  if (parsed === null) throw new Error(`An artefact id has a kind letter and a number: expected R-1, got '${id}'`);
  return parsed.kind;
}

/** `In review` and `Agreed` are reached through a review or by a lead; `Withdrawn` is kept and counted nowhere. */
export const ARTEFACT_STATES = ['draft', 'inReview', 'agreed', 'withdrawn'] as const;
export type ArtefactState = (typeof ARTEFACT_STATES)[number];
