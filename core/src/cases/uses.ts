import { plainLink, type Link, type NamedVersion } from '../artefacts/index.ts';
import { isUse, usedBy, type Step } from './step.ts';

/** One link to each that steps use. */
export function useLinks(steps: readonly Step[]): Link[] {
  const uses = steps.filter(isUse);
  return [...new Set(uses.map(usedBy))].map((to) => {
    const pins = uses.flatMap((use) => (usedBy(use) === to ? [use.pinned] : []));
    return plainLink('uses', to, pins.includes(null) ? null : Math.max(...pins.map((pin) => pin ?? 0)));
  });
}

/** The versions that uses in steps are pinned to. */
export function pinnedVersions(steps: readonly Step[]): NamedVersion[] {
  return steps.filter(isUse).flatMap((use) => (use.pinned === null ? [] : [{ id: usedBy(use), version: use.pinned }]));
}
