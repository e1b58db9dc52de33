import { plainLink, type ArtefactId, type Link, type NamedVersion, type Targets } from '../artefacts/index.ts';
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

/** The steps with what they use led elsewhere; a use that leads nowhere is left out. */
export function usesLedTo(steps: readonly Step[], targets: Targets): Step[] {
  const version = (of: ArtefactId, pinned: number | null): number | null => (pinned === null ? null : targets.version(of, pinned));
  return steps.flatMap((step): Step[] => {
    if (step.kind === 'step') return [step];
    if (step.kind === 'shared') {
      const shared = targets.id(step.shared);
      return shared === null ? [] : [{ ...step, shared, pinned: version(step.shared, step.pinned) }];
    }
    const called = targets.id(step.case);
    return called === null ? [] : [{ ...step, case: called, pinned: version(step.case, step.pinned) }];
  });
}
