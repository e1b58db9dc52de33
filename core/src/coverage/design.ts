import type { ArtefactState, CaseId, ConditionId, RequirementId } from '../artefacts/index.ts';
import type { Risk } from '../basis/index.ts';
import type { CaseContent } from '../cases/index.ts';
import type { ConditionContent } from '../conditions/index.ts';

/**
 * What coverage is computed from: the heads of a project's artefacts.
 * `meaningSince` is the version with which the present meaning began: a link that saw an earlier one is suspect.
 */
export interface DesignRequirement {
  readonly id: RequirementId;
  readonly title: string;
  readonly module: string;
  readonly risk: Risk;
  readonly state: ArtefactState;
  readonly meaningSince: number;
}

export interface DesignCondition {
  readonly id: ConditionId;
  readonly state: ArtefactState;
  readonly version: number;
  readonly meaningSince: number;
  readonly content: ConditionContent;
}

export interface DesignCase {
  readonly id: CaseId;
  readonly state: ArtefactState;
  readonly version: number;
  readonly content: CaseContent;
}

export interface Design {
  /** In outline order. */
  readonly requirements: readonly DesignRequirement[];
  readonly conditions: readonly DesignCondition[];
  readonly cases: readonly DesignCase[];
}
