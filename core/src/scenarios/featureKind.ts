import { ledTo, traceLink, type Kind } from '../artefacts/index.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { titleOf, withNumbers } from './identities.ts';
import { readFeature } from './reading.ts';

export const featureKind: Kind<FeatureContent> = {
  empty: EMPTY_FEATURE,
  meaning: featureMeaning,
  links: ({ requirements }) => requirements.map((cover) => traceLink('covers', cover)),
  versionsNamed: () => [],
  words: ({ path, parts }) => [path, ...meaningfulLines(parts)],
  withTraceLinks: (content, replace) => ({ ...content, requirements: content.requirements.map(replace) }),
  withTargets: (content, targets) => ({ ...content, requirements: content.requirements.flatMap((cover) => ledTo(cover, targets)) }),
  settled: settledFeature,
  withPins: null,
};

/** With its numbers and the name its text gives it: whoever writes lines need not know that the title stands in them. */
function settledFeature(content: FeatureContent, before: FeatureContent | null): FeatureContent {
  return { ...withNumbers(content, before), title: titleOf(readFeature(textOf(content)), content.path) };
}

/** The part whose change makes trace links to it suspect: what is executed. How lines are set in, comments and blank lines mean nothing. */
function featureMeaning({ parts }: FeatureContent): unknown {
  return parts.map(({ id, kind, lines }) => [id, kind, meaningfulLines([{ lines }])]);
}

function meaningfulLines(parts: readonly Pick<FeatureContent['parts'][number], 'lines'>[]): string[] {
  return parts.flatMap(({ lines }) => lines.flatMap(({ text }) => (/^\uFEFF?\s*(?:#|$)/u.test(text) ? [] : [text.trim()])));
}
