import type { Heading } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { decodeText } from './decodeText.ts';
import { FILE_LIMITS } from './limits.ts';
import { isTooDeep } from './markdownNesting.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import type { ReadingOptions, SourceDocument, SourceRecord } from './sourceDocument.ts';

export const MARKDOWN_COLUMNS = ['id', 'title', 'text'] as const;

/** An id written into a heading: `## REQ-12 Title`, `## REQ-12: Title`, `## Title {#REQ-12}`. */
const LEADING_ID = /^\[?([A-Za-z][A-Za-z0-9]*(?:[-_.][A-Za-z0-9]+)*[-_.]\d+(?:\.\d+)*)\]?(?:\s*[:–—-]\s+|\s+)(?=\S)/;
const TRAILING_ID = /\s*\{#([^\s{}]{1,200})\}\s*$/;

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
  return { format: 'markdown', columns: [...MARKDOWN_COLUMNS], records, sheets: [], problems: found, types: null };
}

interface Open {
  readonly depth: number;
  readonly id: string;
  readonly path: string;
}

function recordsOf(text: string, headings: readonly Heading[], problems: FileProblem[]): SourceRecord[] {
  const first = headings[0]?.position?.start.offset ?? 0;
  if (text.slice(0, first).trim() !== '') problems.push(warning({ code: 'text_before_heading' }, at(1)));
  const open: Open[] = [];
  const used = new Map<string, number>();
  return headings.map((heading, i) => {
    const start = heading.position?.start.offset ?? 0;
    const end = heading.position?.end.offset ?? 0;
    const line = heading.position?.start.line ?? 1;
    while (open.length > 0 && (open.at(-1)?.depth ?? 0) >= heading.depth) open.pop();
    const above = open.at(-1);
    if (above !== undefined && heading.depth > above.depth + 1) problems.push(warning({ code: 'heading_level_skipped', from: above.depth, to: heading.depth }, at(line)));
    const { id, title } = idAndTitle(headingText(text.slice(start, end)));
    const path = `${above?.path ?? ''}/${title}`;
    // The same title twice in one place is told apart by its turn.
    const turn = (used.get(path) ?? 0) + 1;
    used.set(path, turn);
    const own = id ?? (turn === 1 ? path : `${path} (${turn})`);
    open.push({ depth: heading.depth, id: own, path });
    const body = text.slice(end, headings[i + 1]?.position?.start.offset ?? text.length).replaceAll('\r\n', '\n').trim();
    return { line, cells: [own, title, body], place: { id: own, parent: above?.id ?? null }, relations: [] };
  });
}

/** A heading's words without its signs, `# …` or an underline. */
function headingText(source: string): string {
  const [line = ''] = source.split(/\r\n|\n|\r/);
  return (/^\s{0,3}#/.test(line) ? line.replace(/^\s{0,3}#{1,6}[ \t]*/, '').replace(/[ \t]+#+[ \t]*$/, '') : source.replace(/[\r\n]+[=-]+\s*$/, '').replaceAll(/\s*[\r\n]+\s*/g, ' ')).trim();
}

function idAndTitle(heading: string): { readonly id: string | null; readonly title: string } {
  const trailing = TRAILING_ID.exec(heading);
  if (trailing !== null) return { id: trailing[1] ?? null, title: heading.slice(0, trailing.index) };
  const leading = LEADING_ID.exec(heading);
  return leading === null ? { id: null, title: heading } : { id: leading[1] ?? null, title: heading.slice(leading[0].length) };
}

/** A section of a Markdown export. */
export interface MarkdownSection {
  readonly depth: number;
  readonly id: string;
  readonly title: string;
  /** One fact a line, above the text. */
  readonly facts: readonly string[];
  readonly text: string;
}

/** An outline as Markdown: headings with their ids, facts as a list, then the text. Headings within a text are set below its own. */
export function writeMarkdown(title: string, sections: readonly MarkdownSection[]): string {
  const parts = sections.map(({ depth, id, title: heading, facts, text }) => {
    const level = '#'.repeat(Math.min(6, depth + 2));
    const lines = facts.map((fact) => `- ${fact.replaceAll(/\s+/g, ' ')}`).join('\n');
    return [`${level} ${heading.replaceAll(/\s+/g, ' ').trim()} {#${id}}`, lines, withoutHeadings(text.trim())].filter((part) => part !== '').join('\n\n');
  });
  return `${[`# ${title}`, ...parts].join('\n\n')}\n`;
}

/** A heading in a text would read as a requirement of its own: it becomes a bold line. */
function withoutHeadings(text: string): string {
  return text.replaceAll(/^ {0,3}#{1,6}[ \t]+(.+?)(?:[ \t]+#+)?[ \t]*$/gm, '**$1**');
}
