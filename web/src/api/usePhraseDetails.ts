import { NO_DETAILS, phraseDetails, type PhraseDetails } from '@caderno/core/scenarios';
import { useMemo } from 'react';
import { useSummaries } from './log/index.ts';

/** The phrases of the project that have their detail. */
export function usePhraseDetails(project: string): PhraseDetails {
  const shared = useSummaries(project, 'shared').data;
  return useMemo(() => (shared === undefined ? NO_DETAILS : phraseDetails(shared)), [shared]);
}
