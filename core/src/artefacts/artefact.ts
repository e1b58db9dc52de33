/** The kinds of artefact, each with the letter its ids begin with. Ids are never reused. */
export const ARTEFACT_KINDS = ['requirement', 'condition', 'case', 'question', 'shared', 'dataSet', 'feature'] as const;
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

/** Template types, not plain strings: a case's id where a condition's is wanted does not compile. */
export interface IdOfKind {
  requirement: RequirementId;
  condition: ConditionId;
  case: CaseId;
  question: QuestionId;
  shared: SharedId;
  dataSet: DataSetId;
  feature: FeatureId;
}
export type ArtefactId = IdOfKind[ArtefactKind];

const LETTER = { requirement: 'R', condition: 'K', case: 'C', question: 'Q', shared: 'S', dataSet: 'D', feature: 'F' } as const satisfies Record<ArtefactKind, string>;

const ID = /^([RKCQSDF])-([1-9]\d{0,8})$/;

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

export function kindOfId(id: ArtefactId): ArtefactKind {
  const parsed = parseArtefactId(id);
  if (parsed === null) throw new Error(`An artefact id has a kind letter and a number: expected R-1, got '${id}'`);
  return parsed.kind;
}

/** `In review` and `Agreed` are reached through a review or by a lead; `Withdrawn` is kept and counted nowhere. */
export const ARTEFACT_STATES = ['draft', 'inReview', 'agreed', 'withdrawn'] as const;
export type ArtefactState = (typeof ARTEFACT_STATES)[number];
