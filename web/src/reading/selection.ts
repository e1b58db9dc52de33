import type { CaseId } from '@caderno/core/artefacts';
import { caseIdSchema, type CaseSummary } from '@caderno/contract';

/** The cases that are read one after the other: those the address names, or all of the project. */
export function readingOrder(search: URLSearchParams, cases: readonly CaseSummary[]): CaseId[] {
  const named = namedCases(search);
  return named.length > 0 ? named : cases.filter((c) => c.state !== 'withdrawn').map((c) => c.id);
}

/** The selection in an address: `cases=C-3,C-7`. */
export function namedCases(search: URLSearchParams): CaseId[] {
  return [...new Set((search.get('cases') ?? '').split(','))].flatMap((text) => {
    const parsed = caseIdSchema.safeParse(text);
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
