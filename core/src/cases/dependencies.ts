import type { CaseId } from '../artefacts/index.ts';

/**
 * A circle of cases that depend on each other and can be reached from one, as ids from its first case back to it; null
 * when there is none. `dependsOn` answers what a case depends on.
 */
export function findDependencyCircle(from: CaseId, dependsOn: (id: CaseId) => readonly CaseId[]): readonly CaseId[] | null {
  const clear = new Set<CaseId>();
  // The way from the first case to where one is, each with those it depends on that are still to be looked at.
  const path: { readonly id: CaseId; readonly rest: CaseId[] }[] = [{ id: from, rest: dependsOn(from).toReversed() }];
  for (let here = path.at(-1); here !== undefined; here = path.at(-1)) {
    const next = here.rest.pop();
    if (next === undefined) {
      clear.add(here.id);
      path.pop();
      continue;
    }
    const at = path.findIndex((p) => p.id === next);
    if (at >= 0) return [...path.slice(at).map((p) => p.id), next];
    if (!clear.has(next)) path.push({ id: next, rest: dependsOn(next).toReversed() });
  }
  return null;
}
