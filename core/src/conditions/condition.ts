import type { Attachment } from '../attachments/index.ts';
import type { ConditionId, DefectLink, RequirementId } from '../artefacts/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Observation, Risk } from '../basis/index.ts';
import { withoutAliases } from './aliases.ts';
import type { Anchor } from './anchor.ts';
import type { Model } from './model.ts';
import type { ItemKey } from './item.ts';

export const POLARITIES = ['positive', 'negative', 'both'] as const;
export type Polarity = (typeof POLARITIES)[number];

/** The trace link from a condition to a requirement it is derived from. */
export interface RequirementLink {
  /** The requirement; the list holds each once. */
  readonly id: RequirementId;
  /** The version of the requirement the person had in view. */
  readonly seenVersion: number;
  /** The words the condition is anchored to; null when it bears on the requirement as a whole. */
  readonly anchor: Anchor | null;
}

/** An item the analyst decided not to show. */
export interface LeftOut {
  readonly id: ItemKey;
  readonly reason: string;
  readonly by: string;
  /** ISO date and time. */
  readonly at: string;
}

/** What a version of a condition holds. */
export interface ConditionContent {
  readonly title: string;
  readonly polarity: Polarity;
  /** Overrides the risk of its requirements; null: theirs. */
  readonly risk: Risk | null;
  readonly requirements: readonly RequirementLink[];
  readonly model: Model;
  /** The depths of testing it belongs to, of the project’s own: smoke, core, full. */
  readonly depths: readonly string[];
  /** The condition it stands below in a checklist; null: below none. */
  readonly under: ConditionId | null;
  /** Its place among those below the same, ascending; equal ones by number. */
  readonly order: number;
  readonly leftOut: readonly LeftOut[];
  readonly observations: readonly Observation[];
  readonly defects: readonly DefectLink[];
  /** Files that belong to it as a whole. */
  readonly attachments: readonly Attachment[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

/** A condition of nothing yet, to be exercised as it stands. */
export const EMPTY_CONDITION: ConditionContent = {
  title: '',
  polarity: 'both',
  risk: null,
  requirements: [],
  model: { kind: 'plain' },
  depths: [],
  under: null,
  order: 0,
  leftOut: [],
  observations: [],
  defects: [],
  attachments: [],
  own: NO_OWN,
};

/** The condition as a new one for a requirement: its model and depths, without what was decided, seen and linked at the old place. */
export function copiedTo(content: ConditionContent, requirement: RequirementId, seenVersion: number): ConditionContent {
  return { ...content, requirements: [{ id: requirement, seenVersion, anchor: null }], under: null, leftOut: [], observations: [], defects: [], attachments: [] };
}

/** The part whose change makes trace links to the condition suspect. Another name for a value does not. */
export function conditionMeaning(content: ConditionContent): unknown {
  return [content.title, content.polarity, withoutAliases(content.model)];
}
