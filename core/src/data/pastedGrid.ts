/** Most cells taken from one paste. */
export const MOST_PASTED_CELLS = 200_000;

/**
 * A range copied from a spreadsheet as rows of cells. Tabs part cells; a cell in double quotes may hold tabs, line
 * breaks and doubled quotes. A trailing line break makes no row. Rows may differ in length.
 */
export function parsePastedGrid(text: string): string[][] {
  const normal = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
  const rows: string[][] = [[]];
  let at = 0;
  while (at <= normal.length) {
    const cell = readPastedCell(normal, at);
    rows.at(-1)?.push(cell.value);
    at = cell.end + 1;
    if (normal[cell.end] === '\n') rows.push([]);
  }
  return rows;
}

function readPastedCell(text: string, start: number): { value: string; end: number } {
  const quoted = /"((?:[^"]|"")*)"(?=[\t\n]|$)/y;
  quoted.lastIndex = start;
  const match = text[start] === '"' ? quoted.exec(text) : null;
  // Two quotes alone are our notation of the empty text, and no spreadsheet copies an empty cell as that.
  if (match?.[1]) return { value: match[1].replaceAll('""', '"'), end: quoted.lastIndex };
  const plain = /[^\t\n]*/y;
  plain.lastIndex = start;
  const value = plain.exec(text)?.[0] ?? '';
  return { value, end: start + value.length };
}
