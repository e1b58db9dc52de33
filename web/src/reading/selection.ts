import { scenarioId, type CoveringId } from '@caderno/core/artefacts';
import { coveringIdSchema, type CaseSummary, type FeatureSummary } from '@caderno/contract';

/** What is read one after the other: what the address names; or the scenarios of the feature that is read, or all cases of the project. */
export function readingOrder(search: URLSearchParams, cases: readonly CaseSummary[], feature?: Pick<FeatureSummary, 'id' | 'scenarios'>): CoveringId[] {
  const named = namedCases(search);
  if (named.length > 0) return named;
  if (feature !== undefined) return feature.scenarios.map((s) => scenarioId(feature.id, s.number));
  return cases.filter((c) => c.state !== 'withdrawn').map((c) => c.id);
}

/** The selection in an address: `cases=C-3,F-2/7`. */
export function namedCases(search: URLSearchParams): CoveringId[] {
  return [...new Set((search.get('cases') ?? '').split(','))].flatMap((text) => {
    const parsed = coveringIdSchema.safeParse(text);
    return parsed.success ? [parsed.data] : [];
  });
}

/** What stays in the address from case to case: the selection and the configuration. */
export function lasting(search: URLSearchParams): URLSearchParams {
  const kept = new URLSearchParams();
  for (const name of ['cases', 'in']) {
    const value = search.get(name);
    if (value !== null) kept.set(name, value);
  }
  return kept;
}
