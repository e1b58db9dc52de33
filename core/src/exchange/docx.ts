import { strFromU8 } from 'fflate';
import { openArchive } from './archive.ts';
import { LONG_TEXT } from './columnContent.ts';
import { firstWords } from './entries.ts';
import { FILE_LIMITS } from './limits.ts';
import { isColumnName, meantColumn } from './mapping.ts';
import { at, error, warning, type FileProblem } from './problem.ts';
import { idAndTitle, recordsOfSections, type Section } from './sections.ts';
import type { SourceDocument } from './sourceDocument.ts';
import { markdownOfXhtml } from './xhtml.ts';
import { readXml, type XmlElement } from './xmlTree.ts';

/** By which a zip is known to be a text document (ISO/IEC 29500, WordprocessingML). */
export const DOCUMENT_XML = 'word/document.xml';

/** The words of a text document as HTML that is XML as well, `img` where a picture stands; a library that reads files does it, so it is given from outside. */
export type HtmlOf = (bytes: Uint8Array) => Promise<string>;

const COLUMNS = ['id', 'title', 'text', 'type'] as const;

/** Fewer names than this in the first row of a table, and it is part of a text. */
const LEAST_NAMES = 2;
/** Fewer paragraphs than this with ids of one kind, and they only happen to begin so. */
const LEAST_NUMBERED = 2;

/**
 * A document of a word processor: its headings are the outline, as in Markdown. Below them a paragraph that begins with
 * an id (`REQ-12 …`) is a requirement, where several do, and so is each row of a table whose first row has names that
 * columns of requirements have. Everything else is the text of what it stands below. Pictures and notes are left, and told.
 */
export async function readDocx(bytes: Uint8Array, htmlOf: HtmlOf): Promise<SourceDocument> {
  const archive = await openArchive(bytes, (path) => path.endsWith('.xml'));
  if (archive.kind === 'refused') return refused(archive.problem);
  if ([...archive.files.values()].some((file) => strFromU8(file.subarray(0, 2_000)).includes('<!DOCTYPE'))) return refused(error({ code: 'xml_doctype' }));
  if ((archive.files.get(DOCUMENT_XML)?.length ?? 0) > FILE_LIMITS.documentXml) return refused(error({ code: 'file_too_large', limit: FILE_LIMITS.documentXml }));
  const html = await readHtml(bytes, htmlOf);
  if (typeof html !== 'string') return refused(html);
  const read = readXml(`<div>${html}</div>`);
  return read.kind === 'refused' ? refused(read.problem) : documentOf(read.root);
}

function refused(problem: FileProblem): SourceDocument {
  return { format: 'docx', columns: [], records: [], sheets: [], problems: [problem], types: null };
}

async function readHtml(bytes: Uint8Array, htmlOf: HtmlOf): Promise<string | FileProblem> {
  try {
    return await htmlOf(bytes);
  } catch (cause) {
    // Libraries throw plain errors on whatever they cannot read in a hostile document.
    return error({ code: 'document_broken', reason: cause instanceof Error ? cause.message.slice(0, 200) : 'unreadable' });
  }
}

/** A part while what belongs to it is being gathered. */
interface Part {
  readonly line: number;
  readonly depth: number;
  readonly id: string | null;
  readonly title: string;
  readonly blocks: XmlElement[];
  /** Whether it began as a heading of the document. */
  readonly isHeading: boolean;
  /** Whether it is a row of a table. */
  readonly isRow: boolean;
  /** What stands in the other columns of its table. */
  readonly cells: ReadonlyMap<string, string>;
}

function documentOf(root: XmlElement): SourceDocument {
  const problems: FileProblem[] = [];
  const all = elementsOf(root);
  const notes = all.filter(areNotes).flatMap((list) => list.children);
  const blocks = all.filter((block) => !areNotes(block) && !isContents(block)).flatMap(itemsWithIds);
  const parts = partsOf(blocks, numberedKinds(blocks), problems);
  const pictures = all.reduce((sum, block) => sum + within(block, 'img').length, 0);
  if (pictures + notes.length > 0) problems.push(warning({ code: 'document_left', pictures, notes: notes.length }));
  if (parts.length === 0) problems.push(error({ code: 'document_without_parts' }));
  if (parts.length > FILE_LIMITS.records) return refused(error({ code: 'too_many_records', limit: FILE_LIMITS.records }));
  const more = [...new Set(parts.flatMap((part) => [...part.cells.keys()]))];
  if (COLUMNS.length + more.length > FILE_LIMITS.columns) return refused(error({ code: 'too_many_columns', limit: FILE_LIMITS.columns, got: COLUMNS.length + more.length }));
  const sections = parts.map((part, i): Section => ({ ...part, more: [...textOf(part, parts[i + 1]), ...more.map((name) => part.cells.get(name) ?? '')] }));
  return { format: 'docx', columns: [...COLUMNS, ...more], records: recordsOfSections(sections, problems), sheets: [], problems, types: null };
}

/** Its text, and that it is a heading where it has none and others stand below it. */
function textOf(part: Part, next: Part | undefined): [string, string] {
  const text = markdownOfXhtml({ name: 'div', attributes: {}, children: part.blocks.map((block) => withHeads(withoutPictures(block))), line: part.line });
  return [text, part.isHeading && text === '' && next !== undefined && next.depth > part.depth ? 'heading' : ''];
}

function partsOf(blocks: readonly XmlElement[], kinds: ReadonlySet<string>, problems: FileProblem[]): Part[] {
  const parts: Part[] = [];
  let heading = 0;
  const add = (part: Pick<Part, 'line' | 'id' | 'title'> & Partial<Part>): void => void parts.push({ depth: heading + 1, blocks: [], isHeading: false, isRow: false, cells: new Map(), ...part });
  blocks.forEach((block, i) => {
    const line = i + 1;
    const depth = depthOf(block);
    const rows = rowsOf(block);
    const holder = holderOf(parts);
    const { id, title } = idAndTitle(plainText(block));
    if (depth !== null) {
      heading = depth;
      if (plainText(block) !== '') add({ line, depth, id, title, isHeading: true });
    } else if (rows !== null) rows.forEach((row) => add({ line, isRow: true, ...row }));
    else if (block.name === 'p' && id !== null && kinds.has(kindOf(id))) add({ line, id, title: title.length > LONG_TEXT ? firstWords(title) : title, blocks: title.length > LONG_TEXT ? [{ ...block, children: [title] }] : [] });
    else if (holder !== undefined) holder.blocks.push(block);
    else if (plainText(block) !== '' && !problems.some((p) => p.code === 'text_before_heading')) problems.push(warning({ code: 'text_before_heading' }, at(line)));
  });
  return parts;
}

/** What a text belongs to: to what stands before it; below a table of requirements, to the chapter of the table. */
function holderOf(parts: readonly Part[]): Part | undefined {
  const last = parts.at(-1);
  return last?.isRow === true ? (parts.findLast((part) => part.isHeading) ?? last) : last;
}

function depthOf({ name }: XmlElement): number | null {
  const [, depth] = /^h([1-6])$/.exec(name) ?? [];
  return depth === undefined ? null : Number(depth);
}

/** The requirements of a table; null: it is none of them. */
function rowsOf(block: XmlElement): Pick<Part, 'id' | 'title' | 'blocks' | 'cells'>[] | null {
  if (block.name !== 'table') return null;
  const [head = [], ...rows] = within(block, 'tr').map(elementsOf);
  const names = head.map(plainText);
  const [id = -1, title = -1, text = -1] = (['id', 'title', 'text'] as const).map((target) => names.findIndex((name) => meantColumn(name) === target));
  if (names.filter(isColumnName).length < LEAST_NAMES || (title === -1 && text === -1)) return null;
  const others = names.flatMap((name, i) => (name === '' || i === id || i === title || i === text ? [] : [{ i, name: COLUMNS.some((column) => column === name.toLowerCase()) ? `${name} (2)` : name }]));
  return rows.flatMap((cells) => {
    const textAt = (i: number): string => (cells[i] === undefined ? '' : plainText(cells[i]));
    const own = textAt(title);
    // Sentences are a text, whatever their column is called.
    const body = text === -1 && own.length > LONG_TEXT ? cells[title] : cells[text];
    const named = body !== undefined && (own === '' || body === cells[title]) ? firstWords(plainText(body)) : own;
    return named === '' ? [] : [{ id: textAt(id) || null, title: named, blocks: body === undefined ? [] : [{ ...body, name: 'div' }], cells: new Map(others.map(({ i, name }) => [name, textAt(i)])) }];
  });
}

/** A list whose every point begins with an id is as many paragraphs. */
function itemsWithIds(block: XmlElement): XmlElement[] {
  if (block.name !== 'ul' && block.name !== 'ol') return [block];
  const items = elementsOf(block);
  return items.every((item) => idAndTitle(plainText(item)).id !== null) ? items.map((item) => ({ ...item, name: 'p' })) : [block];
}

/** What ids of several paragraphs begin with. */
function numberedKinds(blocks: readonly XmlElement[]): ReadonlySet<string> {
  const ids = new Set(blocks.flatMap((block) => (block.name === 'p' ? (idAndTitle(plainText(block)).id ?? []) : [])));
  const counts = new Map<string, number>();
  for (const id of ids) counts.set(kindOf(id), (counts.get(kindOf(id)) ?? 0) + 1);
  return new Set([...counts].filter(([, n]) => n >= LEAST_NUMBERED).map(([kind]) => kind));
}

const kindOf = (id: string): string => id.replace(/[\d.]+$/, '');

/** The table of contents: links to places of the document and nothing else. */
function isContents(block: XmlElement): boolean {
  const told = block.children.filter((child) => typeof child !== 'string' || child.trim() !== '');
  return block.name === 'p' && told.length > 0 && told.every((child) => typeof child !== 'string' && child.name === 'a' && (child.attributes.href ?? '').startsWith('#_Toc'));
}

/** Footnotes and endnotes stand in a list at the end. */
function areNotes(block: XmlElement): boolean {
  const [first] = block.children;
  return block.name === 'ol' && first !== undefined && typeof first !== 'string' && /^(?:foot|end)note-/.test(first.attributes.id ?? '');
}

function within(element: XmlElement, name: string): XmlElement[] {
  return element.children.flatMap((child) => (typeof child === 'string' ? [] : child.name === name ? [child] : within(child, name)));
}

/** The first row of a table is its head: Markdown has no tables without one, and hardly anybody marks it as such. */
function withHeads(block: XmlElement): XmlElement {
  const [first] = block.name === 'table' ? within(block, 'tr') : [];
  if (first === undefined || within(block, 'th').length > 0) return block;
  const named = (element: XmlElement): XmlElement => ({ ...element, children: element.children.map((child) => (typeof child === 'string' ? child : child === first ? { ...first, children: elementsOf(first).map((cell) => ({ ...cell, name: 'th' })) } : named(child))) });
  return named(block);
}

/** Also without the signs that notes leave in the text. */
function withoutPictures(element: XmlElement): XmlElement {
  return { ...element, children: element.children.flatMap((child): (XmlElement | string)[] => (typeof child === 'string' ? [child] : child.name === 'img' || isNoteSign(child) ? [] : [withoutPictures(child)])) };
}

function isNoteSign({ name, children: [first] }: XmlElement): boolean {
  return name === 'sup' && first !== undefined && typeof first !== 'string' && /^#(?:foot|end)note-/.test(first.attributes.href ?? '');
}

function elementsOf(element: XmlElement): XmlElement[] {
  return element.children.filter((child): child is XmlElement => typeof child !== 'string');
}

const APART: ReadonlySet<string> = new Set(['br', 'p', 'li', 'td', 'th', 'tr']);

function plainText(element: XmlElement): string {
  const textIn = (node: XmlElement | string): string => (typeof node === 'string' ? node : isNoteSign(node) ? '' : `${node.children.map(textIn).join('')}${APART.has(node.name) ? ' ' : ''}`);
  return textIn(element).replaceAll(/\s+/g, ' ').trim();
}
