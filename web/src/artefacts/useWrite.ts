import type { ArtefactId } from '@caderno/core/artefacts';
import type { Write } from '@caderno/contract';
import { useCallback } from 'react';
import { call, tellFailure, useRefresh } from '../api/index.ts';

/** Makes, changes and withdraws several artefacts as one command; answers what was made, null when it was refused. */
export function useWrite(project: string): (write: Partial<Write> & Pick<Write, 'detail'>) => Promise<readonly ArtefactId[] | null> {
  const refresh = useRefresh(project);
  return useCallback(
    async (write) => {
      try {
        const { made } = await call('writeArtefacts', { params: { project }, body: { made: [], changed: [], withdrawn: [], ...write } }, { commandId: crypto.randomUUID() });
        await refresh();
        return made;
      } catch (error) {
        tellFailure(error);
        return null;
      }
    },
    [project, refresh],
  );
}
