import { parseScenarioId, type CaseId, type CoveringId, type FeatureId } from '@caderno/core/artefacts';
import { useCallback, useMemo } from 'react';
import { useSummaries } from '../api/index.ts';

/** What a case or a scenario is called; null: it is not there. */
export type MemberTitle = (id: CoveringId) => string | null;

/** Looks up what cases and scenarios are called. */
export function useMemberTitle(project: string): MemberTitle {
  const cases = useSummaries(project, 'case').data;
  const features = useSummaries(project, 'feature').data;
  const byCase = useMemo(() => new Map<CaseId, string>(cases?.map((c) => [c.id, c.title])), [cases]);
  const byFeature = useMemo(() => new Map<FeatureId, NonNullable<typeof features>[number]>(features?.map((f) => [f.id, f])), [features]);
  return useCallback(
    (id) => {
      const scenario = parseScenarioId(id);
      if (scenario === null) return byCase.get(id as CaseId) ?? null;
      const feature = byFeature.get(scenario.feature);
      const name = feature?.scenarios.find((s) => s.number === scenario.number)?.name;
      if (feature === undefined || name === undefined) return null;
      return name === '' ? `a scenario of ${feature.title}` : name;
    },
    [byCase, byFeature],
  );
}
