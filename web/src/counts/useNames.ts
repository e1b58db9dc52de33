import type { ListColumn } from '@caderno/core/listing';
import { useCallback } from 'react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { groupName, useTitles } from '../listing/index.ts';

/** What the lines and columns of a table of counts are called. */
export function useNames(): (column: ListColumn, value: string | null) => string {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const titleOf = useTitles(project);
  return useCallback((column, value) => groupName(column, value, titleOf, fields), [fields, titleOf]);
}
