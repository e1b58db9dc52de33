import type { ArtefactKind } from '../artefacts/index.ts';

/** The id of a field that a project has made for itself. */
export type OwnFieldId = string & { readonly __brand: 'OwnFieldId' };

/** The one maker of ids of fields. */
export function ownFieldId(id: string): OwnFieldId {
  return id as OwnFieldId;
}

/** What a field of a project's own can hold. `person`: the display name of one. */
export const OWN_FIELD_TYPES = ['text', 'longText', 'number', 'choice', 'choices', 'date', 'person', 'yesNo', 'link'] as const;
export type OwnFieldType = (typeof OWN_FIELD_TYPES)[number];

/** What can be chosen. Values keep the id, so that another name is another name everywhere. */
export interface OwnChoice {
  readonly id: string;
  readonly name: string;
}

/** A field that a project has made for itself. */
export interface OwnField {
  readonly id: OwnFieldId;
  readonly name: string;
  /** The kinds of artefact that have it. */
  readonly of: readonly ArtefactKind[];
  readonly type: OwnFieldType;
  /** In their order; kept while the type is another, so that what was chosen can still be read. */
  readonly choices: readonly OwnChoice[];
  readonly required: boolean;
  /** What a new artefact begins with; null: nothing. */
  readonly begins: OwnValue | null;
  /** What to fill in, in words; empty: the name says it. */
  readonly help: string;
  /** Neither shown nor asked for any more. What is stored of it stays, and can be seen again when it is brought back. */
  readonly removed: boolean;
}

/** What stands in a field: a text as it was filled in, several where several can be chosen. */
export type OwnValue = string | readonly string[];

/** What an artefact holds of a project's own fields, by their ids. An absent one is empty. */
export type OwnValues = Readonly<Record<string, OwnValue>>;

export const NO_OWN: OwnValues = {};

/** The fields that artefacts of a kind have now, in the order of the project. */
export function ownFieldsOf(fields: readonly OwnField[], kind: ArtefactKind): OwnField[] {
  return fields.filter((field) => !field.removed && field.of.includes(kind));
}

/** The fields that hold a text of people's own words, of whatever kind of artefact. */
export function ownTextFields(fields: readonly OwnField[]): ReadonlySet<OwnFieldId> {
  return new Set(fields.flatMap((field) => (!field.removed && (field.type === 'text' || field.type === 'longText') ? [field.id] : [])));
}

/** What a field is called in a query: its name in small letters, with dashes between the words. */
export function ownQueryName(name: string): string {
  return name.toLowerCase().match(/[\p{L}\p{M}\p{N}]+/gu)?.join('-') ?? '';
}

/** Whether a query could not tell two names from each other. */
export function isSameOwnName(a: string, b: string): boolean {
  return ownQueryName(a) === ownQueryName(b);
}

/** Characters of a field's name. */
export const LONGEST_FIELD_NAME = 60;

/**
 * A field for a column of a file that has none yet: a text, which takes whatever stands there, and is given another type
 * later. It is called as the column is, cut to what a name may have; where another field is called so a number follows.
 */
export function ownFieldForColumn(id: OwnFieldId, column: string, kind: ArtefactKind, fields: readonly OwnField[]): OwnField {
  const others = fields.filter((field) => !field.removed);
  const wanted = ownQueryName(column) === '' ? 'Field' : column.trim().slice(0, LONGEST_FIELD_NAME - 4).trim();
  let name = wanted;
  for (let n = 2; others.some((field) => isSameOwnName(field.name, name)); n += 1) name = `${wanted} ${n}`;
  return { id, name, of: [kind], type: 'text', choices: [], required: false, begins: null, help: '', removed: false };
}

/** The values with one of them set, or emptied by null; the very same when it was so already. */
export function withOwnValue(values: OwnValues, field: OwnFieldId, value: OwnValue | null): OwnValues {
  const before = values[field];
  if (value === null || value.length === 0) {
    if (before === undefined) return values;
    return Object.fromEntries(Object.entries(values).filter(([id]) => id !== field));
  }
  return before !== undefined && sameValue(before, value) ? values : { ...values, [field]: value };
}

/** What a new artefact of a kind begins with. */
export function beginningValues(fields: readonly OwnField[], kind: ArtefactKind): OwnValues {
  return Object.fromEntries(ownFieldsOf(fields, kind).flatMap(({ id, begins }) => (begins === null || begins.length === 0 ? [] : [[id, begins]])));
}

/** The required fields in which an artefact has nothing. */
export function missingIn(fields: readonly OwnField[], kind: ArtefactKind, values: OwnValues): OwnField[] {
  return ownFieldsOf(fields, kind).filter((field) => field.required && values[field.id] === undefined);
}

function sameValue(a: OwnValue, b: OwnValue): boolean {
  if (typeof a === 'string' || typeof b === 'string') return a === b;
  return a.length === b.length && a.every((value, i) => value === b[i]);
}
