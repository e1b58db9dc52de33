export { sharedKind } from './sharedKind.ts';
export { EMPTY_SHARED, type DetailedPhrase, type SharedContent } from './sharedSteps.ts';
export { DEEPEST, findCircle, keyOf, keyOfData, keyOfUse, keysUsed, keysUsedIn, stepsUsed, type Library, type LibraryEntry, type Used, type UsedSteps, type Using } from './library.ts';
export { allRows, rowsToRun, runsOf, type RowSource } from './rows.ts';
export { openParameters, surfacedParameters, type Surfaced } from './surfacing.ts';
export { countExpanded, type ExpandedCount } from './counting.ts';
export { SECRET_MASK, changedConstants, configurationValues, constantsByName, masked, visibleConstants, withConstants, type Configuration, type Constant, type Constants } from './constants.ts';
export { type OpenedPart, type OpenedValue, type Scope } from './scope.ts';
export {
  instanceName,
  instancesOf,
  openCase,
  openInstance,
  openedText,
  type InstanceChoice,
  type NotOpened,
  type OpenedAt,
  type OpenedCase,
  type OpenedInstance,
  type OpenedPlace,
  type OpenedStep,
  type OpenedUse,
} from './expansion.ts';
export { putBack, takeOut, type PutBack, type TakenOut } from './takeOut.ts';
export { usersOf, usesOf, type Connected, type ReusableId, type StepsOwnerId, type UseEdge } from './reuseGraph.ts';
export { findRuns, type FoundRun } from './runs.ts';
export { alikeSequences, findAlike, type Alike, type AlikeCases, type AlikePair, type AlikeProgress, type AlikeRun } from './alike.ts';
export { placesRenamed, renameEverywhere, type RenameGrounds, type RenameHindrance, type Renamed, type Renaming, type Reusable } from './renaming.ts';
