import { ownFieldOfColumn, ownFieldsOf, takenNames, type OwnField } from '../fields/index.ts';
import { FILES_COLUMN } from '../attachments/index.ts';
import { DERIVED_COLUMNS, FILE_LIMITS, LOOKED_AT, areNumbered, areTitles, isCalledTitle, meantBy, ownIdColumn, ownVersionColumn, type SourceDocument } from '../exchange/index.ts';
import { CASE_COLUMN_WORDS } from './caseColumnWords.ts';

/** What a column of a file with cases can be. `own:` and the id of a field of the project's own. */
export const CASE_TARGETS = ['ownId', 'version', 'id', 'title', 'objective', 'preconditions', 'module', 'priority', 'owner', 'tags', 'minutes', 'kind', 'execution', 'number', 'action', 'data', 'expected', 'requirements', 'conditions', 'leave'] as const;
export type CaseTarget = (typeof CASE_TARGETS)[number] | `own:${string}`;

/** How the rows of a table make cases: each a step of the case above it, or each a case with its steps in a cell. */
export const CASE_LAYOUTS = ['stepRows', 'caseRows'] as const;
export type CaseLayout = (typeof CASE_LAYOUTS)[number];

/** How the columns of a file with cases are matched; remembered by the source's name. */
export interface CaseMapping {
  readonly source: string;
  readonly columns: Readonly<Record<string, CaseTarget>>;
  readonly layout: CaseLayout;
  /** A row with one text, and no step before the next case, is the module of those below. */
  readonly headings: boolean;
  /** The module of cases that have none; empty: none. */
  readonly module: string;
}

const GUESSES: readonly (readonly [RegExp, CaseTarget])[] = [
  [/^(?:(?:test ?)?(?:case )?(?:id|key|identifier|no\.?|nr\.?|#))$|^tc[ _-]?(?:id|no\.?)$/i, 'id'],
  [/^(?:step|step ?(?:#|no\.?|nr\.?|number|id)|#|seq(?:uence)?)$/i, 'number'],
  [/^(?:(?:test ?)?(?:case )?(?:title|name|summary|heading)|test ?case|case|scenario|what)$/i, 'title'],
  [/^(?:objective|purpose|goal|aim|description|test ?(?:objective|description)|why)$/i, 'objective'],
  [/^(?:pre-?conditions?|set-?up|requires|given|before)$/i, 'preconditions'],
  [/^(?:(?:test ?)?steps?(?: ?(?:action|description|details))?|actions?|procedure|instructions?|when|do)$/i, 'action'],
  [/^(?:(?:test ?)?(?:data|inputs?|values?)|input data)$/i, 'data'],
  [/^(?:expected(?: ?(?:results?|outcome|behaviou?r))?|expectation|results?|outcome|then|should)$/i, 'expected'],
  [/^(?:module|component|area|feature|suite|folder|section|epic|group|package)$/i, 'module'],
  [/^(?:priority|prio|importance|severity)$/i, 'priority'],
  [/^(?:owner|author|tester|assigned(?: to)?|responsible|designer|created by)$/i, 'owner'],
  [/^(?:tags?|labels?|keywords?)$/i, 'tags'],
  [/^(?:minutes|min\.?|estimate(?:d time)?(?: ?\(min(?:utes)?\.?\))?|duration|time|effort)$/i, 'minutes'],
  [/^(?:kind|type|test ?type)$/i, 'kind'],
  [/^(?:execution|automation(?: ?status)?|automated|manual|run|method)$/i, 'execution'],
  [/^(?:(?:covers?|covered|linked?|related)? ?requirements?(?: ?(?:ids?|keys?))?|req(?:s|uirement)?\.?(?: ?ids?)?|stor(?:y|ies)|user ?stor(?:y|ies)|traces? to|links? to|verifies)$/i, 'requirements'],
  [/^(?:conditions?|covers|test ?conditions?)$/i, 'conditions'],
];

const inOtherLanguages = meantBy<CaseTarget>(CASE_COLUMN_WORDS);

function meant(name: string): CaseTarget | undefined {
  return GUESSES.find(([pattern]) => pattern.test(name.trim()))?.[1] ?? inOtherLanguages(name);
}

/** Whether a cell could be the name of a column of cases, as far as we know such names. */
export function isCaseColumnName(cell: string): boolean {
  return meant(cell) !== undefined;
}

/** How the rows of a table with cases are read: a row with one text may be a step. */
export const CASE_TABLE = { most: FILE_LIMITS.rows, isName: isCaseColumnName, hasSections: false } as const;

/** Columns that may stand several times: their texts come one after the other. */
const REPEATABLE: ReadonlySet<CaseTarget> = new Set<CaseTarget>(['tags', 'requirements', 'conditions', 'data', 'leave']);


/** What exports of ours add for reading only. */
const DERIVED = new Set<string>([...DERIVED_COLUMNS.filter((name) => name !== 'conditions'), 'requirements of the conditions', 'instances', FILES_COLUMN]);

/** The columns of cases in a file, besides those of the project's own fields. */
export const CASE_COLUMNS = takenNames(['id', 'version', 'title', 'module', 'priority', 'owner', 'kind', 'execution', 'minutes', 'tags', 'objective', 'preconditions', 'conditions', 'requirements', 'step', 'action', 'expected result', 'steps', 'expected results', ...DERIVED]);

/** The mapping a person would probably make; what was remembered of the source comes first. */
export function guessCaseMapping(document: SourceDocument, project: string, source: string, fields: readonly OwnField[], remembered: CaseMapping | null): CaseMapping {
  const columns: Record<string, CaseTarget> = {};
  const taken = new Set<CaseTarget>();
  for (const name of document.columns) {
    const target = remembered?.columns[name] ?? guess(name, project, fields);
    columns[name] = taken.has(target) && !REPEATABLE.has(target) ? 'leave' : target;
    taken.add(columns[name]);
  }
  if (remembered === null) mend(columns, document);
  const layout = remembered?.layout ?? guessLayout(document, columns);
  return { source: remembered?.source ?? source, columns, layout, headings: remembered?.headings ?? true, module: remembered?.module ?? '' };
}

function guess(name: string, project: string, fields: readonly OwnField[]): CaseTarget {
  const lower = name.trim().toLowerCase();
  if (lower === ownIdColumn(project).toLowerCase()) return 'ownId';
  if (lower === 'version' || lower === ownVersionColumn(project).toLowerCase()) return 'version';
  if (DERIVED.has(lower)) return 'leave';
  const own = ownFieldOfColumn(name, ownFieldsOf(fields, 'case'), CASE_COLUMNS);
  if (own !== undefined) return `own:${own.id}`;
  return meant(name) ?? 'leave';
}

/** Names that mean one thing in one table and another in the next, looked at by what stands beside them and below. */
function mend(columns: Record<string, CaseTarget>, document: SourceDocument): void {
  const named = (target: CaseTarget): string | undefined => Object.keys(columns).find((name) => columns[name] === target);
  const step = named('number');
  // “Step” above texts is what is done, not its number.
  if (step !== undefined && named('action') === undefined && !isNumbered(document, step)) columns[step] = 'action';
  // A description beside no steps is what is done.
  const objective = named('objective');
  if (named('action') === undefined && objective !== undefined && /description/i.test(objective) && named('expected') !== undefined) columns[objective] = 'action';
  // What is numbered by whoever wrote the file is an id, where something else is the title: it stands first, as nothing else that is numbered does.
  const [first, ...others] = document.columns;
  const title = others.find((name) => columns[name] === 'title' || (columns[name] === 'leave' && areTitles(filledCells(document, name))));
  const mayBeId = title !== undefined && first !== undefined && (columns[first] === 'leave' || (columns[first] === 'title' && !isCalledTitle(first)));
  if (named('id') === undefined && named('ownId') === undefined && mayBeId && areNumbered(filledCells(document, first))) columns[first] = 'id';
  // Without a title no case would come in.
  if (named('title') === undefined) {
    const left = document.columns.filter((name) => columns[name] === 'leave');
    const called = left.find((name) => areTitles(filledCells(document, name))) ?? left[0] ?? named('objective');
    if (called !== undefined) columns[called] = 'title';
  }
}

function filledCells({ columns, records }: SourceDocument, name: string): string[] {
  const index = columns.indexOf(name);
  return records.slice(0, LOOKED_AT).map((r) => (r.cells[index] ?? '').trim()).filter((cell) => cell !== '');
}

function isNumbered(document: SourceDocument, name: string): boolean {
  const cells = filledCells(document, name);
  return cells.length > 0 && cells.every((cell) => /^\(?\d{1,4}(?:\.\d{1,4})*[.):]?$/.test(cell));
}

/** Rows are steps where some go on with the case above them; else each is a case. */
export function guessLayout(document: SourceDocument, columns: CaseMapping['columns']): CaseLayout {
  const at = (target: CaseTarget): number[] => document.columns.flatMap((name, i) => (columns[name] === target ? [i] : []));
  const identity = [...at('ownId'), ...at('id'), ...at('title')];
  const steps = [...at('action'), ...at('expected')];
  const some = (cells: readonly (string | null)[], places: readonly number[]): string => places.map((i) => (cells[i] ?? '').trim()).join('\n').trim();
  let before = '';
  for (const { cells } of document.records) {
    const name = some(cells, identity);
    if (some(cells, steps) !== '' && (name === '' || name === before) && before !== '') return 'stepRows';
    if (name !== '') before = name;
  }
  return 'caseRows';
}

