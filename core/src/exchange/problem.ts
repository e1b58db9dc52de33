import { FILE_LIMITS } from './limits.ts';

/** Where in a file: line and column from 1; of a table the row and the name of the column. Null when it concerns the whole. */
export interface FilePlace {
  readonly line: number | null;
  readonly column: string | null;
}

/** `error`: the record, or the whole file, is not taken in. `warning`: it is, and this should be looked at. */
export type FileProblem = FilePlace & { readonly severity: 'error' | 'warning' } & FileFault;

export type FileFault =
  | { readonly code: 'file_empty' }
  | { readonly code: 'file_too_large'; readonly limit: number }
  | { readonly code: 'file_kind_unknown' }
  | { readonly code: 'encoding_guessed'; readonly encoding: string }
  | { readonly code: 'encoding_broken'; readonly encoding: string; readonly count: number }
  | { readonly code: 'quote_unclosed' }
  /** Quotation marks within cells that are not quoted as a whole: taken as letters. */
  | { readonly code: 'quotes_kept'; readonly count: number }
  | { readonly code: 'cell_count'; readonly expected: number; readonly got: number }
  | { readonly code: 'cell_too_long'; readonly limit: number; readonly got: number }
  | { readonly code: 'too_many_columns'; readonly limit: number; readonly got: number }
  | { readonly code: 'too_many_records'; readonly limit: number }
  | { readonly code: 'no_header' }
  /** Neither headings nor paragraphs with ids nor tables of requirements are in it. */
  | { readonly code: 'document_without_parts' }
  | { readonly code: 'document_broken'; readonly reason: string }
  /** What a text document holds that no text of ours can. */
  | { readonly code: 'document_left'; readonly pictures: number; readonly notes: number }
  | { readonly code: 'markdown_too_deep'; readonly limit: number }
  | { readonly code: 'sheet_too_tall'; readonly limit: number; readonly got: number }
  | { readonly code: 'column_doubled'; readonly name: string }
  | { readonly code: 'xml_broken'; readonly reason: string }
  | { readonly code: 'xml_doctype' }
  | { readonly code: 'xml_too_deep'; readonly limit: number }
  | { readonly code: 'not_reqif' }
  | { readonly code: 'reference_unknown'; readonly what: string; readonly id: string }
  | { readonly code: 'object_not_placed'; readonly id: string }
  | { readonly code: 'archive_broken' }
  | { readonly code: 'archive_path'; readonly path: string }
  | { readonly code: 'archive_bomb'; readonly limit: number }
  | { readonly code: 'archive_without'; readonly what: string }
  | { readonly code: 'attachment_left'; readonly path: string }
  | { readonly code: 'sheet_broken'; readonly reason: string }
  | { readonly code: 'formulas_taken_as_values'; readonly count: number }
  | { readonly code: 'cells_merged'; readonly count: number }
  | { readonly code: 'text_before_heading' }
  | { readonly code: 'heading_level_skipped'; readonly from: number; readonly to: number }
  | { readonly code: 'title_missing' }
  | { readonly code: 'title_from_text' }
  | { readonly code: 'field_too_long'; readonly field: string; readonly limit: number; readonly got: number }
  | { readonly code: 'control_characters'; readonly field: string }
  | { readonly code: 'value_unknown'; readonly field: string; readonly value: string }
  | { readonly code: 'content_refused'; readonly field: string; readonly reason: string }
  | { readonly code: 'relation_left_out'; readonly id: string; readonly why: RelationFault }
  /** Rows of one case say different things of it. */
  | { readonly code: 'case_cell_differs'; readonly value: string }
  | { readonly code: 'use_unknown'; readonly id: string }
  | { readonly code: 'too_many_steps'; readonly limit: number; readonly got: number }
  | { readonly code: 'id_missing' }
  | { readonly code: 'id_doubled'; readonly id: string; readonly first: number }
  | { readonly code: 'parent_unknown'; readonly parent: string }
  | { readonly code: 'parent_circle'; readonly ids: readonly string[] }
  | { readonly code: 'outline_too_deep'; readonly limit: number };

/** Why a relation of a record is not taken in. */
export type RelationFault = 'without_id' | 'id_doubled' | 'too_long' | 'too_many';

export const NOWHERE: FilePlace = { line: null, column: null };

export function error(fault: FileFault, place: FilePlace = NOWHERE): FileProblem {
  return { severity: 'error', ...place, ...fault };
}

export function warning(fault: FileFault, place: FilePlace = NOWHERE): FileProblem {
  return { severity: 'warning', ...place, ...fault };
}

export function at(line: number, column: string | null = null): FilePlace {
  return { line, column };
}

/** The first problems, errors before warnings; the rest are counted by whoever asks. */
export function mostTelling(problems: readonly FileProblem[]): FileProblem[] {
  return [...problems.filter((p) => p.severity === 'error'), ...problems.filter((p) => p.severity === 'warning')].slice(0, FILE_LIMITS.problems);
}
