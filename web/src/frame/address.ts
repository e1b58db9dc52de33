import { kindOfId, parseScenarioId, type CoveringId, type ArtefactId, type ArtefactKind, type CaseId, type ConditionId, type DataSetId, type FeatureId, type IdOfKind, type QuestionId, type RequirementId, type SharedId, type SuiteId } from '@caderno/core/artefacts';
import type { BaselineNumber } from '@caderno/core/baselines';
import type { HandOffNumber } from '@caderno/core/handOffs';
import type { ReviewNumber } from '@caderno/core/reviews';

/** Where things are. Every artefact has an address of its own; nothing else in the application spells one out. */
export const address = {
  basis: (project: string, id?: RequirementId) => `/${project}/basis${id === undefined ? '' : `/${id}`}`,
  conditions: (project: string, requirement?: RequirementId, condition?: ConditionId) =>
    `/${project}/conditions${requirement === undefined ? '' : `/${requirement}`}${requirement === undefined || condition === undefined ? '' : `/${condition}`}`,
  condition: (project: string, id: ConditionId) => `/${project}/condition/${id}`,
  cases: (project: string, id?: CaseId) => `/${project}/cases${id === undefined ? '' : `/${id}`}`,
  shared: (project: string, id?: SharedId) => `/${project}/shared${id === undefined ? '' : `/${id}`}`,
  dataSet: (project: string, id: DataSetId) => `/${project}/shared/${id}`,
  scenarios: (project: string, id?: FeatureId) => `/${project}/scenarios${id === undefined ? '' : `/${id}`}`,
  /** A case, or the line of a scenario in its feature. */
  covering: (project: string, id: CoveringId) => {
    const scenario = parseScenarioId(id);
    return scenario === null ? `/${project}/cases/${id}` : `/${project}/scenarios/${scenario.feature}#${scenario.number}`;
  },
  phrases: (project: string) => `/${project}/phrasebook`,
  scenariosTwice: (project: string) => `/${project}/scenarios-twice`,
  reading: (project: string, id: CoveringId) => `/${project}/read/${id}`,
  /** With `?cases=C-3,C-7`. */
  readingSelection: (project: string) => `/${project}/read`,
  reuse: (project: string) => `/${project}/reuse`,
  alike: (project: string) => `/${project}/alike`,
  /** The artefacts of a kind as a table. */
  list: (project: string, kind: ArtefactKind) => `/${project}/list/${kind}`,
  /** Words in texts; with `?kind=case&query=…` in what a query finds. */
  replacing: (project: string) => `/${project}/replace`,
  coverage: (project: string) => `/${project}/coverage`,
  /** With `?of=risk&show=gap&at=120`: what is told of what, and the revision of the day that is open. */
  trend: (project: string) => `/${project}/trend`,
  /** With `?since=2`: the baseline it is held against. */
  report: (project: string) => `/${project}/report`,
  /** With `?module=Bills`, `?requirement=R-3` or `?suite=U-1`: of this only. */
  specification: (project: string) => `/${project}/specification`,
  /** With `?kind=case&down=module&across=risk&of=minutes`: what is counted, by what, and what of it; without, the counts that are kept. */
  counts: (project: string) => `/${project}/counts`,
  /** With `?of=conditions&by=suites`, and how it is seen. */
  matrix: (project: string) => `/${project}/matrix`,
  journal: (project: string) => `/${project}/journal`,
  questions: (project: string, id?: QuestionId) => `/${project}/questions${id === undefined ? '' : `/${id}`}`,
  agenda: (project: string) => `/${project}/agenda`,
  /** With `?part=kept&reason=changed`. */
  inbox: (project: string) => `/${project}/inbox`,
  mails: (project: string) => `/${project}/mails`,
  remarks: (project: string) => `/${project}/remarks`,
  /** With `?to=2`: against another one. */
  baselines: (project: string, baseline?: BaselineNumber) => `/${project}/baselines${baseline === undefined ? '' : `/${baseline}`}`,
  handOffs: (project: string, handOff?: HandOffNumber) => `/${project}/hand-offs${handOff === undefined ? '' : `/${handOff}`}`,
  /** Of a suite, perhaps held against an earlier hand-off, or a baseline; of nothing: that is chosen there. */
  newHandOff: (project: string, of?: { readonly suite: SuiteId; readonly since?: HandOffNumber } | { readonly baseline: BaselineNumber }) =>
    `/${project}/hand-offs/new${of === undefined ? '' : 'suite' in of ? `?suite=${of.suite}${of.since === undefined ? '' : `&since=${of.since}`}` : `?baseline=${of.baseline}`}`,
  /** With `?of=C-3`. */
  review: (project: string, review: ReviewNumber) => `/${project}/reviews/${review}`,
  reviews: (project: string) => `/${project}/reviews`,
  suites: (project: string, id?: SuiteId) => `/${project}/suites${id === undefined ? '' : `/${id}`}`,
  suspect: (project: string) => `/${project}/suspect`,
  importingCases: (project: string) => `/${project}/import-cases`,
  importingDesign: (project: string) => `/${project}/import-design`,
  importingFeatures: (project: string) => `/${project}/import-features`,
  importing: (project: string) => `/${project}/import`,
  settings: (project: string) => `/${project}/settings`,
  glossary: (project: string) => `/${project}/glossary`,
  people: (project: string) => `/${project}/people`,
  account: (project: string) => `/${project}/account`,
  server: (project: string) => `/${project}/server`,
  versions: (project: string, id: ArtefactId) => `/${project}/versions/${id}`,
  artefact: (project: string, id: ArtefactId): string => addressOf(project, kindOfId(id), id),
};

/** The page of an artefact of each kind. */
const OF_KIND: { readonly [K in ArtefactKind]: (project: string, id: IdOfKind[K]) => string } = {
  requirement: address.basis,
  condition: address.condition,
  case: address.cases,
  question: address.questions,
  shared: address.shared,
  dataSet: address.dataSet,
  feature: address.scenarios,
  suite: address.suites,
};

function addressOf<K extends ArtefactKind>(project: string, kind: K, id: ArtefactId): string {
  return OF_KIND[kind](project, id as IdOfKind[K]);
}
