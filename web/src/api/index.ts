export { RefusedCall, attachmentAddress, call, download } from './client.ts';
export { upload } from './upload.ts';
export { failureSentence, isPassing, isSignedOut, tellFailure } from './failure.ts';
export { untilTaken } from './untilTaken.ts';
export { keys, useAlike, useArtefact, useBasisTexts, useConditionLines, useDesign, useItems, useLibrary, useMembers, useListProject, useOwnFields, useReuse, useReuseGraph, useSettings, useSuspectLinks, useTracker, useVersion, useVersions, type ConditionInList } from './queries.ts';
export { useSaveSettings } from './useSaveSettings.ts';
export { foreseenOf, forgetLogs, useCoverage, useCoverageRows, useFigures, useHeads, useModules, useForeseen, useProjectStream, useRefresh, useSummaries, whileSaving, useListed, useMatchCount, type ListedHead, type RowsKnown } from './log/index.ts';
export { useSession } from './session.ts';
export { useScenarioEffort, useScenarioExecution } from './scenarioEffort.ts';
