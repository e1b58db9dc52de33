import { useCallback } from 'react';
import { useListed } from '../api/index.ts';

/** The title of a requirement, for the head of a group. */
export function useTitles(project: string): (id: string) => string | undefined {
  const requirements = useListed(project, 'requirement', '').data;
  return useCallback((id) => requirements?.find((r) => r.id === id)?.title, [requirements]);
}
