import type { RequirementId } from '@caderno/core/artefacts';
import { movedPlaces, type OutlineMove } from '@caderno/core/basis';
import type { RequirementSummary } from '@caderno/contract';
import { useCallback, useMemo, useRef, useState } from 'react';
import { call, tellFailure, useRefresh } from '../api/index.ts';

interface Pending {
  readonly key: string;
  readonly id: RequirementId;
  readonly move: OutlineMove;
}

/**
 * The outline with moves that are seen at once. They lie over what the server says until it says the same: a list
 * that was read between two moves must not show the first of them alone.
 */
export function useMovable(project: string, stored: readonly RequirementSummary[] | undefined) {
  const refresh = useRefresh(project);
  const [pending, setPending] = useState<readonly Pending[]>([]);
  // One after the other: the second move counts on the first.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const requirements = useMemo(() => (stored === undefined ? undefined : pending.reduce<readonly RequirementSummary[]>((list, { id, move }) => movedPlaces(list, id, move), stored)), [pending, stored]);
  const move = useCallback(
    (id: RequirementId, to: OutlineMove): void => {
      const key = crypto.randomUUID();
      setPending((all) => [...all, { key, id, move: to }]);
      queue.current = queue.current
        .then(() => call('moveRequirement', { params: { project, id }, body: to }, { commandId: key }))
        .catch(tellFailure)
        .then(() => refresh())
        .then(() => setPending((all) => all.filter((p) => p.key !== key)));
    },
    [project, refresh],
  );
  return { requirements, move };
}
