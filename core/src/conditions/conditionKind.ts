import { ledTo, traceLink, type Kind } from '../artefacts/index.ts';
import { EMPTY_CONDITION, conditionMeaning, type ConditionContent } from './condition.ts';

export const conditionKind: Kind<ConditionContent> = {
  empty: EMPTY_CONDITION,
  meaning: conditionMeaning,
  links: ({ requirements }) => requirements.map((link) => traceLink('derives', link)),
  versionsNamed: () => [],
  words: ({ requirements }) => requirements.map((link) => link.anchor?.quote ?? ''),
  withTraceLinks: (content, replace) => ({ ...content, requirements: content.requirements.map(replace) }),
  withTargets: (content, targets) => ({ ...content, requirements: content.requirements.flatMap((link) => ledTo(link, targets)), under: content.under === null ? null : targets.id(content.under) }),
  settled: null,
  withPins: null,
};
