import { ledTo, traceLink, type ConditionId, type Kind, type Link } from '../artefacts/index.ts';
import type { Cover } from '../cases/index.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { titleOf, withNumbers } from './identities.ts';
import { readFeature } from './reading.ts';
import { withLinksSettled } from './writtenFor.ts';

export const featureKind: Kind<FeatureContent> = {
  empty: EMPTY_FEATURE,
  meaning: featureMeaning,
  links: ({ requirements, parts }) => [...requirements.map((cover) => traceLink('covers', cover)), ...conditionLinks(parts)],
  versionsNamed: () => [],
  words: ({ path, parts }) => [path, ...meaningfulLines(parts)],
  withTraceLinks: (content, replace) => withCovers({ ...content, requirements: content.requirements.map(replace) }, (covers) => covers.map(replace)),
  withTargets: (content, targets) => withCovers({ ...content, requirements: content.requirements.flatMap((cover) => ledTo(cover, targets)) }, (covers) => covers.flatMap((cover) => ledTo(cover, targets))),
  settled: settledFeature,
  withPins: null,
};

/** One link to each condition that scenarios cover, with the oldest version that one of them saw. */
function conditionLinks(parts: FeatureContent['parts']): Link[] {
  const oldest = new Map<ConditionId, number>();
  for (const { id, seenVersion } of parts.flatMap((part) => part.covers)) oldest.set(id, Math.min(seenVersion, oldest.get(id) ?? seenVersion));
  return [...oldest].map(([id, seenVersion]) => traceLink('covers', { id, seenVersion }));
}

function withCovers(content: FeatureContent, change: (covers: readonly Cover[]) => readonly Cover[]): FeatureContent {
  return { ...content, parts: content.parts.map((part) => (part.covers.length === 0 ? part : { ...part, covers: change(part.covers) })) };
}

/** With its numbers and the name its text gives it: whoever writes lines need not know that the title stands in them. */
function settledFeature(content: FeatureContent, before: FeatureContent | null): FeatureContent {
  return { ...withLinksSettled(withNumbers(content, before)), title: titleOf(readFeature(textOf(content)), content.path) };
}

/** The part whose change makes trace links to it suspect: what is executed. How lines are set in, comments and blank lines mean nothing. */
function featureMeaning({ parts }: FeatureContent): unknown {
  return parts.map(({ id, kind, lines, covers }) => [id, kind, meaningfulLines([{ lines }]), covers.map((c) => [c.id, c.fields, c.expects, c.start, c.events])]);
}

function meaningfulLines(parts: readonly Pick<FeatureContent['parts'][number], 'lines'>[]): string[] {
  return parts.flatMap(({ lines }) => lines.flatMap(({ text }) => (/^\uFEFF?\s*(?:#|$)/u.test(text) ? [] : [text.trim()])));
}
