import type { Kind } from '../artefacts/index.ts';
import { pinnedVersions, stepsWithPins, textsOfStep, useLinks, usesLedTo } from '../cases/index.ts';
import { EMPTY_SHARED, sharedMeaning, type SharedContent } from './sharedSteps.ts';

export const sharedKind: Kind<SharedContent> = {
  empty: EMPTY_SHARED,
  meaning: sharedMeaning,
  links: ({ steps }) => useLinks(steps),
  versionsNamed: ({ steps }) => pinnedVersions(steps),
  words: ({ purpose, steps }) => [purpose, ...steps.flatMap(textsOfStep)],
  withTraceLinks: (content) => content,
  withTargets: (content, targets) => ({ ...content, steps: usesLedTo(content.steps, targets) }),
  settled: null,
  withPins(content, pinOf) {
    const steps = stepsWithPins(content.steps, pinOf);
    return steps === content.steps ? content : { ...content, steps };
  },
};
