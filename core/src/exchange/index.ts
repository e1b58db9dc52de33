export { FILE_LIMITS } from './limits.ts';
export { at, error, mostTelling, warning, type FileFault, type FilePlace, type FileProblem, type RelationFault } from './problem.ts';
export { ENCODINGS, type Encoding } from './decodeText.ts';
export { SEPARATORS, csvPieces, writeCsv } from './csv.ts';
export { LONGEST_XLSX_CELL, workbookOf, writeSheets, writeXlsx, type SheetRows } from './xlsx.ts';
export { writeMarkdown } from './markdown.ts';
export { DATATYPE_KINDS, SPEC_TYPE_KINDS, type ReqifObject, type ReqifTypes } from './reqifTypes.ts';
export { FILE_FORMATS, GUESS_ALL, type FileFormat, type ReadingOptions, type SourceDocument, type SourceRecord } from './sourceDocument.ts';
export { readFile } from './readFile.ts';
export { isZip, openArchive, type Archive, type ArchiveLimits } from './archive.ts';
export { broughtBackBy } from './broughtBack.ts';
export { DERIVED_COLUMNS, SECTION_ROWS, TARGETS, guessMapping, isOwnDocument, ownIdColumn, ownVersionColumn, sourceNameOf, type Mapping, type SectionRows, type Target } from './mapping.ts';
export { FIELDS, attributeName, fieldNames, fieldText, ownFieldName, ownFieldNamed, type FieldName, type FieldValues, type OwnFieldName } from './field.ts';
export { inModulesAsSpelled } from './moduleSpelling.ts';
export { entriesOf, type Entries, type Entry, type FieldLimits } from './entries.ts';
export {
  addedContent,
  baseOf,
  changedContent,
  conflictKey,
  openConflicts,
  planImport,
  type ConflictChoice,
  type ExistingRequirement,
  type FieldChange,
  type FieldConflict,
  type ImportBase,
  type ImportPlan,
  type PlannedChange,
} from './importPlan.ts';
export { exportSections, exportTable, type ExportedRequirement } from './basisExport.ts';
export { writeReqif, type ReqifExport, type ReqifSource } from './reqifWrite.ts';
export { ROW_IMPORTS, guessRowColumns, planRows, rowsJson, rowsTable, type RowColumn, type RowImport, type RowProblem, type RowsPlan } from './dataRows.ts';
export { LOOKED_AT, areNumbered, areTitles } from './columnContent.ts';
export { isCalledTitle, meantBy } from './columnWords.ts';
export { readTable } from './readTable.ts';
export { AS_WRITTEN, guessParameterType, guessValueReading, understoodCell, type ValueReading } from './rowValues.ts';
export type { TableReading } from './table.ts';
export { guessTermColumns, planTerms, readTerms, type TermColumns, type TermsPlan } from './tableOfTerms.ts';
export { readPriority } from './vocabulary.ts';
