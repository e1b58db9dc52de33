import { artefactId, isNewerThanAgreed, parseArtefactId, type ArtefactId, type ArtefactKind } from '../artefacts/index.ts';
import { shownRatio, STANDINGS, type Ratio, type StandingCounts } from '../coverage/index.ts';
import { readOwn, type OwnFieldId, type OwnFieldType, type OwnValues } from '../fields/index.ts';
import { daysOf, spanOf } from './moment.ts';
import type { HasValue, IsValue, NumberField, OwnNode, Query, QueryNode, TextField } from './query.ts';
import type { Comparison } from './tokens.ts';

/** What of an artefact a query's fields are held against: what lists show of it. A field that its kind does not have is absent. */
export interface Findable {
  readonly kind: ArtefactKind;
  readonly id: ArtefactId;
  readonly state: string;
  readonly version: number;
  readonly author: string;
  /** When its newest version was saved. */
  readonly at: string;
  readonly broken: boolean;
  /** The version that was agreed last, and the one with which the present meaning began. */
  readonly agreed?: number | null;
  readonly meaningSince?: number;
  /** Its own; of a condition those of its requirements. */
  readonly modules: readonly string[];
  /** Whom a question is asked of. */
  readonly owner?: string;
  readonly tags?: readonly string[];
  readonly priority?: string;
  /** Of a condition without a risk of its own the highest of its requirements. */
  readonly risk?: string;
  readonly type?: string;
  readonly technique?: string;
  readonly polarity?: string;
  readonly depths?: readonly string[];
  readonly caseKind?: string;
  readonly execution?: string;
  readonly status?: string;
  readonly steps?: number;
  readonly rows?: number;
  /** Steps that expect something. */
  readonly expected?: number;
  /** Of a feature. */
  readonly scenarios?: number;
  /** Lines of a feature that are not good Gherkin. */
  readonly problems?: number;
  readonly estimate?: number | null;
  readonly dataSet?: ArtefactId | null;
  readonly covers?: readonly ArtefactId[];
  readonly about?: readonly ArtefactId[];
  /** That it hangs on; of a case those of the conditions it covers. */
  readonly requirements?: readonly ArtefactId[];
  /** What coverage says of it; absent while that is not known. */
  readonly standings?: StandingCounts;
  readonly shows?: boolean;
  /** Values of the project's own fields; of a long text only the beginning. */
  readonly own: OwnValues;
}

/** Words that only a look into the contents can find: in any text, or in a long text of the project's own fields. */
export interface Sought {
  readonly words: string;
  readonly field: OwnFieldId | null;
}

/** The artefacts of a kind that have what is sought; it is not in what lists show. Null: not known yet. */
export type FoundByWords = (sought: Sought) => ReadonlySet<ArtefactId> | null;

/** Who asks, and when: `is:mine` and `updated<7d` mean something else to everybody. */
export interface Asking {
  readonly name: string;
  /** In milliseconds since 1970. */
  readonly now: number;
}

/**
 * Whether an artefact is in the list that a query asks for. Withdrawn ones are only when the query speaks of states;
 * requirements always. The server's SQL means the same (held against it in a test).
 */
export function matchesQuery({ root }: Pick<Query, 'root'>, artefact: Findable, foundByWords: FoundByWords, asking: Asking): boolean {
  if (artefact.state === 'withdrawn' && artefact.kind !== 'requirement' && !speaksOfState(root)) return false;
  return holds(root, artefact, foundByWords, asking);
}

/** Whether any part of a query asks for a state. */
export function speaksOfState(node: QueryNode): boolean {
  return leavesOf(node).some((leaf) => leaf.kind === 'field' && leaf.field === 'state');
}

type Leaf = Exclude<QueryNode, { kind: 'all' | 'any' | 'not' }>;

/** What a query asks for, without how it hangs together. */
export function leavesOf(node: QueryNode): Leaf[] {
  switch (node.kind) {
    case 'all':
    case 'any':
      return node.of.flatMap(leavesOf);
    case 'not':
      return leavesOf(node.of);
    default:
      return [node];
  }
}

/** What of a query only a look into the contents can find, each once; asked for before {@link matchesQuery} can answer. */
export function wordsToFind({ root }: Pick<Query, 'root'>): Sought[] {
  const sought = leavesOf(root).flatMap((leaf) => soughtBy(leaf) ?? []);
  return [...new Map(sought.map((s) => [soughtKey(s), s])).values()];
}

/** Tells what is sought apart from all else that is. */
export function soughtKey({ words, field }: Sought): string {
  return `${field ?? ''}:${words}`;
}

function soughtBy(leaf: Leaf): Sought | null {
  if (leaf.kind === 'words') return parseArtefactId(leaf.words.toUpperCase()) === null ? { words: leaf.words, field: null } : null;
  return leaf.kind === 'own' && leaf.asked === 'text' && leaf.field.type === 'longText' ? { words: leaf.text, field: leaf.field.id } : null;
}

function holds(node: QueryNode, artefact: Findable, foundByWords: FoundByWords, asking: Asking): boolean {
  switch (node.kind) {
    case 'all':
      return node.of.every((part) => holds(part, artefact, foundByWords, asking));
    case 'any':
      return node.of.some((part) => holds(part, artefact, foundByWords, asking));
    case 'not':
      return !holds(node.of, artefact, foundByWords, asking);
    case 'words':
      return hasWords(node.words, artefact, foundByWords);
    case 'field':
      return FIELD[node.field](artefact, node.value, asking);
    case 'number':
      return NUMBER[node.field](artefact, node.is, node.than);
    case 'updated': {
      const { from, to } = spanOf(node.is, node.than, asking.now);
      const at = Date.parse(artefact.at);
      return (from === null || at >= from) && (to === null || at < to);
    }
    case 'own':
      return ownHolds(node, artefact, foundByWords, asking);
  }
}

function ownHolds(node: OwnNode, artefact: Findable, foundByWords: FoundByWords, asking: Asking): boolean {
  const value = artefact.own[node.field.id];
  if (value === undefined) return false;
  const sought = soughtBy(node);
  if (sought !== null) return foundByWords(sought)?.has(artefact.id) ?? false;
  const { shown } = readOwn(node.field, value);
  switch (node.asked) {
    case 'anything':
      return true;
    case 'text':
      return isClosed(node.field.type) ? among(shown, node.text) : shown.some((text) => within(text, node.text));
    case 'number':
      return isPlainNumber(shown[0] ?? '') && compares(Number(shown[0]), node.is, node.than);
    case 'day': {
      const { from, before } = daysOf(spanOf(node.is, node.than, asking.now));
      return isPlainDay(shown[0] ?? '') && (from === null || (shown[0] ?? '') >= from) && (before === null || (shown[0] ?? '') < before);
    }
  }
}

/** Whether the values of a type are asked for whole, not by a part of them. */
export function isClosed(type: OwnFieldType): boolean {
  return type === 'choice' || type === 'choices' || type === 'yesNo';
}

/** What can be compared as a number, and as a day: what the database can, too. */
const isPlainNumber = (text: string): boolean => /^[+-]?\d{1,30}(\.\d{1,30})?$/.test(text);
const isPlainDay = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text);

function hasWords(words: string, artefact: Findable, foundByWords: FoundByWords): boolean {
  const id = parseArtefactId(words.toUpperCase());
  if (id === null) return foundByWords({ words, field: null })?.has(artefact.id) ?? false;
  const written = artefactId(id.kind, id.number);
  return id.kind === artefact.kind ? written === artefact.id : [artefact.covers, artefact.about, artefact.requirements].some((links) => links?.some((link) => link === written));
}

const same = (a: string | undefined, b: string): boolean => a !== undefined && a.toLowerCase() === b.toLowerCase();
const within = (text: string, part: string): boolean => text.toLowerCase().includes(part.toLowerCase());
const among = (list: readonly string[] | undefined, value: string): boolean => (list ?? []).some((member) => same(member, value));
const compact = (text: string): string => text.replaceAll(/\s/g, '');

const FIELD: Record<TextField, (artefact: Findable, value: string, asking: Asking) => boolean> = {
  state: (a, value) => value === 'any' || same(a.state, compact(value)),
  module: (a, value) => a.modules.some((module) => within(module, value)),
  owner: (a, value) => within(a.owner ?? '', value),
  author: (a, value) => within(a.author, value),
  // In features a tag begins with the sign that people leave out elsewhere.
  tag: (a, value) => among(a.tags, value) || among(a.tags, `@${value}`),
  priority: (a, value) => same(a.priority, value),
  risk: (a, value) => same(a.risk, value),
  covers: (a, value) => among(a.covers, value),
  requirement: (a, value) => among(a.requirements, value) || among(a.about, value),
  id: (a, value) => same(a.id, value),
  kind: (a, value) => same(a.caseKind, value),
  execution: (a, value) => same(a.execution, compact(value)),
  technique: (a, value) => same(a.technique, compact(value)),
  polarity: (a, value) => same(a.polarity, value),
  type: (a, value) => same(a.type, compact(value)),
  status: (a, value) => same(a.status, value),
  standing: (a, value) => STANDINGS.some((s) => s === value && (a.standings?.[s] ?? 0) > 0),
  depth: (a, value) => among(a.depths, value),
  has: (a, value) => HAS[value as HasValue](a),
  is: (a, value, asking) => IS[value as IsValue](a, asking),
};

const HAS: Record<HasValue, (artefact: Findable) => boolean> = {
  rows: (a) => (a.rows ?? 0) > 0,
  steps: (a) => (a.steps ?? 0) > 0,
  expected: (a) => (a.expected ?? 0) > 0,
  covers: (a) => (a.covers ?? []).length > 0,
  tags: (a) => (a.tags ?? []).length > 0,
  estimate: (a) => a.estimate != null,
  owner: (a) => (a.owner ?? '') !== '',
  module: (a) => a.modules.some((module) => module !== ''),
  requirement: (a) => (a.requirements ?? []).length > 0,
  dataSet: (a) => a.dataSet != null,
  problems: (a) => (a.problems ?? 0) > 0,
  agreed: (a) => a.agreed != null,
};

const IS: Record<IsValue, (artefact: Findable, asking: Asking) => boolean> = {
  mine: (a, { name }) => name !== '' && a.owner === name,
  broken: (a) => a.broken,
  showing: (a) => a.shows === true,
  newer: isNewerThanAgreed,
};

const NUMBER: Record<NumberField, (artefact: Findable, is: Comparison, than: number) => boolean> = {
  minutes: (a, is, than) => a.estimate != null && compares(a.estimate, is, than),
  steps: (a, is, than) => a.steps !== undefined && compares(a.steps, is, than),
  scenarios: (a, is, than) => a.scenarios !== undefined && compares(a.scenarios, is, than),
  problems: (a, is, than) => a.problems !== undefined && compares(a.problems, is, than),
  rows: (a, is, than) => a.rows !== undefined && compares(a.rows, is, than),
  version: (a, is, than) => compares(a.version, is, than),
  coverage: (a, is, than) => a.standings !== undefined && isShare(shownRatio(a.standings), is, than),
};

/** Where there is nothing to show there is no share. Cross-multiplied: a share of 1 in 3 is less than 34 % and more than 33 %. */
function isShare({ part, of }: Ratio, is: Comparison, percent: number): boolean {
  return of > 0 && compares(part * 100, is, percent * of);
}

function compares(a: number, is: Comparison, b: number): boolean {
  switch (is) {
    case '<':
      return a < b;
    case '<=':
      return a <= b;
    case '=':
      return a === b;
    case '>=':
      return a >= b;
    case '>':
      return a > b;
  }
}
