import type { CaseId, DataSetId, Priority, SharedId } from '../artefacts/index.ts';
import type { RequirementContent, RequirementType, Risk, RiskScale } from '../basis/index.ts';
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

function middleOf(scale: RiskScale): NonNullable<RequirementContent['rating']> {
  return { likelihood: Math.floor(scale.likelihood.length / 2), impact: Math.floor(scale.impact.length / 2) };
}
