import { FILES_COLUMN } from '../attachments/index.ts';
import { ownFieldOfColumn, ownFieldsOf, takenNames, type OwnField } from '../fields/index.ts';
import { LONG_TEXT, LOOKED_AT, areNumbered, areTitles, averageLength, isEachOther } from './columnContent.ts';
import { isCalledTitle, meantBy } from './columnWords.ts';
import { FIELDS, ownFieldName, type OwnFieldName } from './field.ts';
import { REQUIREMENT_COLUMN_WORDS } from './requirementColumnWords.ts';
import { REQIF_OBJECT_COLUMN, REQIF_TYPE_COLUMN } from './reqif.ts';
import type { SourceDocument } from './sourceDocument.ts';

/** What a column can be, besides a field of the project's own. `ownId` holds ids of this project, `id` those of the source; `facts` what a format needs to be written again. */
export const TARGETS = ['ownId', 'version', 'id', 'parent', 'level', 'title', 'text', 'type', 'module', 'risk', 'likelihood', 'impact', 'priority', 'source', 'link', 'attribute', 'facts', 'leave'] as const;
export type Target = (typeof TARGETS)[number] | OwnFieldName;

/** How the columns of a source are matched; remembered by the source's name. */
export interface Mapping {
  /** Name of the source within the project: requirements are found again by it and their id. */
  readonly source: string;
  readonly columns: Readonly<Record<string, Target>>;
  /** What rows with one text in them are; headings unless said. */
  readonly sections?: SectionRows | undefined;
}

/** Headings that the rows below stand under, the module of those rows, or rows like all others. */
export const SECTION_ROWS = ['heading', 'module', 'rows'] as const;
export type SectionRows = (typeof SECTION_ROWS)[number];

const GUESSES: readonly (readonly [RegExp, Target])[] = [
  [/^(?:req(?:uirement)?[ _.-]*)?(?:id|key|identifier|number|no\.?|nr\.?|#)$|^(?:reqif\.)?foreignid$|^[\w-]+ id$/i, 'id'],
  [/^(?:parent|below|belongs to|parent[ _-]?(?:id|key)|upper)$/i, 'parent'],
  [/^(?:level|depth|outline(?: ?(?:level|number))?|indent|section|hierarchy|wbs)$/i, 'level'],
  [/^(?:title|name|summary|heading|headline|short ?(?:text|name|description)|requirement|reqif\.name|reqif\.chaptername)$/i, 'title'],
  [/^(?:text|description|content|body|long ?(?:text|description)|statement|details|reqif\.text|reqif\.description)$/i, 'text'],
  [/^(?:kind|type|category|class|requirement ?type)$/i, 'type'],
  [/^(?:module|component|area|subsystem|package|domain|epic)$/i, 'module'],
  [/^(?:risk|risk ?(?:level|class)|criticality)$/i, 'risk'],
  [/^(?:likelihood|probability)$/i, 'likelihood'],
  [/^(?:impact|severity|damage)$/i, 'impact'],
  [/^(?:priority|prio|importance|moscow)$/i, 'priority'],
  [/^(?:source|origin|reference|document|chapter)$/i, 'source'],
  [/^(?:link|url|address|web ?link|href)$/i, 'link'],
];

const inOtherLanguages = meantBy<Target>(REQUIREMENT_COLUMN_WORDS);

/** Columns that say more than one thing may be: several titles are tried one after the other. */
const REPEATABLE: ReadonlySet<Target> = new Set<Target>(['title', 'attribute', 'leave']);

/** What columns our own exports add and imports leave alone. */
export const DERIVED_COLUMNS = ['imported as', 'state', 'conditions', 'coverage items', 'shown', 'linked', 'gap', 'waiting', 'suspect', 'left out', 'coverage %'] as const;

/** The columns of the basis in a file, besides those of the project's own fields. */
export const BASIS_COLUMNS = takenNames(['id', 'version', 'parent', 'kind', ...FIELDS, ...DERIVED_COLUMNS, FILES_COLUMN]);

export const ownIdColumn = (project: string): string => `${project} id`;
export const ownVersionColumn = (project: string): string => `${project} version`;

/** Whether the project itself wrote the document. */
export function isOwnDocument({ columns }: Pick<SourceDocument, 'columns'>, project: string): boolean {
  return columns.some((name) => name.toLowerCase() === ownIdColumn(project).toLowerCase());
}

/** The mapping a person would probably make; what was remembered of the source comes first. */
export function guessMapping(document: SourceDocument, project: string, source: string, fields: readonly OwnField[], remembered: Mapping | null): Mapping {
  const columns: Record<string, Target> = {};
  const taken = new Set<Target>();
  const isOwn = document.format === 'reqif' && isOwnDocument(document, project);
  for (const name of document.columns) {
    const target = isMarkOfAnother(name, document, project) ? 'leave' : (remembered?.columns[name] ?? guess(name, project, document.format, fields));
    // In a document of ours records of several kinds say the same thing in columns of their own.
    columns[name] = taken.has(target) && !REPEATABLE.has(target) && !isOwn ? 'attribute' : target;
    taken.add(columns[name]);
  }
  return { source: remembered?.source ?? source, columns: remembered === null ? byContent(columns, document) : columns, ...(remembered?.sections === undefined ? {} : { sections: remembered.sections }) };
}

/** What a column of requirements is by its name; undefined: nothing we know. */
export function meantColumn(name: string): Target | undefined {
  return GUESSES.find(([pattern]) => pattern.test(name.trim()))?.[1] ?? inOtherLanguages(name);
}

/** Whether a cell could be the name of a column, as far as we know such names. */
export function isColumnName(cell: string): boolean {
  return meantColumn(cell) !== undefined || DERIVED_COLUMNS.some((name) => name === cell.trim().toLowerCase());
}

/** The guess by names, looked at by what the columns hold: long texts are no titles, what is numbered is an id, and no guess leaves all texts out. */
function byContent(byName: Readonly<Record<string, Target>>, { columns, records, format }: SourceDocument): Record<string, Target> {
  const guessed = { ...byName };
  const looked = records.slice(0, LOOKED_AT);
  const cellsOf = (name: string): string[] => looked.map((r) => (r.cells[columns.indexOf(name)] ?? '').trim());
  const lengths = new Map(columns.map((name) => [name, averageLength(cellsOf(name))]));
  const longest = (names: readonly string[]): string | undefined => names.reduce<string | undefined>((best, name) => ((lengths.get(name) ?? 0) > (best === undefined ? 0 : (lengths.get(best) ?? 0)) ? name : best), undefined);
  const are = (target: Target): string[] => columns.filter((name) => guessed[name] === target);
  if (format !== 'reqif' && format !== 'reqifz' && are('id').length + are('ownId').length === 0) {
    const numbered = [...are('attribute'), ...(are('text').length > 0 ? are('title').filter((name) => !isCalledTitle(name)) : [])].find((name) => isEachOther(cellsOf(name)) && areNumbered(cellsOf(name)));
    if (numbered !== undefined) guessed[numbered] = 'id';
  }
  const hasText = are('text').some((name) => (lengths.get(name) ?? 0) > 0);
  const text = hasText ? undefined : longest([...are('title').filter((name) => !/^title$/i.test(name.trim())), ...are('attribute')].filter((name) => (lengths.get(name) ?? 0) > LONG_TEXT));
  if (text !== undefined) {
    for (const name of are('text')) guessed[name] = 'attribute';
    guessed[text] = 'text';
  }
  // Without a title or a text nothing would come in.
  if (are('title').length + are('text').length === 0) {
    const named = are('attribute').find((name) => areTitles(cellsOf(name))) ?? longest(are('attribute'));
    if (named !== undefined) guessed[named] = (lengths.get(named) ?? 0) > LONG_TEXT ? 'text' : 'title';
  }
  return guessed;
}

/** `billing id` beside `billing version`, as another project marks what it writes. */
function isMarkOfAnother(name: string, { columns }: SourceDocument, project: string): boolean {
  const [, other = ''] = /^(\S+) (?:id|version)$/.exec(name) ?? [];
  return other !== '' && other !== project && columns.includes(ownIdColumn(other)) && columns.includes(ownVersionColumn(other));
}

function guess(name: string, project: string, format: SourceDocument['format'], fields: readonly OwnField[]): Target {
  const lower = name.toLowerCase();
  if (lower === ownIdColumn(project).toLowerCase()) return 'ownId';
  if (name === REQIF_OBJECT_COLUMN) return 'facts';
  if (name === REQIF_TYPE_COLUMN || DERIVED_COLUMNS.some((c) => c === lower) || lower === FILES_COLUMN) return 'leave';
  if (lower === 'version' || lower === ownVersionColumn(project).toLowerCase()) return 'version';
  const own = ownFieldOfColumn(name, ownFieldsOf(fields, 'requirement'), BASIS_COLUMNS);
  if (own !== undefined) return ownFieldName(own.id);
  const target = meantColumn(name) ?? 'attribute';
  // ReqIF has ids and an outline of its own.
  return (format === 'reqif' || format === 'reqifz') && (target === 'id' || target === 'parent' || target === 'level') ? 'attribute' : target;
}

/** A name for a source that has none yet: the file's, without its ending. */
export function sourceNameOf(fileName: string): string {
  return fileName.replace(/^.*[/\\]/, '').replace(/\.[A-Za-z0-9]{1,8}$/, '').trim().slice(0, 100) || 'file';
}
