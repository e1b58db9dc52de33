import { freeName, isParameterName, parameterId, type Parameter, type Row } from '@caderno/core/cases';
import { freshRow, type DataTable } from './table.ts';

const NAMES_ROWS = /^(?:name|row|row name|title|case|test|id|#)$/i;
const LONGEST_NAME = 80;

/** A pasted block as a table of its own: columns named by its first row where that holds names, by their number else; the rows beside. */
export function tableOfPaste(block: readonly (readonly string[])[]): DataTable {
  const width = block.reduce((most, row) => Math.max(most, row.length), 0);
  const [first = [], ...below] = block;
  const isNamed = below.length > 0 && isRowOfNames(first, width);
  const rowNames = isNamed && NAMES_ROWS.test(first[0]?.trim() ?? '') ? 0 : -1;
  const names = new Set<string>();
  const parameters: (Parameter | null)[] = Array.from({ length: width }, (_, i) => {
    if (i === rowNames) return null;
    const name = freeName(isNamed ? (first[i] ?? '').trim() : `column ${i + 1}`, names);
    names.add(name);
    return { id: parameterId(crypto.randomUUID().slice(0, 8)), name, type: 'text', default: '', description: '' };
  });
  const rows = (isNamed ? below : block).map((texts, line): Row => {
    const cells = parameters.flatMap((p, i) => (p === null || (texts[i] ?? '') === '' ? [] : [[p.id, texts[i] ?? ''] as const]));
    return { ...freshRow(rowNames < 0 ? `row ${line + 1}` : (texts[rowNames] ?? '').slice(0, 200)), cells: Object.fromEntries(cells) };
  });
  return { parameters: parameters.filter((p) => p !== null), rows };
}

/** Names: every cell says something that can name a column, and no two the same. */
function isRowOfNames(cells: readonly string[], width: number): boolean {
  const names = cells.map((cell) => cell.trim());
  return names.length === width && new Set(names).size === width && names.every((name) => name.length <= LONGEST_NAME && !/^[-+\d.,:/\s%]+$/.test(name) && (isParameterName(name) || name === '#'));
}
