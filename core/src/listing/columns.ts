import { ARTEFACT_STATES, type ArtefactId, type ArtefactKind, type Priority } from '../artefacts/index.ts';
import { QUESTION_STATUSES, REQUIREMENT_TYPES, RISKS } from '../basis/index.ts';
import { CASE_KINDS, EXECUTIONS } from '../cases/index.ts';
import { MODEL_KINDS } from '../conditions/index.ts';
import { shownRatio, type Ratio, type Standing } from '../coverage/index.ts';
import { choiceOf, ownFieldsOf, readOwn, type OwnField, type OwnFieldId } from '../fields/index.ts';
import type { Findable } from '../find/index.ts';

/** An artefact in a list: what a query looks at, and what only a list shows. */
export interface Listed extends Findable {
  readonly title: string;
  /** In the order of the outline; requirements only. */
  readonly position?: number;
  /** Where the file of a feature stands. */
  readonly folder?: string;
  /** How often a case is executed, or all scenarios of a feature. */
  readonly instances?: number;
  /** Items that wait for the answer to a question. */
  readonly heldUp?: number;
}

/** What a list can show of an artefact, sort by and group by. */
export const LIST_COLUMNS = [
  'id', 'title', 'state', 'module', 'requirement', 'type', 'technique', 'risk', 'priority', 'owner', 'status', 'coverage', 'standing', 'caseKind', 'execution',
  'folder', 'scenarios', 'problems', 'steps', 'rows', 'instances', 'minutes', 'covers', 'heldUp', 'tags', 'depths', 'version', 'updated', 'author',
] as const;
export type BuiltInColumn = (typeof LIST_COLUMNS)[number];
/** A field of the project's own as a column, by its id. */
export type OwnColumn = `own:${string}`;
export type ListColumn = BuiltInColumn | OwnColumn;

/** The column of a field of the project's own. */
export function ownColumn(id: OwnFieldId): OwnColumn {
  return `own:${id}`;
}

/** The field that a column shows; undefined where it is none of the project's own, or one it does not know. */
export function fieldOfColumn(column: ListColumn, fields: readonly OwnField[]): OwnField | undefined {
  return isOwnColumn(column) ? fields.find((field) => ownColumn(field.id) === column) : undefined;
}

/** Whether a column is a field of the project's own. */
export function isOwnColumn(column: ListColumn): column is OwnColumn {
  return column.startsWith('own:');
}

/** What stands in a column: texts in their order of importance, a number, a share, or nothing. */
export type ListValue = string | number | readonly string[] | Ratio | null;

const OF_ALL: readonly BuiltInColumn[] = ['version', 'updated', 'author'];
const OF_KIND: Readonly<Record<ArtefactKind, readonly BuiltInColumn[]>> = {
  requirement: ['id', 'title', 'state', 'module', 'type', 'risk', 'priority', 'coverage', 'standing'],
  condition: ['id', 'title', 'state', 'requirement', 'module', 'technique', 'risk', 'coverage', 'standing', 'depths'],
  case: ['id', 'title', 'state', 'module', 'priority', 'owner', 'steps', 'rows', 'instances', 'minutes', 'covers', 'requirement', 'caseKind', 'execution', 'tags'],
  question: ['id', 'title', 'status', 'owner', 'heldUp', 'requirement'],
  shared: ['id', 'title', 'state', 'module', 'steps', 'tags'],
  dataSet: ['id', 'title', 'state', 'module', 'rows', 'tags'],
  feature: ['id', 'title', 'folder', 'state', 'module', 'owner', 'scenarios', 'instances', 'problems', 'requirement', 'tags'],
  suite: ['id', 'title', 'folder', 'state', 'module', 'owner', 'tags'],
};

/** The columns that say something of artefacts of a kind, in the order in which a table begins with them. */
export function columnsOf(kind: ArtefactKind, fields: readonly OwnField[]): readonly ListColumn[] {
  return [...OF_KIND[kind], ...ownFieldsOf(fields, kind).map((field) => ownColumn(field.id)), ...OF_ALL];
}

const GROUPS: ReadonlySet<ListColumn> = new Set(['folder', 'state', 'module', 'requirement', 'type', 'technique', 'risk', 'priority', 'owner', 'status', 'standing', 'caseKind', 'execution', 'tags', 'depths', 'updated', 'author']);

/** The columns that artefacts of a kind can be grouped by. */
export function groupsOf(kind: ArtefactKind, fields: readonly OwnField[]): readonly ListColumn[] {
  return columnsOf(kind, fields).filter((column) => {
    const type = fieldOfColumn(column, fields)?.type;
    return type === undefined ? GROUPS.has(column) : type !== 'longText' && type !== 'link';
  });
}

/** The worst first: what a condition stands at is the worst of its items. */
const WORST: readonly Standing[] = ['gap', 'suspect', 'waiting', 'linked', 'shown', 'leftOut'];

/** Members of closed sets in the order of their set, which is not that of the alphabet. */
const ORDER: Readonly<Partial<Record<BuiltInColumn, readonly string[]>>> = {
  state: ARTEFACT_STATES, risk: RISKS, type: REQUIREMENT_TYPES, technique: MODEL_KINDS, status: QUESTION_STATUSES, standing: WORST, caseKind: CASE_KINDS, execution: EXECUTIONS,
};

/** What of a project's settings lists depend on: its own fields, and the order of its modules and priorities. */
export interface ListProject {
  readonly fields: readonly OwnField[];
  readonly modules: readonly string[];
  readonly priorities: readonly Priority[];
}

/** The place of a member in the order of its column; null: the column is no closed set, or does not know it. */
export function orderIn(column: ListColumn, value: string, { fields, modules, priorities }: ListProject): number | null {
  const ordered = column === 'module' ? modules : column === 'priority' ? priorities : isOwnColumn(column) ? [] : (ORDER[column] ?? []);
  const at = isOwnColumn(column) ? orderOfChoice(fieldOfColumn(column, fields), value) : ordered.indexOf(value);
  return at < 0 ? null : at;
}

function orderOfChoice(field: OwnField | undefined, name: string): number {
  if (field === undefined || (field.type !== 'choice' && field.type !== 'choices')) return -1;
  const chosen = choiceOf(field, name);
  return chosen === null ? -1 : field.choices.indexOf(chosen);
}

const VALUE: Record<BuiltInColumn, (listed: Listed) => ListValue> = {
  id: (l) => l.id,
  title: (l) => l.title,
  state: (l) => l.state,
  module: (l) => [...new Set(l.modules)].filter((module) => module !== ''),
  requirement: (l) => (l.requirements ?? l.about ?? []).filter((id: ArtefactId) => id.startsWith('R')),
  type: (l) => l.type ?? null,
  technique: (l) => l.technique ?? null,
  risk: (l) => textOrNull(l.risk),
  priority: (l) => l.priority ?? null,
  owner: (l) => textOrNull(l.owner),
  status: (l) => l.status ?? null,
  coverage: (l) => (l.standings === undefined ? null : shownRatio(l.standings)),
  standing: ({ standings }) => (standings === undefined ? null : (WORST.find((s) => standings[s] > 0) ?? null)),
  caseKind: (l) => l.caseKind ?? null,
  execution: (l) => l.execution ?? null,
  folder: (l) => textOrNull(l.folder),
  scenarios: (l) => l.scenarios ?? null,
  problems: (l) => (l.problems === 0 ? null : (l.problems ?? null)),
  steps: (l) => l.steps ?? null,
  rows: (l) => l.rows ?? null,
  instances: (l) => l.instances ?? null,
  minutes: (l) => (l.estimate == null ? null : l.estimate * (l.instances ?? 1)),
  covers: (l) => l.covers ?? [],
  heldUp: (l) => l.heldUp ?? null,
  tags: (l) => l.tags ?? [],
  depths: (l) => l.depths ?? [],
  version: (l) => l.version,
  updated: (l) => l.at,
  author: (l) => textOrNull(l.author),
};

/** What a column shows of an artefact. `minutes` is for all its instances. */
export function valueIn(column: ListColumn, listed: Listed, fields: readonly OwnField[]): ListValue {
  return isOwnColumn(column) ? ownValueIn(fieldOfColumn(column, fields), listed) : VALUE[column](listed);
}

function ownValueIn(field: OwnField | undefined, { own }: Listed): ListValue {
  const value = field === undefined ? undefined : own[field.id];
  if (field === undefined || value === undefined) return null;
  const { shown, fits } = readOwn(field, value);
  if (field.type === 'choices') return shown;
  const [text = ''] = shown;
  return field.type === 'number' && fits ? Number(text) : text;
}

function textOrNull(text: string | undefined): string | null {
  return text === undefined || text === '' ? null : text;
}
