import type { CaseId, DataSetId, Priority, RequirementId, SharedId } from '../artefacts/index.ts';
import type { RequirementContent, RequirementType, Risk, RiskScale } from '../basis/index.ts';
import type { ConditionContent } from '../conditions/index.ts';
import { withPinsOn, type KindAndContent } from '../kinds/index.ts';

/** What is set alike in many artefacts by one command. */
export type ManyEdit =
  | { readonly kind: 'module'; readonly module: string }
  | { readonly kind: 'priority'; readonly priority: Priority }
  /** A risk of one's own choice; a rating goes. */
  | { readonly kind: 'risk'; readonly risk: Risk }
  /** One part of a rating, as a place on its scale from 0; the other part begins in the middle. */
  | { readonly kind: 'rating'; readonly part: 'likelihood' | 'impact'; readonly step: number }
  | { readonly kind: 'type'; readonly type: RequirementType }
  /** Conditions are derived from a requirement as it is in a version: besides what they are derived from, or in the place of one of these. */
  | { readonly kind: 'derivedFrom'; readonly requirement: RequirementId; readonly seenVersion: number; readonly insteadOf: RequirementId | null }
  /** Conditions belong to a depth of testing, or no longer. */
  | { readonly kind: 'depth'; readonly depth: string; readonly belongs: boolean }
  /** All pinned uses of something move on to a version; those of a later one stay. */
  | { readonly kind: 'pins'; readonly of: SharedId | CaseId | DataSetId; readonly version: number };

/**
 * A content after an edit; the very same when it changes nothing, null when artefacts of its kind have no such thing.
 * `scale` is the project's, where a rating begins.
 */
export function editMany(edit: ManyEdit, value: KindAndContent, scale: RiskScale): KindAndContent | null {
  switch (edit.kind) {
    case 'module':
      return withField(value, 'module', edit.module);
    case 'priority':
      return withField(value, 'priority', edit.priority);
    case 'risk':
      return ofRequirement(value, (content) => ({ ...content, risk: edit.risk, rating: null }));
    case 'rating':
      return ofRequirement(value, (content) => ({ ...content, rating: { ...(content.rating ?? middleOf(scale)), [edit.part]: edit.step } }));
    case 'type':
      return ofRequirement(value, (content) => ({ ...content, type: edit.type }));
    case 'derivedFrom':
      return ofCondition(value, (content) => derivedFrom(content, edit));
    case 'depth':
      return ofCondition(value, (content) => withDepth(content, edit.depth, edit.belongs));
    case 'pins':
      return withPinsOn(value, edit.of, edit.version);
  }
}

/** Contents are closed records: a kind whose content has the field may be given it. */
function withField(value: KindAndContent, field: 'module' | 'priority', set: string): KindAndContent | null {
  return field in value.content ? ({ kind: value.kind, content: { ...value.content, [field]: set } } as KindAndContent) : null;
}

function ofRequirement(value: KindAndContent, edit: (content: RequirementContent) => RequirementContent): KindAndContent | null {
  return value.kind === 'requirement' ? { kind: 'requirement', content: edit(value.content) } : null;
}

function ofCondition(value: KindAndContent, edit: (content: ConditionContent) => ConditionContent): KindAndContent | null {
  if (value.kind !== 'condition') return null;
  const content = edit(value.content);
  return content === value.content ? value : { kind: 'condition', content };
}

/** A link that is there already stays as it is: what was anchored and seen is not lost. */
function derivedFrom(content: ConditionContent, { requirement, seenVersion, insteadOf }: Extract<ManyEdit, { kind: 'derivedFrom' }>): ConditionContent {
  const there = content.requirements.find((link) => link.id === requirement);
  const others = content.requirements.filter((link) => link.id !== requirement && link.id !== insteadOf);
  if (there !== undefined && others.length === content.requirements.length - 1) return content;
  return { ...content, requirements: [...others, there ?? { id: requirement, seenVersion, anchor: null }] };
}

function withDepth(content: ConditionContent, depth: string, belongs: boolean): ConditionContent {
  if (content.depths.includes(depth) === belongs) return content;
  return { ...content, depths: belongs ? [...content.depths, depth] : content.depths.filter((d) => d !== depth) };
}

function middleOf(scale: RiskScale): NonNullable<RequirementContent['rating']> {
  return { likelihood: Math.floor(scale.likelihood.length / 2), impact: Math.floor(scale.impact.length / 2) };
}
