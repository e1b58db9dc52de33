import type { Priority } from '../artefacts/index.ts';

export const RISKS = ['high', 'medium', 'low'] as const;
export type Risk = (typeof RISKS)[number];

/** What a coverage item weighs by its requirement's risk. */
export const RISK_WEIGHT: Record<Risk, number> = { high: 9, medium: 3, low: 1 };

export const REQUIREMENT_TYPES = ['rule', 'userStory', 'quality', 'apiOperation'] as const;
export type RequirementType = (typeof REQUIREMENT_TYPES)[number];

/** What a version of a requirement holds. Its place in the outline is not content: a move makes no version. */
export interface RequirementContent {
  readonly title: string;
  /** Markdown. */
  readonly text: string;
  readonly type: RequirementType;
  readonly module: string;
  readonly risk: Risk;
  readonly priority: Priority;
  readonly source: string;
}

export const EMPTY_REQUIREMENT: RequirementContent = {
  title: '',
  text: '',
  type: 'rule',
  module: '',
  risk: 'medium',
  priority: 'medium',
  source: '',
};

/** The part whose change makes trace links to the requirement suspect. */
export function requirementMeaning(content: RequirementContent): unknown {
  return [content.title, content.text, content.type];
}
