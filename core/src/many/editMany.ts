import type { CaseId, DataSetId, Priority, SharedId } from '../artefacts/index.ts';
import type { QuestionContent, RequirementContent, RequirementType, Risk, RiskScale } from '../basis/index.ts';
import { withPinsMoved, type CaseContent } from '../cases/index.ts';
import type { ConditionContent } from '../conditions/index.ts';
import type { DataSetContent } from '../dataSets/index.ts';
import type { SharedContent } from '../shared/index.ts';

/** A content of any kind. */
export type AnyContent =
  | { readonly kind: 'requirement'; readonly content: RequirementContent }
  | { readonly kind: 'condition'; readonly content: ConditionContent }
  | { readonly kind: 'case'; readonly content: CaseContent }
  | { readonly kind: 'question'; readonly content: QuestionContent }
  | { readonly kind: 'shared'; readonly content: SharedContent }
  | { readonly kind: 'dataSet'; readonly content: DataSetContent };

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
export function editMany(edit: ManyEdit, value: AnyContent, scale: RiskScale): AnyContent | null {
  switch (edit.kind) {
    case 'module':
      return withModule(value, edit.module);
    case 'priority':
      return withPriority(value, edit.priority);
    case 'risk':
      return ofRequirement(value, (content) => ({ ...content, risk: edit.risk, rating: null }));
    case 'rating':
      return ofRequirement(value, (content) => ({ ...content, rating: { ...(content.rating ?? middleOf(scale)), [edit.part]: edit.step } }));
    case 'type':
      return ofRequirement(value, (content) => ({ ...content, type: edit.type }));
    case 'pins':
      return withPins(value, edit.of, edit.version);
  }
}

function withModule(value: AnyContent, module: string): AnyContent | null {
  switch (value.kind) {
    case 'requirement':
      return { kind: value.kind, content: { ...value.content, module } };
    case 'case':
      return { kind: value.kind, content: { ...value.content, module } };
    case 'shared':
      return { kind: value.kind, content: { ...value.content, module } };
    case 'dataSet':
      return { kind: value.kind, content: { ...value.content, module } };
    case 'condition':
    case 'question':
      return null;
  }
}

function withPriority(value: AnyContent, priority: Priority): AnyContent | null {
  if (value.kind === 'requirement') return { kind: value.kind, content: { ...value.content, priority } };
  return value.kind === 'case' ? { kind: value.kind, content: { ...value.content, priority } } : null;
}

function ofRequirement(value: AnyContent, edit: (content: RequirementContent) => RequirementContent): AnyContent | null {
  return value.kind === 'requirement' ? { kind: 'requirement', content: edit(value.content) } : null;
}

function middleOf(scale: RiskScale): NonNullable<RequirementContent['rating']> {
  return { likelihood: Math.floor(scale.likelihood.length / 2), impact: Math.floor(scale.impact.length / 2) };
}

function withPins(value: AnyContent, of: SharedId | CaseId | DataSetId, version: number): AnyContent | null {
  if (value.kind !== 'case' && value.kind !== 'shared') return null;
  const steps = withPinsMoved(value.content.steps, of, version);
  if (value.kind === 'shared') return steps === value.content.steps ? value : { kind: 'shared', content: { ...value.content, steps } };
  const { data } = value.content;
  const moved = data !== null && data.set === of && data.pinned !== null && data.pinned < version ? { ...data, pinned: version } : data;
  return steps === value.content.steps && moved === data ? value : { kind: 'case', content: { ...value.content, steps, data: moved } };
}
