import type { PhrasingContent, RootContent, TableRow } from 'mdast';
import { gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import { percentDown, shownRatio } from '../coverage/index.ts';
import type { ReportCell, ReportDocument, ReportSection, ReportTable } from './reportDocument.ts';
import { moreRows } from './reportRows.ts';

/** A report as a Markdown document (with the tables of GFM); nothing that people wrote is read as markup in it. */
export function reportMarkdown({ title, of, note, figures, sections }: ReportDocument): string {
  const children: RootContent[] = [
    { type: 'heading', depth: 1, children: text(title) },
    paragraph(of),
    ...(note === '' ? [] : note.split(/\n{2,}/).map((part) => paragraph(part))),
    { type: 'list', spread: false, children: figures.map(({ value, words }) => ({ type: 'listItem', spread: false, children: [{ type: 'paragraph', children: [{ type: 'strong', children: text(value) }, ...text(` ${words}`)] }] })) },
    ...sections.flatMap(sectionOf),
  ];
  return toMarkdown({ type: 'root', children }, { extensions: [gfmToMarkdown()], bullet: '-' });
}

function sectionOf({ title, lines, tables }: ReportSection): RootContent[] {
  return [{ type: 'heading', depth: 2, children: text(title) }, ...lines.map(paragraph), ...tables.flatMap(tableOf)];
}

function tableOf(table: ReportTable): RootContent[] {
  const shown = table.columns.flatMap((_, column) => (table.rows.some((row) => row[column]?.kind === 'bar') ? [] : [column]));
  const isNumber = (column: number): boolean => table.rows[0]?.[column]?.kind === 'number';
  const row = (cells: readonly string[]): TableRow => ({ type: 'tableRow', children: shown.map((column) => ({ type: 'tableCell', children: text(cells[column] ?? '') })) });
  const more = moreRows(table);
  return [
    { type: 'table', align: shown.map((column) => (isNumber(column) ? 'right' : null)), children: [row(table.columns), ...table.rows.slice(0, table.most).map((cells) => row(cells.map(cellText)))] },
    ...(more === null ? [] : [paragraph(more)]),
  ];
}

/** A cell without its drawing. */
export function cellText(cell: ReportCell): string {
  return cell.kind === 'bar' ? `${percentDown(shownRatio(cell.counts)) ?? '–'} %` : cell.text;
}

function paragraph(words: string): RootContent {
  return { type: 'paragraph', children: text(words) };
}

function text(value: string): PhrasingContent[] {
  return [{ type: 'text', value }];
}
