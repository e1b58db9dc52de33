import { scenarioId, type CoveringId } from '@caderno/core/artefacts';
import type { SuiteLine } from '@caderno/contract';
import { useMemo } from 'react';
import { useSummaries } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** A case or scenario that is in no suite. */
export interface Outside {
  readonly id: CoveringId;
  readonly title: string;
}

/** The cases and scenarios that are in no suite; null while that is not known. */
export function useOutside(lines: readonly SuiteLine[]): readonly Outside[] | null {
  const { project } = useFrame();
  const cases = useSummaries(project, 'case').data;
  const features = useSummaries(project, 'feature').data;
  return useMemo(() => {
    if (cases === undefined || features === undefined) return null;
    const within = new Set(lines.flatMap((line) => line.members));
    const all: Outside[] = [
      ...cases.flatMap((c) => (c.state === 'withdrawn' ? [] : [{ id: c.id, title: c.title }])),
      ...features.flatMap((f) => (f.state === 'withdrawn' ? [] : f.scenarios.map((s) => ({ id: scenarioId(f.id, s.number), title: s.name === '' ? `a scenario of ${f.title}` : s.name })))),
    ];
    return all.filter((o) => !within.has(o.id));
  }, [cases, features, lines]);
}
