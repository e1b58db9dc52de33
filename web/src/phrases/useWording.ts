import { OwnKinds, PLAIN_WORDING, phraseDetails, type Wording } from '@caderno/core/scenarios';
import { useMemo } from 'react';
import { useSettings, useSummaries } from '../api/index.ts';

/** How steps of the project's scenarios are understood: its own kinds of values, and the phrases that have their detail. */
export function useWording(project: string): Wording {
  const kinds = useSettings(project).data?.settings.valueKinds;
  const shared = useSummaries(project, 'shared').data;
  const own = useMemo(() => (kinds === undefined || kinds.length === 0 ? PLAIN_WORDING.own : new OwnKinds(kinds)), [kinds]);
  return useMemo(() => ({ own, details: shared === undefined ? PLAIN_WORDING.details : phraseDetails(shared, own) }), [own, shared]);
}
