import type { ArtefactKind } from '@caderno/core/artefacts';
import { countsOf, isCounted, type Counts } from '@caderno/core/listing';
import type { CountsView } from '@caderno/contract';
import { useDeferredValue, useMemo } from 'react';
import { useListed, useListProject, type ListedHead } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useNow } from '../look/index.ts';

/** Undefined until it is known; null: so many cells that nobody reads them. */
export function useCounts(kind: ArtefactKind, query: string, counts: CountsView): Counts<ListedHead<ArtefactKind>> | null | undefined {
  const { project } = useFrame();
  const rules = useListProject(project);
  const now = useNow();
  const { data } = useListed(project, kind, useDeferredValue(query));
  return useMemo(() => (data === undefined ? undefined : countsOf(data.filter(isCounted), counts, now, rules)), [counts, data, now, rules]);
}
