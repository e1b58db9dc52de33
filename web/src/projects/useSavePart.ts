import type { ProjectSettings } from '@caderno/contract';
import { useSaveSettings, useSettings } from '../api/index.ts';

/**
 * Saves what goes together with something that was just done in the whole project, as a name that was renamed in all that
 * has it. What else is being changed on the page is neither saved nor lost. Null: nothing of the settings changes.
 */
export function useSavePart(project: string): (change: (settings: ProjectSettings) => Partial<ProjectSettings> | null) => void {
  const stored = useSettings(project).data;
  const save = useSaveSettings(project);
  return (change) => {
    const part = stored === undefined ? null : change(stored.settings);
    if (stored !== undefined && part !== null) void save(stored.version, { ...stored.settings, ...part });
  };
}
