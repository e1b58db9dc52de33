import type { Attachment } from '../attachments/index.ts';
import type { Priority, RequirementId } from '../artefacts/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Risk, RiskRating } from './riskScale.ts';
import type { Dismissal } from './wording/dismissal.ts';

/** A heading parts the outline and demands nothing: it is counted nowhere. */
export const REQUIREMENT_TYPES = ['rule', 'userStory', 'quality', 'apiOperation', 'heading'] as const;
export type RequirementType = (typeof REQUIREMENT_TYPES)[number];

/** Where an imported requirement comes from; `source` and `id` together are what a later import finds it by. */
export interface Origin {
  /** Name of the source within the project: a file's, or the tracker's. */
  readonly source: string;
  /** The id the source gives it. */
  readonly id: string;
  /** Address that leads back to it; empty when there is none. */
  readonly link: string;
}

/** What a source says of a requirement beyond the fields Caderno has. `id` is the attribute's name. */
export interface Attribute {
  readonly id: string;
  readonly value: string;
}

/** A relation to another requirement: one the source names, or `split from` and `merged into`. */
export interface Relation {
  readonly id: string;
  readonly kind: string;
  readonly to: RequirementId;
}

/** What a version of a requirement holds. Its place in the outline is not content: a move makes no version. */
export interface RequirementContent {
  readonly title: string;
  /** Markdown. */
  readonly text: string;
  readonly type: RequirementType;
  readonly module: string;
  /** The risk as said outright; a rating takes its place. */
  readonly risk: Risk;
  readonly rating: RiskRating | null;
  readonly priority: Priority;
  readonly source: string;
  readonly origin: Origin | null;
  readonly attributes: readonly Attribute[];
  readonly relations: readonly Relation[];
  readonly dismissals: readonly Dismissal[];
  /** Files that belong to it as a whole. */
  readonly attachments: readonly Attachment[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_REQUIREMENT: RequirementContent = {
  title: '',
  text: '',
  type: 'rule',
  module: '',
  risk: 'medium',
  rating: null,
  priority: 'medium',
  source: '',
  origin: null,
  attributes: [],
  relations: [],
  dismissals: [],
  attachments: [],
  own: NO_OWN,
};

const SECTION = 'section: ';

/** Stands in for the id of a row that parts a table and has none; the same words twice are told apart by their turn. */
export function sectionId(words: string, turn: number): string {
  return `${SECTION}${words}${turn === 1 ? '' : ` (${turn})`}`;
}

/** The id of a requirement as its source has it; empty where the source has none. */
export function idInSource(id: string): string {
  return id.startsWith(SECTION) ? '' : id;
}

/** The part whose change makes trace links to the requirement suspect. */
export function requirementMeaning(content: RequirementContent): unknown {
  return [content.title, content.text, content.type];
}
