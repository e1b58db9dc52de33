import type { ConditionId } from '@caderno/core/artefacts';
import type { Design } from '@caderno/core/coverage';
import type { Used } from '@caderno/core/shared';
import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call, keys } from '../api/index.ts';

/** The design around what is being edited: conditions linked and what is used since the last version are read as well. */
export function useCoveredDesign(project: string, stored: Design | undefined, linked: readonly { readonly id: ConditionId }[], library: ReadonlyMap<string, Used>): Design | undefined {
  const added = linked.map((c) => c.id).filter((id) => stored !== undefined && !stored.conditions.some((c) => c.id === id));
  const more = useQueries({
    queries: added.map((id) => ({ queryKey: keys.coverage(project, 'design', { condition: id }), queryFn: () => call('readDesign', { params: { project }, query: { condition: id } }) })),
    combine: (results) => results.flatMap((r) => r.data ?? []),
  });
  return useMemo(() => {
    if (stored === undefined) return undefined;
    const all = more.reduce(together, stored);
    return { ...all, library: [...all.library, ...[...library].flatMap(([key, used]) => (all.library.some((e) => e.key === key) ? [] : [{ key, used }]))] };
  }, [library, more, stored]);
}

function together(a: Design, b: Design): Design {
  return {
    requirements: unique([...a.requirements, ...b.requirements]),
    conditions: unique([...a.conditions, ...b.conditions]),
    cases: unique([...a.cases, ...b.cases]),
    questions: unique([...a.questions, ...b.questions]),
    library: [...new Map([...a.library, ...b.library].map((e) => [e.key, e])).values()],
    riskWeights: a.riskWeights,
    mostItems: a.mostItems,
    constants: a.constants,
  };
}

function unique<E extends { readonly id: string }>(elements: readonly E[]): E[] {
  return [...new Map(elements.map((e) => [e.id, e])).values()];
}
