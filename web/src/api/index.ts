export { RefusedCall, Unreachable, call, download, pictureAddress } from './client.ts';
export { failureSentence, isPassing, isSignedOut, tellFailure } from './failure.ts';
export { untilTaken } from './untilTaken.ts';
export { keys, useAlike, useArtefact, useBasisTexts, useCaseCounts, useCaseMarks, useConditionLines, useCoverage, useDesign, useHeldUp, useItems, useLibrary, useMembers, useProject, useReuse, useReuseGraph, useSession, useSettings, useSummaries, useSuspectLinks, useTracker, useVersion, useVersions } from './queries.ts';
export { useSaveSettings } from './useSaveSettings.ts';
export { useProjectEvents } from './events.ts';
