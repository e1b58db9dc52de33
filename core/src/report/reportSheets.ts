import { STANDINGS } from '../coverage/index.ts';
import type { ReportCell, ReportDocument, ReportTable } from './reportDocument.ts';

/** The sheets of a workbook of a report: its sentences, then each table with all its rows, where a bar is a column for each standing. */
export function reportSheets({ title, of, note, figures, sections }: ReportDocument): { readonly name: string; readonly rows: readonly (readonly string[])[] }[] {
  const summary = [[title, ''], [of, ''], ...(note === '' ? [] : [[note, '']]), ...figures.map(({ value, words }) => [words, value]), ...sections.flatMap((s) => s.lines.map((line) => [s.title, line]))];
  return [
    { name: 'Report', rows: summary },
    ...sections.flatMap((s) => s.tables).map((table) => ({ name: table.name, rows: sheetRows(table) })),
    ...sections.flatMap(({ curve }) => (curve === null ? [] : [{ name: 'Over time', rows: [['moment', 'share shown'], ...curve.points.map((p) => [p.at, p.share === null ? '' : `${Math.floor(p.share)} %`])] }])),
  ];
}

const STANDING_COLUMN = { shown: 'shown items', linked: 'linked only', gap: 'gaps', waiting: 'waiting', suspect: 'suspect', leftOut: 'left out' } as const;

function sheetRows({ columns, rows, more }: ReportTable): string[][] {
  const isBar = columns.map((_, column) => rows[0]?.[column]?.kind === 'bar');
  const names = columns.flatMap((name, column) => (isBar[column] === true ? STANDINGS.map((s) => STANDING_COLUMN[s]) : [name]));
  return [names, ...rows.map((row) => row.flatMap(cells)), ...(more === 0 ? [] : [[`and ${more} more`]])];
}

function cells(cell: ReportCell): string[] {
  return cell.kind === 'bar' ? STANDINGS.map((standing) => String(cell.counts[standing])) : [cell.text];
}
