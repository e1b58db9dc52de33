import type { ArtefactKind } from '@caderno/core/artefacts';
import type { QuestionStatus } from '@caderno/core/basis';
import { percentDown } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import { fieldOfColumn, isOwnColumn, type Age, type BuiltInColumn, type ListColumn, type ListValue } from '@caderno/core/listing';
import { CASE_KIND_WORD, EXECUTION_WORD, KIND_NAME, MODEL_WORD, REQUIREMENT_TYPE_WORD, RISK_WORD, STANDING_WORD, STATE_WORD, ago, numberFormat, priorityWord } from '../look/index.ts';

const COLUMN_WORD: Record<BuiltInColumn, string> = {
  id: 'Id', title: 'Title', state: 'State', module: 'Module', requirement: 'Requirement', type: 'Kind', technique: 'Technique', risk: 'Risk', priority: 'Priority', owner: 'Owner', status: 'Status', coverage: 'Coverage', standing: 'Worst item',
  caseKind: 'Kind', execution: 'Execution', folder: 'Folder', scenarios: 'Scenarios', problems: 'Problems', steps: 'Steps', rows: 'Rows', instances: 'Instances', minutes: 'Minutes', covers: 'Covers', heldUp: 'Held up', tags: 'Tags', depths: 'Depths', version: 'Version', updated: 'Saved', author: 'Saved by',
};

/** What a column is headed by: a field of the project's own by its name. */
export function columnWord(column: ListColumn, fields: readonly OwnField[]): string {
  return isOwnColumn(column) ? (fieldOfColumn(column, fields)?.name ?? 'A field that is gone') : COLUMN_WORD[column];
}

const STATUS_WORD: Record<QuestionStatus, string> = { open: 'Open', answered: 'Answered', withdrawn: 'Withdrawn' };
const AGE_WORD: Record<Age, string> = { today: 'Less than a day ago', week: 'Less than a week ago', month: 'Less than a month ago', earlier: 'Earlier' };

/** Words for the members of closed sets. */
const WORDS: Readonly<Partial<Record<BuiltInColumn, Readonly<Record<string, string>>>>> = {
  state: STATE_WORD, risk: RISK_WORD, type: REQUIREMENT_TYPE_WORD, technique: MODEL_WORD, caseKind: CASE_KIND_WORD, execution: EXECUTION_WORD, standing: STANDING_WORD, status: STATUS_WORD,
};

/** What a group is headed by. */
export function groupName(column: ListColumn, value: string | null, titleOf: (id: string) => string | undefined, fields: readonly OwnField[]): string {
  if (isOwnColumn(column)) return value === null ? `No ${columnWord(column, fields)}` : ownWord(column, value, fields);
  if (value === null) return `No ${COLUMN_WORD[column].toLowerCase()}`;
  if (column === 'updated') return (AGE_WORD as Readonly<Record<string, string>>)[value] ?? value;
  if (column === 'requirement') return `${value} ${titleOf(value) ?? ''}`.trim();
  if (column === 'priority') return priorityWord(value);
  const word = WORDS[column]?.[value];
  return word === undefined ? value : capital(word);
}

/** What stands in a cell. */
export function cellText(column: ListColumn, value: ListValue, fields: readonly OwnField[]): string {
  if (value === null) return '';
  if (typeof value === 'number') return numberFormat().format(value);
  if (typeof value === 'string') return isOwnColumn(column) ? ownWord(column, value, fields) : column === 'updated' ? ago(value) : column === 'priority' ? priorityWord(value) : (WORDS[column]?.[value] ?? value);
  if ('part' in value) return value.of === 0 ? '' : `${percentDown(value)} %`;
  return value.join(', ');
}

function ownWord(column: ListColumn, value: string, fields: readonly OwnField[]): string {
  return fieldOfColumn(column, fields)?.type === 'yesNo' ? capital(value) : value;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What stands where there is nothing to list; null while that is not known, and where there is something. */
export function emptyWords(kind: ArtefactKind, { list, view: { query } }: { readonly list: readonly unknown[] | undefined; readonly view: { readonly query: string } }): string | null {
  if (list === undefined || list.length > 0) return null;
  return query === '' ? `No ${KIND_NAME[kind][0]} yet.` : `No ${KIND_NAME[kind][0]} matches the query.`;
}
