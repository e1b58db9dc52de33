import type { ProjectSettings } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { call } from './client.ts';
import { tellFailure } from './failure.ts';
import { useRefresh } from './log/useProjectLog.ts';

/** Saves settings that grew from a version; answers whether they were taken (the person is told when not). */
export function useSaveSettings(project: string): (version: number, settings: ProjectSettings) => Promise<boolean> {
  const client = useQueryClient();
  const refresh = useRefresh(project);
  return useCallback(
    async (version, settings) => {
      try {
        const saved = await call('saveSettings', { params: { project }, body: settings }, { ifMatch: version, commandId: crypto.randomUUID() });
        client.setQueryData([project, 'settings'], saved);
        void refresh();
        return true;
      } catch (error) {
        tellFailure(error);
        return false;
      }
    },
    [client, project, refresh],
  );
}
