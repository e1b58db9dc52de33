import { plainLink, type ArtefactId, type Link, type NamedVersion, type Pin, type Targets } from '../artefacts/index.ts';
import { isUse, usedBy, type Step } from './step.ts';

/** One link to each that steps use. */
export function useLinks(steps: readonly Step[]): Link[] {
  const uses = steps.filter(isUse);
  return [...new Set(uses.map(usedBy))].map((to) => {
    const pins = uses.flatMap((use) => (usedBy(use) === to ? [use.pinned] : []));
    return plainLink('uses', to, loosest(pins));
  });
}

/** What one link says of several uses: the latest where any follows it, then what is agreed, else the latest version that one is pinned to. */
export function loosest(pins: readonly Pin[]): Pin {
  if (pins.includes(null)) return null;
  return pins.includes('agreed') ? 'agreed' : Math.max(...pins.filter((pin) => typeof pin === 'number'));
}

/** The versions that uses in steps are pinned to. */
export function pinnedVersions(steps: readonly Step[]): NamedVersion[] {
  return steps.filter(isUse).flatMap((use) => pinnedVersion(usedBy(use), use.pinned));
}

/** The version that a use names, if it is pinned to one. */
export function pinnedVersion(id: ArtefactId, pinned: Pin): NamedVersion[] {
  return typeof pinned === 'number' ? [{ id, version: pinned }] : [];
}

/** What a use means where it is led elsewhere. */
export function pinLedTo(of: ArtefactId, pinned: Pin, targets: Targets): Pin {
  return typeof pinned === 'number' ? targets.version(of, pinned) : pinned;
}

/** The steps with what they use led elsewhere; a use that leads nowhere is left out. */
export function usesLedTo(steps: readonly Step[], targets: Targets): Step[] {
  return steps.flatMap((step): Step[] => {
    if (step.kind === 'step') return [step];
    if (step.kind === 'shared') {
      const shared = targets.id(step.shared);
      return shared === null ? [] : [{ ...step, shared, pinned: pinLedTo(step.shared, step.pinned, targets) }];
    }
    const called = targets.id(step.case);
    return called === null ? [] : [{ ...step, case: called, pinned: pinLedTo(step.case, step.pinned, targets) }];
  });
}
