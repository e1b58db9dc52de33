import type { CaseId, FeatureId } from '@caderno/core/artefacts';
import type { SuiteOf } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/index.ts';

/** The suites that a case, or scenarios of a feature, are in; none while that is not known. */
export function useSuitesOf(project: string, id: CaseId | FeatureId): readonly SuiteOf[] {
  return useQuery({ queryKey: [project, 'list', 'suitesOf', id], queryFn: () => call('readSuitesOf', { params: { project, id } }) }).data ?? [];
}
