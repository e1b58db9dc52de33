export { readFeature, type FeatureProblem, type FeatureProblemCode, type LineItem, type LineRole, type ReadFeature, type ReadLine, type StepKind } from './reading.ts';
export {
  EMPTY_FEATURE,
  PART_KINDS,
  fileNameOf,
  folderOf,
  lineId,
  partId,
  scenarioName,
  textOf,
  type FeatureContent,
  type FeatureCover,
  type FeatureLine,
  type FeaturePart,
  type LineId,
  type PartId,
  type PartKind,
} from './feature.ts';
export { titleOf, withNumbers, withText, type NewId } from './identities.ts';
export { instancesOf, outlineOf, type Examples, type FeatureOutline, type ReadRule, type ReadScenario, type ScenarioStep } from './scenario.ts';
