import type { RequirementId } from '../artefacts/index.ts';
import type { FeatureContent, FeatureCover, PartId } from './feature.ts';
import { outlineOf } from './scenario.ts';
import { tagTest } from './tagExpression.ts';

/**
 * The feature written for a requirement, with some of its scenarios or as a whole (`'all'`). Where some already are,
 * these come to them; a link to the whole stays one. The very same where nothing changes.
 */
export function withWrittenFor(content: FeatureContent, { id, seenVersion }: Pick<FeatureCover, 'id' | 'seenVersion'>, parts: readonly PartId[] | 'all'): FeatureContent {
  if (parts.length === 0) return content;
  const there = content.requirements.find((r) => r.id === id);
  if (there === undefined) return { ...content, requirements: [...content.requirements, { id, seenVersion, parts: parts === 'all' ? [] : [...new Set(parts)] }] };
  if (there.parts.length === 0) return content;
  const now = parts === 'all' ? [] : [...new Set([...there.parts, ...parts])];
  return now.length === there.parts.length ? content : withParts(content, there, now);
}

/** The feature no longer written for a requirement, or only one of its scenarios not; of a link to the whole all others stay. The very same where nothing changes. */
export function withoutWrittenFor(content: FeatureContent, id: RequirementId, part: PartId | 'all'): FeatureContent {
  const there = content.requirements.find((r) => r.id === id);
  if (there === undefined) return content;
  const linked = there.parts.length === 0 ? content.parts.filter((p) => p.kind === 'scenario').map((p) => p.id) : there.parts;
  const left = part === 'all' ? [] : linked.filter((other) => other !== part);
  if (left.length === 0) return { ...content, requirements: content.requirements.filter((r) => r !== there) };
  return left.length === linked.length ? content : withParts(content, there, left);
}

/** The feature written for a requirement with nothing but one scenario. */
export function onlyWrittenFor(content: FeatureContent, id: RequirementId, part: PartId): FeatureContent {
  const there = content.requirements.find((r) => r.id === id);
  return there === undefined ? content : withParts(content, there, [part]);
}

function withParts(content: FeatureContent, of: FeatureCover, parts: readonly PartId[]): FeatureContent {
  return { ...content, requirements: content.requirements.map((r) => (r === of ? { ...r, parts } : r)) };
}

/** The scenarios that a tag expression finds, with the tags of what they stand in; all of the feature where it says nothing. */
export function scenariosTagged(content: FeatureContent, expression: string): readonly PartId[] | 'all' {
  if (expression.trim() === '') return 'all';
  const test = tagTest(expression);
  return test === null ? [] : outlineOf(content).scenarios.flatMap((s) => (s.kind === 'scenario' && test(s.tags) ? [s.part] : []));
}

/** The requirements that single scenarios are written for, with the numbers of these. */
export function scenariosWrittenFor({ requirements, parts }: Pick<FeatureContent, 'requirements' | 'parts'>): { readonly requirement: RequirementId; readonly scenarios: readonly number[] }[] {
  return requirements.flatMap((r) => (r.parts.length === 0 ? [] : [{ requirement: r.id, scenarios: parts.flatMap((p) => (r.parts.includes(p.id) && p.number > 0 ? [p.number] : [])) }]));
}

/** The feature without links of scenarios that are gone. */
export function withLinksSettled(content: FeatureContent): FeatureContent {
  const there = new Set(content.parts.filter((p) => p.kind === 'scenario').map((p) => p.id));
  if (content.requirements.every((r) => r.parts.every((part) => there.has(part)))) return content;
  return {
    ...content,
    requirements: content.requirements.flatMap((r) => {
      const parts = r.parts.filter((part) => there.has(part));
      return r.parts.length > 0 && parts.length === 0 ? [] : [{ ...r, parts }];
    }),
  };
}
