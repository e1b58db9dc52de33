export { RefusedCall, call, download, pictureAddress } from './client.ts';
export { failureSentence, isPassing, isSignedOut, tellFailure } from './failure.ts';
export { untilTaken } from './untilTaken.ts';
export { keys, useAlike, useArtefact, useBasisTexts, useConditionLines, useDesign, useItems, useLibrary, useMembers, useReuse, useReuseGraph, useSession, useSettings, useSuspectLinks, useTracker, useVersion, useVersions, type ConditionInList } from './queries.ts';
export { useSaveSettings } from './useSaveSettings.ts';
export { foreseenOf, forgetLogs, useCoverage, useCoverageRows, useFigures, useModules, useForeseen, useProjectStream, useRefresh, useSummaries, whileSaving, type RowsKnown } from './log/index.ts';
