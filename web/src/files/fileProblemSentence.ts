import type { FileProblem, RelationFault } from '@caderno/core/exchange';
import { countOf, locale } from '../look/index.ts';

const RELATION_FAULT: Record<RelationFault, string> = {
  without_id: 'has no identifier',
  id_doubled: 'has the identifier of another one',
  too_long: 'has a name or an identifier that is too long',
  too_many: 'is one too many for a requirement',
};

/** Fields that hold several, when one of them is spoken of. */
const ONE_OF: Readonly<Record<string, string>> = { conditions: 'condition', requirements: 'requirement' };

/** What is wrong in a file and what to do, in words. */
export function fileProblemSentence(problem: FileProblem): string {
  switch (problem.code) {
    case 'content_refused':
      return `It would leave a requirement that cannot be read: ${problem.field} ${problem.reason}. It is not taken in.`;
    case 'relation_left_out':
      return `The relation “${problem.id}” ${RELATION_FAULT[problem.why]}. It is left out; the requirement is taken in.`;
    case 'document_without_parts':
      return 'It has no headings, no table of requirements, and no paragraphs that begin with ids such as REQ-1. Give its chapters heading styles where it was written, and save it again.';
    case 'document_broken':
      return `The document cannot be read: ${problem.reason}. Save it again where it was written, as DOCX.`;
    case 'document_left':
      return `Left out: ${[problem.pictures > 0 ? countOf(problem.pictures, 'picture') : '', problem.notes > 0 ? countOf(problem.notes, 'footnote') : ''].filter(Boolean).join(' and ')}. Attach pictures to the requirements by hand where they matter.`;
    case 'markdown_too_deep':
      return `Lists or quotations are nested deeper than ${problem.limit}. Make them flatter.`;
    case 'sheet_too_tall':
      return `A cell stands in row ${problem.got.toLocaleString(locale())}; at most ${problem.limit.toLocaleString(locale())} rows are taken in. Delete what is below the table.`;
    case 'file_empty':
      return 'There is nothing in it to import.';
    case 'file_too_large':
      return `The file is larger than ${Math.floor(problem.limit / 1024 / 1024)} MB. Split it.`;
    case 'file_kind_unknown':
      return 'This kind of file is not read here. Save it as CSV, XLSX or Markdown.';
    case 'encoding_guessed':
      return `Read as ${problem.encoding}. If letters look wrong, choose another encoding.`;
    case 'encoding_broken':
      return `${problem.count} characters cannot be read as ${problem.encoding}. Choose another encoding, or save the file as UTF-8.`;
    case 'quote_unclosed':
      return 'A quotation mark is opened and never closed. Close it in the file.';
    case 'quotes_kept':
      return `Quotation marks stand within ${problem.count === 1 ? 'a cell here' : `${countOf(problem.count, 'cell')}, for the first time here`}. They are taken as they are written.`;
    case 'cell_count':
      return `${problem.got} cells, where the header has ${problem.expected}. What is beyond is not taken in.`;
    case 'cell_too_long':
      return `A cell is longer than ${problem.limit.toLocaleString(locale())} characters; perhaps a quotation mark is never closed.`;
    case 'too_many_columns':
      return `${problem.got.toLocaleString(locale())} columns; at most ${problem.limit} are taken in. Take out those that are not needed.`;
    case 'too_many_records':
      return `More than ${problem.limit.toLocaleString(locale())} rows. Split the file.`;
    case 'no_header':
      return 'No heading is in it. Every requirement begins with a heading: # Title.';
    case 'column_doubled':
      return `Two columns are called “${problem.name}”. The second is given a number.`;
    case 'xml_broken':
      return `The XML is broken: ${problem.reason}. Save the file again from where it comes.`;
    case 'xml_doctype':
      return 'The XML has a document type, which is refused: it could pull in other files. Take the <!DOCTYPE …> out.';
    case 'xml_too_deep':
      return `Elements are nested deeper than ${problem.limit}.`;
    case 'not_reqif':
      return 'This is XML, and not ReqIF: it has no REQ-IF-CONTENT.';
    case 'reference_unknown':
      return `It refers to ${problem.what} “${problem.id}”, which is not in the file. The reference is left out.`;
    case 'object_not_placed':
      return `“${problem.id}” stands in no specification. It is put at the top of the outline.`;
    case 'archive_broken':
      return 'The archive cannot be unpacked. Perhaps it was cut off; get it again.';
    case 'archive_path':
      return `The archive has a path that leads outside: ${problem.path}. It is refused as a whole.`;
    case 'archive_bomb':
      return 'Unpacked, the archive is far larger than a file of requirements. It is refused as a whole.';
    case 'archive_without':
      return `The archive holds no ${problem.what}.`;
    case 'attachment_left':
      return `${problem.path} lies beside the requirements and is not taken in.`;
    case 'sheet_broken':
      return `The workbook cannot be read (${problem.reason}). Save it again as XLSX.`;
    case 'formulas_taken_as_values':
      return `${problem.count} cells are formulas. The values they last had are taken in.`;
    case 'cells_merged':
      return `${problem.count} groups of cells are merged. The text stands in the first cell of each; the others are empty.`;
    case 'text_before_heading':
      return 'The text before the first heading belongs to no requirement and is not taken in.';
    case 'heading_level_skipped':
      return `The heading goes from level ${problem.from} to ${problem.to}. It is put right below.`;
    case 'title_missing':
      return 'No title and no text. Give it a title, or match another column.';
    case 'title_from_text':
      return 'No title; the first words of its text stand in.';
    case 'field_too_long':
      return `${fieldWords(problem.field)} has ${problem.got.toLocaleString(locale())} characters; at most ${problem.limit.toLocaleString(locale())} are kept. Shorten it.`;
    case 'control_characters':
      return `${fieldWords(problem.field)} holds characters that are no text. Take them out.`;
    case 'value_unknown':
      return `“${problem.value}” is no ${ONE_OF[problem.field] ?? problem.field} known here; it is not taken over.${problem.field === 'priority' ? ' Priorities are named in the settings.' : ''}`;
    case 'case_cell_differs':
      return `“${problem.value}” is another than in the first row of this case. The first row counts.`;
    case 'use_unknown':
      return `There is no ${problem.id} here. It comes in as a step that says so.`;
    case 'too_many_steps':
      return `It has ${problem.got.toLocaleString(locale())} steps, and a case may have ${problem.limit.toLocaleString(locale())}. It is not taken in.`;
    case 'id_missing':
      return problem.line === null ? 'No column is the id. Titles stand in: whatever gets a new title comes in as new.' : 'It has no id. Give it one, or match another column.';
    case 'id_doubled':
      return `The id “${problem.id}” stands in line ${problem.first} already. The second is not taken in.`;
    case 'parent_unknown':
      return `It stands below “${problem.parent}”, which is not in the file. It is put at the top.`;
    case 'parent_circle':
      return `They stand below each other in a circle: ${problem.ids.join(' → ')}. None of them is taken in.`;
    case 'outline_too_deep':
      return `It stands deeper than ${problem.limit} levels. Move it up.`;
  }
}

function fieldWords(field: string): string {
  const name = field.replace(/^attribute:/, '');
  return name.charAt(0).toUpperCase() + name.slice(1);
}
