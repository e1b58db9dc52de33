import type { ConditionId, FeatureId } from '@caderno/core/artefacts';
import { DEFAULT_MOST_ITEMS } from '@caderno/core/conditions';
import type { ConditionCoverage, DesignChange, DesignCondition } from '@caderno/core/coverage';
import { casesOf, type FeatureContent, type FeatureOutline, type PartId, type ScenarioAsCase } from '@caderno/core/scenarios';
import { keysUsed, type Used } from '@caderno/core/shared';
import { useMemo } from 'react';
import { useDesign, useLibrary } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useCoveredDesign, useLiveCoverage } from '../liveCoverage/index.ts';
import { useWording } from '../phrases/index.ts';

/** The scenarios of a feature as they are judged, and what they cover. */
export interface CoveredScenarios {
  /** A scenario taken as a case; null: it has no number yet. */
  readonly caseOf: (part: PartId) => ScenarioAsCase | null;
  readonly conditions: ReadonlyMap<ConditionId, DesignCondition>;
  readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage>;
  readonly mostItems: number;
}

const NOTHING_USED: ReadonlyMap<string, Used> = new Map();

/** The conditions that scenarios of a feature cover, judged with what is being written. */
export function useCoveredScenarios(id: FeatureId, deferred: FeatureContent, outline: FeatureOutline): CoveredScenarios {
  const { project } = useFrame();
  const wording = useWording(project);
  const caseOf = useMemo(() => casesOf(id, deferred, wording, outline), [deferred, id, outline, wording]);
  // Most scenarios cover nothing: they are not taken as cases before somebody looks at them.
  const cases = useMemo(() => deferred.parts.flatMap((part) => (part.covers.length === 0 ? [] : (caseOf(part.id) ?? []))), [caseOf, deferred.parts]);
  const linked = useMemo(() => [...new Map(deferred.parts.flatMap((p) => p.covers).map((c) => [c.id, c])).values()], [deferred.parts]);
  const uses = [...new Set(cases.flatMap((s) => keysUsed(s.content)))].toSorted();
  const library = useLibrary(project, uses).data ?? NOTHING_USED;
  const design = useCoveredDesign(project, useDesign(project, { feature: id }).data, linked, library);
  const change = useMemo((): DesignChange => ({ kind: 'feature', id, scenarios: cases.map((s) => ({ id: s.id, state: 'draft', version: 1, content: s.content })) }), [cases, id]);
  const coverages = useLiveCoverage(design, change);
  const conditions = useMemo(() => new Map<ConditionId, DesignCondition>(design?.conditions.map((c) => [c.id, c])), [design]);
  const mostItems = design?.mostItems ?? DEFAULT_MOST_ITEMS;
  return useMemo(() => ({ caseOf, coverages, conditions, mostItems }), [caseOf, conditions, coverages, mostItems]);
}
