export { forgetLogs, useKnown, useProjectStream, useForeseen, useRefresh, whileSaving } from './useProjectLog.ts';
export { useCoverage, useCoverageRows, useFigures, useHeads, useModules, useModulesOf, useSummaries, type Figures, type KnownReport, type RowsKnown } from './knownQueries.ts';
export { foreseenOf, withState } from './foreseen.ts';
export { useAllListed, useListed, useMatchCount, type ListedHead } from './listed.ts';
export { useListedAhead } from './listedAhead.ts';
