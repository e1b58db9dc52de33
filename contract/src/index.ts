export { LIMITS, SHORTEST_PASSWORD } from './limits.ts';
export { artefactIdSchema, caseIdSchema, conditionIdSchema, coveringIdSchema, dataSetIdSchema, featureIdSchema, questionIdSchema, requirementIdSchema, sharedIdSchema, suiteIdSchema } from './ids.ts';
// What is told of figures, for a client that knows the contract only.
export { badge, itemsToShow, linkedRatio, percentDown, readPercent, reaches, shownRatio, type Hundredths, type Ratio, type StandingCounts } from '@caderno/core/coverage';
export type { TrendFigures } from '@caderno/core/trend';
export { reportDocument, reportMarkdown, reportPage, type DesignReport, type ReportWords } from '@caderno/core/report';
export type { Content, ContentOfKind, KindAndContent } from '@caderno/core/kinds';
export {
  KIND_SCHEMA,
  kindAndContentSchema,
  carriedStepsSchema,
  featurePathSchema,
  phrasesDetailedSchema,
  scenariosForSchema,
  schemaVersionOf,
  type CarriedSteps,
  type CaseSummary,
  type ConditionSummary,
  type DataSetSummary,
  type FeatureSummary,
  type QuestionSummary,
  type RequirementSummary,
  type SharedSummary,
  type SuiteSummary,
  type Summary,
  type SummaryOfKind,
} from './kinds/index.ts';
export { BROUGHT_BACK, MOST_BROUGHT_BACK_TOLD, MOST_FROZEN_CHANGES, baselineNumberSchema, baselineSchema, type Baseline, type BringBack, type BringBackPlan, type BroughtBack, type FrozenChanges, type FrozenCoverage, type NewBaseline } from './baselines.ts';
export { INBOX_PARTS, INBOX_REASONS, MAIL_PACES, MOST_COUNTED, USUAL_PACE, type Following, type InboxChoices, type InboxEntry, type InboxMarks, type MailPace, type InboxPart, type InboxReason } from './inbox.ts';
export { UNREVIEWED_REASONS, reviewNumberSchema, type Answers, type NewReview, type Review, type ReviewItem, type ReviewLine, type UnreviewedReason } from './reviews.ts';
export { placedIssues, type PlacedIssue } from './placedIssue.ts';
export { STATUS_OF_REFUSAL, refusalSentence, type Refusal, type RefusalCode } from './refusal.ts';
export {
  ROLES,
  demoPersonSchema,
  memberSchema,
  projectKeySchema,
  projectRefSchema,
  newAccountSchema,
  newMemberSchema,
  newProjectSchema,
  setUpSchema,
  roleReaches,
  type DemoPerson,
  type Member,
  type NewAccount,
  type NewMember,
  type NewProject,
  type OpenedMoment,
  type Person,
  type ProjectRef,
  type Role,
  type Session,
  type SetUp,
} from './people.ts';
export type { SpecificationRead } from './specification.ts';
export { momentKey, momentOfKey, momentOfText, momentText, type Moment } from './moment.ts';
export { type NewReadLink, type ReadLink, type ShownByLink } from './readLinks.ts';
export { PERSON_ACTIONS, TOKEN_SCOPES, acceptInvitationSchema, accountSchema, changePasswordSchema, forgottenSchema, newEmailSchema, newInvitationSchema, newNameSchema, personEventSchema, resetPasswordSchema, type Invitation, type AccessTokenLine, type Account, type NewAccessToken, type TokenScope, type PersonAction, type PersonEvent, type SessionLine } from './accounts.ts';
export {
  CHANGE_ACTIONS,
  type Artefact,
  type ArtefactOfKind,
  type BrokenArtefact,
  type Change,
  type ChangeAction,
  type Draft,
  type NewArtefact,
  type ReviewedVersion,
  type Version,
  type VersionWithContent,
  type Write,
} from './artefacts.ts';
export { MOST_BENDS, requirementThenSchema, trendFiguresSchema, type Bends, type Trend, type TrendPoint } from './trend.ts';
export { HAND_OFF_FORMATS, MOST_RETURNED_TOLD, handOffConfigurationsSchema, handOffFileSchema, handOffLinesSchema, handOffNotesSchema, handOffNumberSchema, type AskHandOff, type HandOff, type HandOffFormat, type HandOffListed, type HandOffMember, type HandOffPreview, type HandedOffPart, type NewHandOff, type ReturnedNotes } from './handOffs.ts';
export { MAIL_STATES, sendByMailSchema, type MailLine, type MailStanding, type MailState, type SendByMail } from './mail.ts';
export { artefactLink, inboxEntryWords } from './inboxWords.ts';
export { KIND_NAME, RISK_WORD, STANDING_WORD, STATE_WORD, TECHNIQUE_WORD } from './words.ts';
export type { ServerState } from './serverState.ts';
export { LEFT_REASONS, type ChangeMany, type ChangedMany, type Chosen, type LeftReason } from './many.ts';
export { DESIGN_FORMAT, designFileSchema, designJsonSchema, runDesignSchema, type ComesAlong, type DesignDraft, type DesignFile, type ExportDesign } from './design.ts';
export { FOLDER_FORMAT, FOLDER_VERSION, folderArtefactSchema, folderManifestSchema, folderVersionSchema, type FolderArtefact, type FolderManifest, type FolderVersion } from './designFolder.ts';
export { featureProblemSentence } from './featureProblemSentence.ts';
export { FEATURE_LEFT_REASONS, featuresDraftSchema, runFeaturesSchema, type ExportFeatures, type FoundPhrases, type Phrases, type FeatureLeftReason, type FeaturesDraft, type WrittenTwiceAnswer } from './features.ts';
export { isText } from './text.ts';
export { CASE_FORMATS, caseMappingSchema, runCasesSchema, type CaseDraft, type CaseFormat, type CasePreview, type ExportCases } from './caseFiles.ts';
export { PLACES_PAGE, type FoundInArtefact, type FoundPlaces } from './replacing.ts';
export type { ConditionLine, ItemList } from './coverage.ts';
export type { AskTouched, SuiteLine, SuiteOf } from './suites.ts';
export { bytesBody, fileResponse, type FileAnswer } from './bytes.ts';
export { keepersRenamed, keepersWords, modulesKeptFrom, withKeepers, type Keepers } from './keepers.ts';
export { DEFAULT_SETTINGS, SETTINGS_PARTS, TRACKER_KINDS, projectSettingsSchema, readStoredSettings, settingsWords, storedSettingsSchema, type Agreement, type ProjectSettings, type TrackerConnection } from './settings.ts';
export type { ConnectedArtefact, RenamePlan, Reuse, ReuseGraph, TakeOut } from './shared.ts';
export type { BasisText, Split, SuspectLink } from './basis.ts';
export { EXPORT_FORMATS, MOST_PREVIEWED, importProgressSchema, mappingSchema, runImportSchema, type ExportFormat, type ImportDraft, type ImportPreview, type ImportProgress } from './imports.ts';
export { defectSchema, trackerStateSchema, type Defect, type TrackerFailure, type TrackerState } from './tracker.ts';
export type { Access, AnyEndpoint, Method } from './endpoint.ts';
export {
  API_ROOT,
  COMMAND_ID_HEADER,
  EVENTS_PATH,
  api,
  type Api,
  type BodyOf,
  type Operation,
  type ParamsOf,
  type QueryInputOf,
  type QueryOf,
  type ResponseOf,
} from './api.ts';
export {
  HEADS_PAGE,
  MOST_CHANGED,
  PROJECT_EVENTS,
  changesSinceSchema,
  coverageSinceSchema,
  packHeads,
  packRows,
  rowFromWire,
  toWire,
  unpackHeads,
  unpackRows,
  wireRowSchema,
  type AskNews,
  type ChangesSince,
  type CoverageSince,
  type Touched,
  type WireRow,
} from './log.ts';
export { openApiDocument } from './openApi.ts';
export { aroundHeads, findableOf, type AroundHead, type KnownHeads } from './findable.ts';
export { MOST_OPEN_THREADS, remarkIdSchema, remarkThreadSchema, type OpenThread } from './remarks.ts';
export { MOST_SAVED_QUERIES, countsViewSchema, listViewSchema, type CountsView, type ListView, type SavedQuery } from './lists.ts';
