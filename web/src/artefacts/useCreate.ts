import type { NewArtefact } from '@caderno/contract';
import type { ArtefactId } from '@caderno/core/artefacts';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { call, keys, tellFailure, useRefresh } from '../api/index.ts';

/** Makes an artefact; answers its id, or null when it was refused (and the person was told). */
export function useCreate(project: string): (made: NewArtefact) => Promise<ArtefactId | null> {
  const client = useQueryClient();
  const refresh = useRefresh(project);
  return useCallback(
    async (made) => {
      try {
        const artefact = await call('createArtefact', { params: { project }, body: made }, { commandId: crypto.randomUUID() });
        client.setQueryData(keys.artefact(project, artefact.summary.id), artefact);
        await refresh();
        return artefact.summary.id;
      } catch (error) {
        tellFailure(error);
        return null;
      }
    },
    [client, project, refresh],
  );
}
