import type { RequirementId } from '../artefacts/index.ts';
import { EMPTY_REQUIREMENT, type RequirementContent } from '../basis/index.ts';
import type { Side } from '../versions/index.ts';
import type { OwnField } from '../fields/index.ts';
import type { Entry } from './entries.ts';
import { fieldText, withFields, type FieldName, type FieldValues } from './field.ts';

/** What an import last brought of a requirement: what a later one is told apart from. */
export interface ImportBase {
  readonly fields: FieldValues;
  /** Key of the one above it; undefined: the file said nothing. */
  readonly parent?: string | null | undefined;
  readonly relations: readonly string[];
  /** What the format needs to be written again. */
  readonly facts: string;
}

/** A requirement of the project as an import meets it. */
export interface ExistingRequirement {
  readonly id: RequirementId;
  readonly content: RequirementContent;
  /** Key of the requirement above it within the source; its own id when that has none there; null at the top. */
  readonly parent: string | null;
  /** The nearest above it that is not withdrawn: withdrawn ones are not written out. */
  readonly visibleParent: RequirementId | null;
  /** Null: never imported from this source, nor written out with a version. */
  readonly base: ImportBase | null;
  readonly withdrawn: boolean;
}

export interface FieldChange {
  readonly field: FieldName;
  readonly from: string;
  readonly to: string;
}

/** Both the file and the project changed a field since; `base` is what both grew from. */
export interface FieldConflict {
  readonly field: FieldName;
  readonly base: string;
  readonly mine: string;
  readonly theirs: string;
}

export interface PlannedAdd {
  readonly entry: Entry;
}

export interface PlannedChange {
  readonly entry: Entry;
  readonly id: RequirementId;
  readonly title: string;
  readonly fields: readonly FieldChange[];
  readonly conflicts: readonly FieldConflict[];
  /** Whether the file has it below another requirement than before. */
  readonly moves: boolean;
  readonly relations: boolean;
}

export interface ImportPlan {
  readonly added: readonly PlannedAdd[];
  /** With something to change, or to choose. */
  readonly changed: readonly PlannedChange[];
  readonly same: readonly { readonly entry: Entry; readonly id: RequirementId }[];
  /** Imported from this source before and no longer in the file; left alone. */
  readonly gone: readonly RequirementId[];
}

/** The id under which choices between the project's and the file's value are named. */
export const conflictKey = (id: RequirementId, field: FieldName): string => `${id} ${field}`;

/** A value as a format would bring it back that was written out: not every format keeps every sign of it. */
export type AsBroughtBack = (field: FieldName, text: string) => string;

const unchanged: AsBroughtBack = (_, text) => text;

/** What an import of these entries would do. Entries find their requirement by its own id, or by source and id; what only the writing out and reading in changed is no change. */
export function planImport(source: string, entries: readonly Entry[], existing: readonly ExistingRequirement[], fields: readonly OwnField[], broughtBack: AsBroughtBack = unchanged): ImportPlan {
  const byId = new Map(existing.map((e) => [e.id, e]));
  const byKey = new Map(existing.flatMap((e) => (e.content.origin?.source === source ? [[e.content.origin.id, e] as const] : [])));
  const added: PlannedAdd[] = [];
  const changed: PlannedChange[] = [];
  const same: { entry: Entry; id: RequirementId }[] = [];
  const met = new Set<RequirementId>();
  const findOf = (entry: Entry): ExistingRequirement | undefined => (entry.ownId === null ? undefined : byId.get(entry.ownId)) ?? byKey.get(entry.key);
  const idOfKey = new Map(entries.map((entry) => [entry.key, findOf(entry)?.id ?? null]));
  const idOf = (key: string): RequirementId | null => idOfKey.get(key) ?? byId.get(key as RequirementId)?.id ?? null;
  for (const entry of entries) {
    const found = findOf(entry);
    if (found === undefined || met.has(found.id)) {
      added.push({ entry });
      continue;
    }
    met.add(found.id);
    const change = plannedChange(entry, found, fields, broughtBack, idOf);
    if (change.fields.length + change.conflicts.length > 0 || change.moves || change.relations) changed.push(change);
    else same.push({ entry, id: found.id });
  }
  const gone = [...byKey.values()].filter((e) => !met.has(e.id) && !e.withdrawn).map((e) => e.id);
  return { added, changed, same, gone };
}

function plannedChange(entry: Entry, existing: ExistingRequirement, own: readonly OwnField[], broughtBack: AsBroughtBack, idOf: ResolveKey): PlannedChange {
  const { id, content, base } = existing;
  const isSame = (field: FieldName, a: string, b: string | undefined): boolean => a === b || (entry.ownId !== null && b !== undefined && broughtBack(field, a) === broughtBack(field, b));
  const fields: FieldChange[] = [];
  const conflicts: FieldConflict[] = [];
  const written = withFields(content, entry.fields, own);
  for (const field of Object.keys(entry.fields) as FieldName[]) {
    const mine = fieldText(content, field, own);
    // As the project would write it, so that another spelling of one value is no change.
    const theirs = fieldText(written, field, own);
    const was = base?.fields[field];
    if (isSame(field, theirs, mine) || isSame(field, theirs, was)) continue;
    if (was === undefined || was === mine) fields.push({ field, from: mine, to: theirs });
    else conflicts.push({ field, base: was, mine, theirs });
  }
  return { entry, id, title: content.title, fields, conflicts, moves: isMoved(entry, existing, idOf), relations: relationsChange(entry, content, base, idOf) };
}

/** A file of ours names parents by what they are here; any other by the ids of its source. */
function isMoved({ ownId, parent: wanted }: Entry, { parent, visibleParent, base }: ExistingRequirement, idOf: ResolveKey): boolean {
  if (wanted === undefined) return false;
  if (ownId !== null) return wanted === null ? visibleParent !== null : idOf(wanted) !== visibleParent;
  return wanted !== parent && (base === null || base.parent !== wanted);
}

/** In a file of ours a relation may have got another id, and those to withdrawn requirements are not there. */
function relationsChange({ ownId, relations }: Entry, content: RequirementContent, base: ImportBase | null, idOf: ResolveKey): boolean {
  const brought = relations.map((r) => r.id);
  const gone = ownId !== null ? [] : (base?.relations ?? []).filter((id) => !brought.includes(id) && content.relations.some((r) => r.id === id));
  return gone.length > 0 || relations.some(({ id, kind, to }) => !content.relations.some((r) => r.id === id || (ownId !== null && r.kind === kind && r.to === idOf(to))));
}

/** What holds where both sides changed: one of them, or a third text. */
export type ConflictChoice = Side | { readonly own: string };

/** Conflicts nobody has chosen between. */
export function openConflicts(plan: ImportPlan, choices: ReadonlyMap<string, ConflictChoice>): FieldConflict[] {
  return plan.changed.flatMap(({ id, conflicts }) => conflicts.filter(({ field }) => !choices.has(conflictKey(id, field))));
}

/** Finds the project's id for a source's key, once every requirement has one. */
export type ResolveKey = (key: string) => RequirementId | null;

export function addedContent(source: string, { fields, relations, key }: Entry, own: readonly OwnField[], resolve: ResolveKey): RequirementContent {
  const blank = { ...EMPTY_REQUIREMENT, origin: { source, id: key, link: '' } };
  return { ...withFields(blank, fields, own), relations: resolved(relations, resolve) };
}

/** The content after a change; where in conflict, what was chosen, else the project's. */
export function changedContent(content: RequirementContent, change: PlannedChange, base: ImportBase | null, choices: ReadonlyMap<string, ConflictChoice>, own: readonly OwnField[], resolve: ResolveKey): RequirementContent {
  const values: Partial<Record<FieldName, string>> = {};
  for (const { field, to } of change.fields) values[field] = to;
  for (const { field, theirs } of change.conflicts) {
    const choice = choices.get(conflictKey(change.id, field));
    if (choice === 'theirs') values[field] = theirs;
    else if (typeof choice === 'object') values[field] = choice.own;
  }
  const next = withFields(content, values, own);
  if (!change.relations) return next;
  const brought = resolved(change.entry.relations, resolve);
  const kept = next.relations.filter((r) => !(base?.relations ?? []).includes(r.id) && !brought.some((b) => b.id === r.id));
  return { ...next, relations: [...kept, ...brought] };
}

function resolved(relations: Entry['relations'], resolve: ResolveKey): RequirementContent['relations'] {
  return relations.flatMap(({ id, kind, to }) => {
    const target = resolve(to);
    return target === null ? [] : [{ id, kind, to: target }];
  });
}

/** What to remember of an entry once it is taken in. Written as the project writes it. */
export function baseOf(entry: Entry, content: RequirementContent, own: readonly OwnField[]): ImportBase {
  const written = withFields(content, entry.fields, own);
  const fields = Object.fromEntries((Object.keys(entry.fields) as FieldName[]).map((field) => [field, fieldText(written, field, own)]));
  return { fields, ...(entry.parent === undefined ? {} : { parent: entry.parent }), relations: entry.relations.map((r) => r.id), facts: entry.facts };
}
