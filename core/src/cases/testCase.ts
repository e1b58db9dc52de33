import type { Attachment } from '../attachments/index.ts';
import type { CaseId, ConditionId, DataSetId, DefectLink, Pin, Priority } from '../artefacts/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { EventId, FieldId, StateId, TransitionId } from '../conditions/index.ts';
import type { Parameter, ParameterId } from './parameter.ts';
import type { Row } from './row.ts';
import { ALL_ROWS, type RowChoice } from './rowChoice.ts';
import type { Step, StepId } from './step.ts';

/** The trace link from a case to a condition, and how the case's parameters carry the condition's fields. */
export interface Cover {
  /** The condition; the list holds each once. */
  readonly id: ConditionId;
  /** The version of the condition the person had in view. */
  readonly seenVersion: number;
  readonly fields: readonly { readonly id: FieldId; readonly parameter: ParameterId }[];
  /** The parameter that takes the model's outcomes when rows are made; null: none. */
  readonly outcome: ParameterId | null;
  /** The steps whose expected results speak for the condition: what shows a plain one. */
  readonly expects: readonly StepId[];
  /** For a state model: where the case begins; null: in the initial state. */
  readonly start: StateId | null;
  /** For a state model: the events that steps carry. A step carries one at most. */
  readonly events: readonly CarriedEvent[];
}

/** An event of a condition's state model that a step carries. */
export interface CarriedEvent {
  readonly id: StepId;
  readonly event: EventId;
  /** The transition that is meant, where guards leave a choice; null: the only one. */
  readonly transition: TransitionId | null;
}

/** A link to a condition that carries nothing yet. */
export function newCover(id: ConditionId, seenVersion: number): Cover {
  return { id, seenVersion, fields: [], outcome: null, expects: [], start: null, events: [] };
}

/** A procedure is written as steps; a charter gives a mission and ideas for exploring. */
export const CASE_KINDS = ['procedure', 'charter'] as const;
export type CaseKind = (typeof CASE_KINDS)[number];

/** How a case is meant to be executed. */
export const EXECUTIONS = ['byHand', 'automated'] as const;
export type Execution = (typeof EXECUTIONS)[number];

/** What a version of a case holds. */
export interface CaseContent {
  readonly title: string;
  readonly kind: CaseKind;
  readonly execution: Execution;
  /** Of a charter: its mission. */
  readonly objective: string;
  /** Of a charter: where to look, one a line. */
  readonly areas: string;
  /** Of a charter: what to try, one a line. */
  readonly ideas: string;
  readonly preconditions: string;
  readonly steps: readonly Step[];
  readonly parameters: readonly Parameter[];
  /** Rows of its own. */
  readonly rows: readonly Row[];
  /** The data set whose rows it takes besides its own. */
  readonly data: DataUse | null;
  readonly runs: RowChoice;
  readonly covers: readonly Cover[];
  readonly module: string;
  readonly priority: Priority;
  readonly tags: readonly string[];
  /** Minutes to execute one instance, the time box of a charter; null: not estimated. */
  readonly estimate: number | null;
  /** Display name of a member; empty: nobody. */
  readonly owner: string;
  readonly defects: readonly DefectLink[];
  /** Cases that must have been executed before it. */
  readonly dependsOn: readonly CaseDependency[];
  /** The case it was cloned from. */
  readonly origin: CaseOrigin | null;
  /** Files that belong to it as a whole. */
  readonly attachments: readonly Attachment[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

/** A data set that a case takes rows from. */
export interface DataUse {
  readonly set: DataSetId;
  readonly pinned: Pin;
  /** Which parameter takes which column of the data set, by the ids of both; others take their default. */
  readonly columns: readonly { readonly id: ParameterId; readonly column: ParameterId }[];
}

export interface CaseDependency {
  readonly id: CaseId;
}

export interface CaseOrigin {
  readonly id: CaseId;
  readonly version: number;
}

export const EMPTY_CASE: CaseContent = {
  title: '',
  kind: 'procedure',
  execution: 'byHand',
  objective: '',
  areas: '',
  ideas: '',
  preconditions: '',
  steps: [],
  parameters: [],
  rows: [],
  data: null,
  runs: ALL_ROWS,
  covers: [],
  module: '',
  priority: 'medium',
  tags: [],
  estimate: null,
  owner: '',
  defects: [],
  dependsOn: [],
  origin: null,
  attachments: [],
  own: NO_OWN,
};

/** The part whose change makes trace links to the case suspect. */
export function caseMeaning(content: CaseContent): unknown {
  const covers = content.covers.map((c) => [c.id, c.fields, c.expects, c.start, c.events]);
  return [content.title, content.kind, content.objective, content.areas, content.ideas, content.preconditions, content.steps, content.parameters, content.rows, content.data, content.runs, covers];
}
