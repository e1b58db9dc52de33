import type { ArtefactState, CoveringId, ConditionId, QuestionId, RequirementId } from '../artefacts/index.ts';
import type { QuestionContent, RequirementType, Risk, RiskScale } from '../basis/index.ts';
import type { CaseContent } from '../cases/index.ts';
import type { Constant, LibraryEntry } from '../shared/index.ts';
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
  /** Headings are counted nowhere. */
  readonly type: RequirementType;
  readonly meaningSince: number;
}

export interface DesignCondition {
  readonly id: ConditionId;
  readonly state: ArtefactState;
  readonly version: number;
  readonly meaningSince: number;
  readonly content: ConditionContent;
}

/** A case, or a scenario taken as one. */
export interface DesignCase {
  readonly id: CoveringId;
  readonly state: ArtefactState;
  readonly version: number;
  readonly content: CaseContent;
}

/** What coverage needs of a question. One that is not in state withdrawn and open holds up what it is about. */
export interface DesignQuestion {
  readonly id: QuestionId;
  readonly state: ArtefactState;
  readonly content: Pick<QuestionContent, 'status' | 'about'>;
}

/** What cases use of what is not among the cases: shared steps, and what a use is pinned to. */
export type DesignLibrary = readonly LibraryEntry[];

export type RiskWeights = RiskScale['weights'];

export interface Design {
  /** In outline order. */
  readonly requirements: readonly DesignRequirement[];
  readonly conditions: readonly DesignCondition[];
  readonly cases: readonly DesignCase[];
  readonly questions: readonly DesignQuestion[];
  readonly library: DesignLibrary;
  readonly riskWeights: RiskWeights;
  /** A condition with more items than this is refused; see `ModelJudge`. */
  readonly mostItems: number;
  readonly constants: readonly Constant[];
}

/** The project's settings that coverage depends on. */
export type DesignSettings = Pick<Design, 'riskWeights' | 'mostItems' | 'constants'>;
