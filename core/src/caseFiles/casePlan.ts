import type { CaseId } from '../artefacts/index.ts';
import type { CaseContent } from '../cases/index.ts';
import type { ConflictChoice } from '../exchange/index.ts';
import type { OwnField } from '../fields/index.ts';
import { caseWith, requirementsMissing, type CaseFileProject } from './caseContent.ts';
import type { CaseEntry } from './caseEntries.ts';
import { caseFieldText, conditionsText, withCaseField, type CaseField, type TextField } from './caseField.ts';
import { stepsText } from './stepText.ts';

/** What an import last brought of a case, or what the version it was written from says: what changes are told apart from. */
export type CaseBase = Readonly<Partial<Record<CaseField, string>>>;

/** A case of the project as an import meets it. */
export interface ExistingCase {
  readonly id: CaseId;
  readonly content: CaseContent;
  /** The id its source gives it; null: it did not come from this source. */
  readonly key: string | null;
  /** Null: never imported from this source, nor written out with a version. */
  readonly base: CaseBase | null;
  readonly withdrawn: boolean;
}

export interface CaseFieldChange {
  readonly field: CaseField;
  readonly from: string;
  readonly to: string;
}

/** Both the file and the project changed a field since. */
export interface CaseFieldConflict {
  readonly field: CaseField;
  readonly base: string;
  readonly mine: string;
  readonly theirs: string;
}

export interface PlannedCase {
  readonly entry: CaseEntry;
  readonly id: CaseId;
  readonly fields: readonly CaseFieldChange[];
  readonly conflicts: readonly CaseFieldConflict[];
}

export interface CasePlan {
  readonly added: readonly CaseEntry[];
  /** With something to change, or to choose. */
  readonly changed: readonly PlannedCase[];
  readonly same: readonly { readonly entry: CaseEntry; readonly id: CaseId }[];
  /** Imported from this source before and no longer in the file; left alone. */
  readonly gone: readonly CaseId[];
}

/** The id under which a choice between the project's and the file's value is named. */
export const caseConflictKey = (id: CaseId, field: CaseField): string => `${id} ${field}`;

/** What an import of these entries would do. An entry finds its case by its own id, or by the id of the source. */
export function planCases(entries: readonly CaseEntry[], existing: readonly ExistingCase[], project: Pick<CaseFileProject, 'fields' | 'conditionsOf'>): CasePlan {
  const byId = new Map(existing.map((e) => [e.id, e]));
  const byKey = new Map(existing.flatMap((e) => (e.key === null ? [] : [[e.key, e] as const])));
  const plan = { added: [] as CaseEntry[], changed: [] as PlannedCase[], same: [] as { entry: CaseEntry; id: CaseId }[] };
  const met = new Set<CaseId>();
  for (const entry of entries) {
    const found = (entry.ownId === null ? undefined : byId.get(entry.ownId)) ?? byKey.get(entry.key);
    if (found === undefined || met.has(found.id)) {
      plan.added.push(entry);
      continue;
    }
    met.add(found.id);
    const change = plannedCase(entry, found, project);
    if (change.fields.length + change.conflicts.length > 0) plan.changed.push(change);
    else plan.same.push({ entry, id: found.id });
  }
  return { ...plan, gone: [...byKey.values()].filter((e) => !met.has(e.id) && !e.withdrawn).map((e) => e.id) };
}

function plannedCase(entry: CaseEntry, { id, content, base }: ExistingCase, project: Pick<CaseFileProject, 'fields' | 'conditionsOf'>): PlannedCase {
  const fields: CaseFieldChange[] = [];
  const conflicts: CaseFieldConflict[] = [];
  for (const [field, theirs] of saidBy(entry, content, project.fields)) {
    const mine = caseFieldText(content, field, project.fields);
    const was = base?.[field];
    if (isSame(theirs, mine) || isSame(theirs, was)) continue;
    if (was === undefined || isSame(was, mine)) fields.push({ field, from: mine, to: theirs });
    else conflicts.push({ field, base: was, mine, theirs });
  }
  const missing = requirementsMissing(content, entry, project);
  // Links that somebody took away since they were brought stay away.
  if (missing !== '' && missing !== base?.requirements) fields.push({ field: 'requirements', from: '', to: missing });
  return { entry, id, fields, conflicts };
}

/** Ends of lines are written in several ways, and files end a text where a space would stand. */
function isSame(a: string, b: string | undefined): boolean {
  return b !== undefined && (a === b || inFile(a) === inFile(b));
}

function inFile(text: string): string {
  return text.replaceAll(/[ \t]*\r?\n/g, '\n').trimEnd();
}

/** What an entry says of a case, as the project would write it: another spelling of one value is no change. */
function saidBy(entry: CaseEntry, content: CaseContent, fields: readonly OwnField[]): [CaseField, string][] {
  const texts = (Object.entries(entry.fields) as [TextField, string][]).map(([field, text]): [CaseField, string] => [field, caseFieldText(withCaseField(content, field, text, fields), field, fields)]);
  return [...texts, ...(entry.steps === null ? [] : [['steps', stepsText(entry.steps)] as [CaseField, string]]), ...(entry.conditions === null ? [] : [['conditions', conditionsText(entry.conditions)] as [CaseField, string]])];
}

/** Conflicts nobody has chosen between. */
export function openCaseConflicts(plan: CasePlan, choices: ReadonlyMap<string, ConflictChoice>): string[] {
  return plan.changed.flatMap(({ id, conflicts }) => conflicts.map(({ field }) => caseConflictKey(id, field)).filter((key) => !choices.has(key)));
}

/** The case once the change is taken in; what is not chosen stays as it is here. */
export function changedCase(content: CaseContent, { entry, id, fields, conflicts }: PlannedCase, choices: ReadonlyMap<string, ConflictChoice>, project: CaseFileProject): CaseContent {
  const taken = new Set<CaseField>(fields.map((f) => f.field));
  const own = new Map<CaseField, string>();
  for (const { field } of conflicts) {
    const choice = choices.get(caseConflictKey(id, field));
    if (choice === undefined || choice === 'mine') continue;
    taken.add(field);
    if (typeof choice === 'object') own.set(field, choice.own);
  }
  return caseWith(content, entry, taken, own, project);
}

/** What to remember of an entry once it is taken in, as the project writes it. */
export function caseBaseOf(entry: CaseEntry, content: CaseContent, fields: readonly OwnField[]): CaseBase {
  return { ...Object.fromEntries(saidBy(entry, content, fields)), requirements: conditionsText(entry.requirements) };
}
