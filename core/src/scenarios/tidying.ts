import stringWidth from 'string-width';
import { readFeature, type LineRole, type ReadLine } from './reading.ts';

const STEP = 2;

/** Spaces before a line of this role in a feature without rules; in a rule all but the rule itself stand one step further in. Absent: what it stands above or below tells, or it stays. */
const INDENT: Partial<Record<LineRole, number>> = {
  language: 0,
  feature: 0,
  rule: STEP,
  background: STEP,
  scenario: STEP,
  step: 2 * STEP,
  examples: 2 * STEP,
  tableRow: 3 * STEP,
  docStringEdge: 3 * STEP,
};

/**
 * The text with its lines set in by what they are, and the bars of its tables below each other. Words, blank lines,
 * comments, the contents of doc strings and how lines end stay as they are; a line that could not be read is not touched.
 */
export function tidied(text: string): string {
  const lines = text.split('\n');
  const { lines: read } = readFeature(text);
  const bom = text.startsWith('\uFEFF') ? '\uFEFF' : '';
  const out = lines.map((line, i) => (i === 0 ? line.slice(bom.length) : line).replace(/\r$/, ''));
  const indents = indentsOf(read);
  let shift = 0;
  for (const [i, { role }] of read.entries()) {
    const old = out[i] ?? '';
    const indent = indents[i] ?? null;
    if (role === 'docString') out[i] = shifted(old, shift);
    else if (role === 'blank') out[i] = '';
    else if (indent !== null) out[i] = ' '.repeat(indent) + old.trim();
    if (role === 'docStringEdge') shift = indentOf(out[i] ?? '') - indentOf(old);
  }
  for (const [from, to] of tablesIn(read)) aligned(out.slice(from, to)).forEach((row, i) => (out[from + i] = row));
  return bom + out.map((line, i) => (lines[i]?.endsWith('\r') === true ? `${line}\r` : line)).join('\n');
}

/** How far in each line belongs; null: where it is. Tags and comments stand as what they stand above, descriptions one step in from what they describe. */
function indentsOf(read: readonly ReadLine[]): (number | null)[] {
  const below = rolesBelow(read);
  let above: LineRole = 'feature';
  let inRule = false;
  return read.map(({ role }, i) => {
    if (role === 'rule') inRule = true;
    if (role === 'feature' || role === 'rule' || role === 'background' || role === 'scenario' || role === 'examples') above = role;
    const holds = role === 'description' ? above : role === 'tags' || role === 'comment' ? below[i] : role;
    const indent = holds === undefined || holds === null ? undefined : INDENT[holds];
    if (indent === undefined) return null;
    return indent + (role === 'description' ? STEP : 0) + (inRule && indent > 0 && holds !== 'rule' ? STEP : 0);
  });
}

/** For each line the role of the next that is more than tags, a comment or blank; null at the end of the file. */
function rolesBelow(read: readonly ReadLine[]): (LineRole | null)[] {
  let next: LineRole | null = null;
  return read
    .toReversed()
    .map(({ role }) => {
      if (role !== 'tags' && role !== 'comment' && role !== 'blank') next = role;
      return next;
    })
    .toReversed();
}

function indentOf(line: string): number {
  return line.length - line.trimStart().length;
}

function shifted(line: string, by: number): string {
  if (line.trim() === '') return line;
  return by >= 0 ? ' '.repeat(by) + line : line.slice(Math.min(-by, indentOf(line)));
}

/** Runs of rows below each other; `to` is not of it. */
export function tablesIn(read: readonly ReadLine[]): [from: number, to: number][] {
  const tables: [number, number][] = [];
  for (const [i, { role }] of read.entries()) {
    if (role !== 'tableRow') continue;
    const last = tables.at(-1);
    if (last !== undefined && last[1] === i) last[1] = i + 1;
    else tables.push([i, i + 1]);
  }
  return tables;
}

/** Rows of a table with their bars below each other, numbers at the right; what stands in the cells, escapes too, stays. */
export function aligned(rows: readonly string[]): string[] {
  const cells = rows.map(rawCells);
  const widths: number[] = [];
  for (const row of cells) for (const [i, cell] of row.entries()) widths[i] = Math.max(widths[i] ?? 0, stringWidth(cell));
  const numbers = widths.map((_, i) => cells.length > 1 && cells.slice(1).every((row) => /^-?\d+([.,]\d+)?$/.test(row[i] ?? '')));
  const indent = ' '.repeat(indentOf(rows[0] ?? ''));
  return cells.map((row, at) => {
    // A bar that nothing ends begins no cell: it stays as somebody is writing it.
    if (row.length === 0) return indent + (rows[at] ?? '').trim();
    const padded = row.map((cell, i) => {
      const space = ' '.repeat((widths[i] ?? 0) - stringWidth(cell));
      return numbers[i] === true && at > 0 ? space + cell : cell + space;
    });
    return `${indent}| ${padded.join(' | ')} |${commentBehind(rows[at] ?? '')}`;
  });
}

/** The cells as they are written: a bar behind a backslash parts nothing. */
function rawCells(row: string): string[] {
  return row
    .trim()
    .replace(/^\|/, '')
    .split(/((?:[^\\|]|\\.)*)\|/su)
    .filter((_, i) => i % 2 === 1)
    .map((cell) => cell.trim());
}

/** What stands behind the last bar is no cell, and not thrown away. */
function commentBehind(row: string): string {
  const rest = /^\s*\|(?:(?:[^\\|]|\\.)*\|)*(.*)$/su.exec(row)?.[1]?.trim() ?? '';
  return rest === '' ? '' : ` ${rest}`;
}
