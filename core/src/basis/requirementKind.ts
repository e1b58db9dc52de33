import { plainLink, type Kind } from '../artefacts/index.ts';
import { EMPTY_REQUIREMENT, requirementMeaning, type RequirementContent } from './requirement.ts';

export const requirementKind: Kind<RequirementContent> = {
  empty: EMPTY_REQUIREMENT,
  meaning: requirementMeaning,
  links: ({ relations }) => [...new Set(relations.map((r) => r.to))].map((to) => plainLink('relates', to)),
  versionsNamed: () => [],
  // The id of its source whole and in parts: people look for what they remember of it.
  words: ({ text, source, origin }) => [text, source, origin?.id ?? '', (origin?.id ?? '').replaceAll(/[^\p{L}\p{N}]+/gu, ' ')],
  withTraceLinks: (content) => content,
  withTargets: (content, targets) => ({
    ...content,
    relations: content.relations.flatMap((relation) => {
      const to = targets.id(relation.to);
      return to === null ? [] : [{ ...relation, to }];
    }),
  }),
  settled: null,
  withPins: null,
};
