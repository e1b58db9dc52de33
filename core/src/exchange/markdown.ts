import type { Heading } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { decodeText } from './decodeText.ts';
import { FILE_LIMITS } from './limits.ts';
import { isTooDeep } from './markdownNesting.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import { ownIdColumn, ownVersionColumn } from './mapping.ts';
import { idAndTitle, recordsOfSections, type Section } from './sections.ts';
import type { ReadingOptions, SourceDocument, SourceRecord } from './sourceDocument.ts';

export const MARKDOWN_COLUMNS = ['id', 'title', 'text'] as const;

/** What a section of ours says of itself, unseen where it is shown: the project, the requirement, its version, the one above where headings go no deeper, and whether the text stands as code. */
const MARK = /^<!-- caderno: (\S+) (R-\d+) v(\d+)(?: in (R-\d+))?( raw)? -->[ \t]*$/m;
/** Below the title of a document of ours, which is no requirement. */
const DOCUMENT_MARK = '<!-- caderno: document -->';
/** A line of a text that would read as a heading, or as the underline of one, or that was kept from it already. */
const LIKE_HEADING = /^( {0,3})(\\*)(#{1,6}(?:[ \t].*)?|=+[ \t]*|-+[ \t]*)$/;

/**
 * A Markdown document: each heading is a requirement, the text below it its text, deeper headings stand below it.
 * Without an id in the heading the path of titles is the id, so that the same file finds the same requirements again.
 */
export function readMarkdown(bytes: Uint8Array, options: ReadingOptions): SourceDocument {
  const { text, problems } = decodeText(bytes, options.encoding);
  const found: FileProblem[] = [...problems];
  if (isTooDeep(text)) return { format: 'markdown', columns: [...MARKDOWN_COLUMNS], records: [], sheets: [], problems: [...found, error({ code: 'markdown_too_deep', limit: FILE_LIMITS.markdownDepth })], types: null };
  const headings = fromMarkdown(text).children.filter((node): node is Heading => node.type === 'heading');
  const records = headings.length > FILE_LIMITS.records ? [] : recordsOf(text, headings, found);
  if (headings.length > FILE_LIMITS.records) found.push(error({ code: 'too_many_records', limit: FILE_LIMITS.records }));
  else if (headings.length === 0) found.push(error({ code: 'no_header' }));
  return { format: 'markdown', ...withMarks(records), sheets: [], problems: found, types: null };
}

/** Sections that we wrote: their own ids and versions as columns, their texts as they were. */
function withMarks(records: readonly SourceRecord[]): Pick<SourceDocument, 'columns' | 'records'> {
  const marks = records.map((r) => MARK.exec(r.cells[2] ?? ''));
  const project = marks.find((m) => m !== null)?.[1];
  if (project === undefined) return { columns: [...MARKDOWN_COLUMNS], records };
  const keyOf = new Map(records.flatMap((r, i) => (marks[i]?.[2] === undefined ? [] : [[marks[i][2], r.place?.id ?? ''] as const])));
  const title = records.find((r) => r.cells[2] === DOCUMENT_MARK)?.place?.id;
  const parentOf = (parent: string | null): string | null => (parent === title ? null : parent);
  const marked = records.flatMap((record, i): SourceRecord[] => {
    if (record.place?.id === title) return [];
    const mark = marks[i];
    const place = record.place === null ? null : { ...record.place, parent: parentOf(record.place.parent) };
    if (mark === null || mark === undefined || mark[1] !== project) return [{ ...record, place, cells: [...record.cells, '', ''] }];
    const [id = '', heading = '', body = ''] = record.cells;
    const kept = (body ?? '').slice(mark.index + mark[0].length).trim();
    const text = mark[5] === undefined ? keptFromHeadings(kept, -1) : kept.split('\n').slice(1, -1).join('\n');
    const above = keyOf.get(mark[4] ?? '');
    return [{ ...record, cells: [id, heading, text, mark[2] ?? '', mark[3] ?? ''], place: place === null || above === undefined ? place : { ...place, parent: above } }];
  });
  return { columns: [...MARKDOWN_COLUMNS, ownIdColumn(project), ownVersionColumn(project)], records: marked };
}

function recordsOf(text: string, headings: readonly Heading[], problems: FileProblem[]): SourceRecord[] {
  const first = headings[0]?.position?.start.offset ?? 0;
  if (text.slice(0, first).trim() !== '') problems.push(warning({ code: 'text_before_heading' }, at(1)));
  const sections = headings.map((heading, i): Section => {
    const [start, end] = [heading.position?.start.offset ?? 0, heading.position?.end.offset ?? 0];
    const body = text.slice(end, headings[i + 1]?.position?.start.offset ?? text.length).replaceAll('\r\n', '\n').trim();
    return { line: heading.position?.start.line ?? 1, depth: heading.depth, ...idAndTitle(headingText(text.slice(start, end))), more: [body] };
  });
  return recordsOfSections(sections, problems);
}

/** A heading's words without its signs, `# …` or an underline. */
function headingText(source: string): string {
  const [line = ''] = source.split(/\r\n|\n|\r/);
  return (/^\s{0,3}#/.test(line) ? line.replace(/^\s{0,3}#{1,6}[ \t]*/, '').replace(/[ \t]+#+[ \t]*$/, '') : source.replace(/[\r\n]+[=-]+\s*$/, '').replaceAll(/\s*[\r\n]+\s*/g, ' ')).trim();
}

/** A section of a Markdown export. */
export interface MarkdownSection {
  readonly depth: number;
  readonly id: string;
  /** By which the project finds it again. */
  readonly own: { readonly project: string; readonly id: string; readonly version: number; readonly parent: string | null };
  readonly title: string;
  /** One fact a line, above the text. */
  readonly facts: readonly string[];
  readonly text: string;
}

/** An outline as Markdown: headings with their ids, facts as a list, then the text. What would be a heading within a text is kept from it by a backslash. */
export function writeMarkdown(title: string, sections: readonly MarkdownSection[]): string {
  const parts = sections.map(({ depth, id, own, title: heading, facts, text }) => {
    const level = '#'.repeat(Math.min(6, depth + 2));
    const above = depth + 2 > 6 && own.parent !== null ? ` in ${own.parent}` : '';
    const kept = keptFromHeadings(text.trim(), 1);
    const isRaw = !staysItsOwn(kept);
    const mark = `<!-- caderno: ${own.project} ${own.id} v${own.version}${above}${isRaw ? ' raw' : ''} -->`;
    const lines = facts.map((fact) => `- ${fact.replaceAll(/\s+/g, ' ')}`).join('\n');
    return [`${level} ${heading.replaceAll(/\s+/g, ' ').trim()} {#${id}}`, lines, mark, isRaw ? asCode(text.trim()) : kept].filter((part) => part !== '').join('\n\n');
  });
  return `${[`# ${title}`, DOCUMENT_MARK, ...parts].join('\n\n')}\n`;
}

/** Whether a text holds no heading and ends by itself: an open fence or comment would take in what follows. */
function staysItsOwn(text: string): boolean {
  if (isTooDeep(text)) return false;
  const headings = fromMarkdown(`${text}\n\n# end`).children.filter((node) => node.type === 'heading');
  return headings.length === 1 && headings[0]?.position?.start.offset === text.length + 2;
}

function asCode(text: string): string {
  const longest = Math.max(2, ...[...text.matchAll(/~+/g)].map(([run]) => run.length));
  const fence = '~'.repeat(longest + 1);
  return `${fence}\n${text}\n${fence}`;
}

/** A text with a backslash more (1) or less (−1) before what looks like a heading; code between fences stays as it is. */
function keptFromHeadings(text: string, by: 1 | -1): string {
  let fence: string | null = null;
  let before = '';
  return text
    .split('\n')
    .map((line) => {
      const [, signs = ''] = /^ {0,3}(`{3,}|~{3,})/.exec(line) ?? [];
      if (signs !== '' && (fence === null || signs.startsWith(fence))) fence = fence === null ? signs : null;
      const like = fence === null ? LIKE_HEADING.exec(line) : null;
      const [, indent = '', slashes = '', rest = ''] = like ?? [];
      // A line of hyphens is an underline only below a text.
      const counts = like !== null && (rest.startsWith('#') || before.trim() !== '') && (by === 1 || slashes !== '');
      before = line;
      return counts ? `${indent}${by === 1 ? '\\' : ''}${by === 1 ? slashes : slashes.slice(1)}${rest}` : line;
    })
    .join('\n');
}
