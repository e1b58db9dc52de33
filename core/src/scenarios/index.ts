export { languageOf, readFeature, type FeatureProblem, type FeatureProblemCode, type LineItem, type LineRole, type ReadFeature, type ReadLine, type StepKind } from './reading.ts';
export {
  EMPTY_FEATURE,
  PART_KINDS,
  fileNameOf,
  folderOf,
  lineId,
  partId,
  textOf,
  type FeatureContent,
  type FeatureCover,
  type FeatureLine,
  type FeaturePart,
  type LineId,
  type PartId,
  type PartKind,
  pathOfLine,
} from './feature.ts';
export { titleOf, withName, withNumbers, withText, type NewId } from './identities.ts';
export { movedToFeature, withMoved, withPlaced } from './moving.ts';
export { instancesOf, outlineOf, type Examples, type FeatureOutline, type ReadRule, type ReadScenario, type ScenarioStep } from './scenario.ts';
export { FIRST_SCENARIO_EXECUTION, executionOf, scenarioEffort, scenarioMinutes, type ScenarioEffort, type ScenarioExecution } from './execution.ts';
export { featureKind } from './featureKind.ts';
export { tagTest, type TagTest } from './tagExpression.ts';
export { aligned, tablesIn, tidied } from './tidying.ts';
export { holesOf, isOwnKind, keyOfExpression, keyUnder, piecesOf, takenApart, withValues, type PhrasePiece, type StepValue, type BuiltInKind, type TakenApart, type ValueKind } from './phrase.ts';
export { phraseKey, type PhraseKey } from './phraseKey.ts';
export { isOwnKindName, ownKindId, type OwnKindId, type OwnValueKind } from './ownKind.ts';
export { NO_OWN_KINDS, OwnKinds, isOwnKindPattern } from './ownKinds.ts';
export { openFeatureConflicts, planFeatures, type FeatureChoices, type FeatureFile, type FeatureHere, type FeaturePlan, type PlannedFeature } from './bringing.ts';
export { withFeatureTag, withFeatureTagsRenamed } from './tagging.ts';
export { PHRASE_KINDS, phraseUses, type PhraseKind, type PhraseUse } from './phraseUse.ts';
export { Phrasebook, canBeWordedAs, expressionOf, holeShown, reworded, wordedAs, type Phrase } from './phrasebook.ts';
export { alikePhrases, type AlikePhrases } from './alikePhrases.ts';
export { keywordsOf, type Keyword } from './keywords.ts';
export { PLAIN_WORDING, detailOfStep, phraseDetails, phrasesDetailed, withDetailReworded, withPhraseDetailed, withoutPhraseDetailed, type DetailingShared, type PhraseDetail, type PhraseDetails, type Wording } from './phraseDetail.ts';
export { onlyWrittenFor, scenariosTagged, scenariosWrittenFor, withWrittenFor, withoutWrittenFor } from './writtenFor.ts';
export { scenarioForReading } from './forReading.ts';
export { casesOf, scenariosAsCases, type ScenarioAsCase } from './asCase.ts';
export { planOutline, sameScenarios, type OutlineColumn, type OutlineNames, type OutlinePlan, type OutlineRefusal } from './outlinePlan.ts';
export { areOutlineNames, withOutline } from './outlining.ts';
export { sharedBeginnings, withBackground, type SharedBeginning } from './backgrounds.ts';
export { writtenTwice, type ScenarioPlace, type WrittenTwice } from './writtenTwice.ts';
export { besideEachOther, type StepPair } from './besideEachOther.ts';
export { columnsOfExamples, withExampleRows, withScenariosOf } from './fromCase.ts';
export { examplesCount, examplesTable, isColumnName, withColumnRenamed, withExamplesTable, type ExamplesTable } from './examplesTable.ts';
export { rowsTakenFrom, withRowsTaken, type TakenDataSet } from './takenRows.ts';
export { fileNameFor, freePath } from './featurePath.ts';
export { ambiguousPhrases } from './ambiguousPhrases.ts';
