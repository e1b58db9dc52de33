import { kindOfId, priorityNamed, type ArtefactId, type ArtefactKind, type CaseId, type DataSetId, type IdOfKind, type Priority, type SharedId } from '@caderno/core/artefacts';
import { REQUIREMENT_TYPES, RISKS } from '@caderno/core/basis';
import { CASE_KINDS, EXECUTIONS } from '@caderno/core/cases';
import { ownFieldsOf, ownText, writeOwn, type OwnField, type OwnFieldType } from '@caderno/core/fields';
import { fieldOfColumn, ownColumn, type ListProject, type OwnColumn } from '@caderno/core/listing';
import type { ChangeMany } from '@caderno/contract';
import { CASE_KIND_WORD, EXECUTION_WORD, REQUIREMENT_TYPE_WORD, RISK_WORD, STATE_WORD, priorityWord, locale } from '../look/index.ts';

/** What can be changed in many at a time. */
export type ChangedField = OwnColumn | BuiltInField;
type BuiltInField = 'title' | 'state' | 'module' | 'owner' | 'priority' | 'risk' | 'type' | 'caseKind' | 'execution' | 'minutes' | 'addTag' | 'takeTag' | 'link' | 'unlink' | 'writtenFor' | 'notWrittenFor' | 'pin' | 'follow' | 'followAgreed' | 'addDepth' | 'takeDepth';

const CHANGED_WORD: Record<BuiltInField, string> = {
  title: 'Title', state: 'State', module: 'Module', owner: 'Owner', priority: 'Priority', risk: 'Risk', type: 'Kind', caseKind: 'Kind', execution: 'By hand or automated', minutes: 'Minutes', addTag: 'Add a tag', takeTag: 'Remove a tag', link: 'Link a condition', unlink: 'Unlink a condition', writtenFor: 'Link a requirement', notWrittenFor: 'Unlink a requirement', pin: 'Pin what they use', follow: 'Follow the latest of what they use', followAgreed: 'Follow what is agreed of what they use',
  addDepth: 'Add to a depth', takeDepth: 'Remove from a depth',
};

/** What a field is called where it is chosen. */
export function changedWord(field: ChangedField, fields: readonly OwnField[]): string {
  return isOwnField(field) ? (fieldOfColumn(field, fields)?.name ?? 'A field that is gone') : CHANGED_WORD[field];
}

/** Whether it is a field of the project's own. */
export function isOwnField(field: ChangedField): field is OwnColumn {
  return field.startsWith('own:');
}

const OF_KIND: Readonly<Record<ArtefactKind, readonly BuiltInField[]>> = {
  requirement: ['state', 'module', 'risk', 'priority', 'type'],
  condition: ['state', 'addDepth', 'takeDepth'],
  case: ['state', 'module', 'owner', 'priority', 'addTag', 'takeTag', 'minutes', 'caseKind', 'execution', 'link', 'unlink', 'pin', 'follow', 'followAgreed'],
  question: ['owner'],
  shared: ['state', 'module', 'addTag', 'takeTag', 'pin', 'follow', 'followAgreed'],
  dataSet: ['state', 'module', 'addTag', 'takeTag'],
  feature: ['state', 'module', 'owner', 'addTag', 'takeTag', 'writtenFor', 'notWrittenFor'],
  suite: ['state', 'module', 'owner', 'addTag', 'takeTag'],
};

export function changedFieldsOf(kind: ArtefactKind, fields: readonly OwnField[]): readonly ChangedField[] {
  return [...OF_KIND[kind], ...ownFieldsOf(fields, kind).map((field) => ownColumn(field.id))];
}

/** What of a project's settings changes depend on. */
type ChangeRules = Pick<ListProject, 'fields' | 'priorities'>;

/** The values a field can be given, where they are a closed set. */
export function choicesOf(field: ChangedField, { fields, priorities }: ChangeRules): readonly { readonly value: string; readonly name: string }[] | null {
  const named = <T extends string>(values: readonly T[], words: Record<T, string>) => values.map((value) => ({ value, name: words[value] }));
  if (isOwnField(field)) return ownChoices(fieldOfColumn(field, fields));
  switch (field) {
    case 'state':
      return named(['draft', 'agreed', 'withdrawn'] as const, STATE_WORD);
    case 'priority':
      return priorities.map((value) => ({ value, name: priorityWord(value) }));
    case 'risk':
      return named(RISKS, RISK_WORD);
    case 'type':
      return named(REQUIREMENT_TYPES, REQUIREMENT_TYPE_WORD);
    case 'caseKind':
      return named(CASE_KINDS, CASE_KIND_WORD);
    case 'execution':
      return named(EXECUTIONS, EXECUTION_WORD);
    default:
      return null;
  }
}

const NOTHING = { value: 'nothing', name: 'Nothing' };

/** One of several can be taken away as well; several at once are written. */
function ownChoices(field: OwnField | undefined): ReturnType<typeof choicesOf> {
  if (field?.type === 'yesNo') return [{ value: 'yes', name: 'Yes' }, { value: 'no', name: 'No' }, NOTHING];
  return field?.type === 'choice' ? [...field.choices.map(({ id, name }) => ({ value: id, name })), NOTHING] : null;
}

/** What a person filled in. */
export interface Filled {
  readonly field: ChangedField;
  readonly value: string;
  /** The condition or requirement that is linked or unlinked, or what is used and is pinned or followed, as it is now. */
  readonly picked: { readonly id: ArtefactId; readonly version: number } | null;
  /** Without a value a field of the project’s own is emptied; else nothing has been said yet. */
  readonly empties?: boolean;
}

/** The command that does it to each, and in words what for; null: something is missing, or is no number of minutes. */
export function changeOf({ field, value, picked, empties = false }: Filled, { fields, priorities }: ChangeRules): { readonly done: ChangeMany['done']; readonly what: string } | null {
  const edit = (each: Extract<ChangeMany['done'], { kind: 'edit' }>['edit'], what: string) => ({ done: { kind: 'edit' as const, edit: each }, what });
  const text = value.trim();
  const member = <T extends string>(values: readonly T[]): T | undefined => values.find((v) => v === value);
  if (isOwnField(field)) return ownChange(fieldOfColumn(field, fields), value, empties);
  switch (field) {
    case 'state': {
      const state = member(['draft', 'agreed', 'withdrawn'] as const);
      return state === undefined ? null : { done: { kind: 'state', state }, what: `set to ${STATE_WORD[state].toLowerCase()}` };
    }
    case 'title':
      return text === '' ? null : edit({ kind: 'title', title: text }, `called ${text}`.slice(0, 200));
    case 'module':
      return edit({ kind: 'module', module: text }, `moved to ${text === '' ? 'no module' : text}`);
    case 'owner':
      return edit({ kind: 'owner', owner: text }, `given to ${text === '' ? 'nobody' : text}`);
    case 'priority':
      return inPriority(priorityNamed(text, priorities));
    case 'risk': {
      const risk = member(RISKS);
      return risk === undefined ? null : edit({ kind: 'risk', risk }, `set to ${RISK_WORD[risk].toLowerCase()}`);
    }
    case 'type': {
      const type = member(REQUIREMENT_TYPES);
      return type === undefined ? null : edit({ kind: 'type', type }, `set to ${REQUIREMENT_TYPE_WORD[type]}`);
    }
    case 'caseKind': {
      const caseKind = member(CASE_KINDS);
      return caseKind === undefined ? null : edit({ kind: 'caseKind', caseKind }, `set to ${CASE_KIND_WORD[caseKind].toLowerCase()}`);
    }
    case 'execution': {
      const execution = member(EXECUTIONS);
      return execution === undefined ? null : edit({ kind: 'execution', execution }, `set to ${EXECUTION_WORD[execution].toLowerCase()}`);
    }
    case 'minutes':
      return minutesOf(text);
    case 'addTag':
    case 'takeTag':
      return text === '' ? null : edit({ kind: 'tag', tag: text, belongs: field === 'addTag' }, field === 'addTag' ? `tagged ${text}` : `no longer tagged ${text}`);
    case 'addDepth':
    case 'takeDepth':
      return text === '' ? null : edit({ kind: 'depth', depth: text, belongs: field === 'addDepth' }, field === 'addDepth' ? `put in the depth ${text}` : `taken out of the depth ${text}`);
    case 'link':
    case 'unlink':
      return picked === null || !isOf('condition', picked.id) ? null : edit({ kind: 'covers', condition: picked.id, seenVersion: picked.version, belongs: field === 'link' }, `${field === 'link' ? 'linked to' : 'unlinked from'} ${picked.id}`);
    case 'writtenFor':
    case 'notWrittenFor':
      return picked === null || !isOf('requirement', picked.id) ? null : edit({ kind: 'writtenFor', requirement: picked.id, seenVersion: picked.version, belongs: field === 'writtenFor', tags: '' }, `${field === 'writtenFor' ? 'written for' : 'no longer written for'} ${picked.id}`);
    case 'pin':
      return picked === null || !isUsed(picked.id) ? null : edit({ kind: 'uses', of: picked.id, pinned: picked.version }, `pinned to v${picked.version} of ${picked.id}`);
    case 'follow':
      return picked === null || !isUsed(picked.id) ? null : edit({ kind: 'uses', of: picked.id, pinned: null }, `following the latest ${picked.id}`);
    case 'followAgreed':
      return picked === null || !isUsed(picked.id) ? null : edit({ kind: 'uses', of: picked.id, pinned: 'agreed' }, `following what is agreed of ${picked.id}`);
  }
}

function inPriority(priority: Priority | null): ReturnType<typeof changeOf> {
  return priority === null ? null : { done: { kind: 'edit', edit: { kind: 'priority', priority } }, what: `set to priority ${priority}` };
}

function isOf<K extends ArtefactKind>(kind: K, id: ArtefactId): id is IdOfKind[K] {
  return kindOfId(id) === kind;
}

/** Whether it is something that others use. */
function isUsed(id: ArtefactId): id is CaseId | SharedId | DataSetId {
  return isOf('shared', id) || isOf('case', id) || isOf('dataSet', id);
}

/** Where “nothing” is a text like any other. */
const HOLDS_ANY_WORD: ReadonlySet<OwnFieldType> = new Set<OwnFieldType>(['text', 'longText', 'person']);

/** Null: the field cannot hold what was written. */
function ownChange(field: OwnField | undefined, value: string, empties: boolean): ReturnType<typeof changeOf> {
  if (field === undefined || (value === '' && !empties)) return null;
  const written = writeOwn(field, value === NOTHING.value && !HOLDS_ANY_WORD.has(field.type) ? '' : value);
  if (written === null) return null;
  const isEmpty = written.length === 0;
  return { done: { kind: 'edit', edit: { kind: 'own', field: field.id, value: isEmpty ? null : written } }, what: isEmpty ? `left without ${field.name}` : `set to ${field.name}: ${ownText(field, written)}`.slice(0, 200) };
}

/** An empty field says that they are not estimated. */
function minutesOf(text: string): ReturnType<typeof changeOf> {
  if (text === '') return { done: { kind: 'edit', edit: { kind: 'minutes', minutes: null } }, what: 'left without minutes' };
  if (!/^\d{1,5}([.,]\d{1,2})?$/.test(text)) return null;
  const minutes = Number(text.replace(',', '.'));
  return { done: { kind: 'edit', edit: { kind: 'minutes', minutes } }, what: `set to ${minutes.toLocaleString(locale())} min` };
}
