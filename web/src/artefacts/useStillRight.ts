import type { ArtefactId } from '@caderno/core/artefacts';
import { useCallback } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** A link whose target was looked at in the version it has now. */
export interface LookedAt {
  readonly from: ArtefactId;
  readonly to: ArtefactId;
  readonly now: number;
}

/** Says of links that they are still right, and saves that at once, wherever it is said; what is being written elsewhere in the artefact stays a draft. */
export function useStillRight(): (links: readonly LookedAt[], onDone?: () => void) => void {
  const { project } = useFrame();
  const refresh = useRefresh(project);
  return useCallback(
    (links, onDone) =>
      void call('settleSuspectLinks', { params: { project }, body: { links: links.map(({ from, to, now }) => ({ from, to, now })) } }, { commandId: crypto.randomUUID() }).then(() => {
        toast.success(links.length === 1 ? 'The link is still right.' : `${links.length} links are still right.`);
        onDone?.();
        return refresh();
      }, tellFailure),
    [project, refresh],
  );
}
