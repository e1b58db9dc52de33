export { RefusedCall, Unreachable, call } from './client.ts';
export { failureSentence, isPassing, tellFailure } from './failure.ts';
export { keys, useArtefact, useCaseMarks, useCoverage, useDesign, useItems, useMembers, useProject, useSession, useSummaries, useVersion, useVersions } from './queries.ts';
export { useProjectEvents } from './events.ts';
