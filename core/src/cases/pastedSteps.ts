import { parsePastedGrid } from '../data/index.ts';

/** A step read from pasted text. */
export interface PastedStep {
  readonly action: string;
  readonly expected: string;
}

export const COLUMN_ROLES = ['action', 'data', 'expected', 'number', 'leave'] as const;
/** What a column of a pasted table holds. */
export type ColumnRole = (typeof COLUMN_ROLES)[number];

/** A table that was pasted where steps are written. */
export interface PastedTable {
  /** The names of the columns, where the first row tells them. */
  readonly heads: readonly string[] | null;
  readonly rows: readonly (readonly string[])[];
  /** What each column seems to hold. */
  readonly roles: readonly ColumnRole[];
  /** Whether that can be taken without asking. */
  readonly sure: boolean;
}

const BULLET = /^\s*(?:[-*•‣–]\s+|\(?\d{1,4}[.):]\s+|[a-z][.)]\s+)?/;
const ARROW = /\t+|\s*(?:=>|⇒)\s*/;
const ORDINAL = /^\(?\d{1,4}(?:\.\d{1,4})*[.):]?$/;
const HEAD_WORDS: readonly (readonly [ColumnRole, RegExp])[] = [
  ['number', /^(?:#|no\.?|nr\.?|num(?:ber)?|step (?:no\.?|nr\.?|number|#|id)|id|seq(?:uence)?|order)$/],
  ['expected', /\b(?:expected|expectation|outcome|should happen)\b|^(?:result|results|then|response)$/],
  ['data', /\b(?:data|inputs?|values?|parameters?)\b/],
  ['action', /\b(?:actions?|steps?|descriptions?|instructions?|activity|what to do|procedure|do|when)\b/],
  ['leave', /^(?:actual(?: results?)?|status|passed|pass\s*\/\s*fail|tester|executed by|comments?|remarks?|notes?)$/],
];

/**
 * Steps from text pasted from anywhere: one a line; a tab, `=>` or `⇒` starts the expected result; numbering and
 * bullets are stripped; blank lines dropped. A line that begins with an arrow gives the step above its expectation.
 */
export function parsePastedSteps(text: string): PastedStep[] {
  return joined(
    text.split(/\r\n|\r|\n/).flatMap((line) => {
      if (line.trim() === '') return [];
      const [action = '', ...rest] = line.replace(BULLET, '').split(ARROW).map((part) => part.trim());
      return [{ action, expected: rest.filter((part) => part !== '').join(' ') }];
    }),
  );
}

/**
 * The table that a text is, if it is one: several columns, or cells in quotes that hold line breaks, as spreadsheets
 * copy them. Heads and a column of numbers are recognised; without heads two columns are action and expectation, and
 * more than two are a guess. Null: it is lines of text.
 */
export function parsePastedTable(text: string): PastedTable | null {
  const cells = parsePastedGrid(text)
    .map((row) => row.map((cell) => cell.replaceAll(/\s*\n\s*/g, ' ').trim()))
    .filter((row) => row.some((cell) => cell !== ''));
  const width = Math.max(0, ...cells.map((row) => row.length));
  const isQuoted = /(?:^|[\t\n])"[^"]*\n/.test(text.replaceAll(/\r\n?/g, '\n'));
  if (cells.length === 0 || (width < 2 && !isQuoted)) return null;
  const columns = Array.from({ length: width }, (_, i) => i);
  const named = rolesOfHeads(cells[0] ?? [], cells[1] ?? []);
  const rows = (named === null ? cells : cells.slice(1)).map((row) => columns.map((i) => row[i] ?? ''));
  if (named !== null) return { heads: columns.map((i) => cells[0]?.[i] ?? ''), rows, roles: columns.map((i) => named[i] ?? 'leave'), sure: isSure(named) };
  return { heads: null, rows, ...guessedRoles(rows, columns) };
}

/** The steps of a table whose columns hold what is said: data stands behind the action; a row without an action gives the step above its expectation. */
export function stepsOfTable({ rows }: Pick<PastedTable, 'rows'>, roles: readonly ColumnRole[]): PastedStep[] {
  const textOf = (row: readonly string[], role: ColumnRole): string => row.filter((cell, i) => roles[i] === role && cell !== '').join(' ');
  return joined(
    rows.flatMap((row) => {
      const action = textOf(row, 'action').replace(BULLET, '');
      const data = textOf(row, 'data');
      const step = { action: data === '' ? action : action === '' ? data : `${action.replace(/[.:]$/, '')}: ${data}`, expected: textOf(row, 'expected') };
      return step.action === '' && step.expected === '' ? [] : [step];
    }),
  );
}

/** An expectation without an action belongs to the step above, if that has none. */
function joined(steps: readonly PastedStep[]): PastedStep[] {
  const all: PastedStep[] = [];
  for (const step of steps) {
    const above = all.at(-1);
    if (step.action === '' && above !== undefined && above.expected === '') all[all.length - 1] = { ...above, expected: step.expected };
    else all.push(step);
  }
  return all;
}

/** Null: the first row names no columns. “Step” above numbers is their number. */
function rolesOfHeads(first: readonly string[], second: readonly string[]): ColumnRole[] | null {
  const roles = first.map((head, i) => (/^steps?$/i.test(head) && ORDINAL.test(second[i] ?? '') ? 'number' : roleOfHead(head)));
  const known = roles.filter((role) => role !== null);
  const isHead = known.includes('action') || known.includes('expected') || (known.length > 1 && known.length === first.length);
  return isHead && first.every((head) => head.length <= 40) ? roles.map((role) => role ?? 'leave') : null;
}

function roleOfHead(head: string): ColumnRole | null {
  const words = head.toLowerCase().replaceAll(/[_:*]/g, ' ').trim();
  return HEAD_WORDS.find(([, pattern]) => pattern.test(words))?.[0] ?? null;
}

/** One column for each of what a step has. */
function isSure(roles: readonly ColumnRole[]): boolean {
  return (['action', 'data', 'expected'] as const).every((role) => roles.filter((r) => r === role).length <= 1) && roles.includes('action');
}

function guessedRoles(rows: readonly (readonly string[])[], columns: readonly number[]): Pick<PastedTable, 'roles' | 'sure'> {
  const isNumber = (i: number): boolean => rows.every((row) => row[i] === '' || ORDINAL.test(row[i] ?? '')) && rows.some((row) => row[i] !== '');
  const isEmpty = (i: number): boolean => rows.every((row) => row[i] === '');
  const spoken = columns.filter((i) => !isEmpty(i) && !(i === 0 && isNumber(i)));
  const inOrder: readonly ColumnRole[] = spoken.length < 3 ? ['action', 'expected'] : ['action', 'data', 'expected'];
  return { roles: columns.map((i) => (spoken.includes(i) ? (inOrder[spoken.indexOf(i)] ?? 'leave') : isEmpty(i) ? 'leave' : 'number')), sure: spoken.length < 3 };
}
