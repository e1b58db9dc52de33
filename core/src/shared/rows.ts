import { rowsChosen, type CalledRows, type CaseContent, type Row } from '../cases/index.ts';
import { takenRows, withOwnRows, type DataSetContent } from '../dataSets/index.ts';
import { keyOfData, type Library } from './library.ts';

/** The part of a case that says where its rows come from. */
export type RowSource = Pick<CaseContent, 'rows' | 'data' | 'runs' | 'parameters'>;

/** All rows a case has, its data set's before its own. A data set that is gone gives none. */
export function allRows(content: RowSource, library: Library): readonly Row[] {
  if (content.data === null) return content.rows;
  const set = library.get(keyOfData(content.data));
  return set?.kind === 'dataSet' ? joined(set.content, content.data.columns, content.rows) : content.rows;
}

/** The rows a case runs, put aside and not chosen ones left out. Empty with rows there: it does not run at all. */
export function rowsToRun(content: RowSource, library: Library): readonly Row[] {
  return rowsChosen(allRows(content, library), content.parameters, content.runs);
}

/** How a case is run by itself: with each of these rows; null is the one instance of a case that has no rows. */
export function runsOf(content: RowSource, library: Library): readonly (Row | null)[] {
  const rows = rowsToRun(content, library);
  return rows.length > 0 || allRows(content, library).length > 0 ? rows : WITHOUT_ROW;
}

const WITHOUT_ROW: readonly null[] = [null];

/**
 * How a called case is run: with each of these rows. Null: no row of it takes part. Where none of those it is called
 * with is there or runs, it is run once without a row: the caller does not vanish, and its values are missing.
 */
export function calledRuns(content: RowSource, rows: CalledRows, library: Library): readonly (Row | null)[] | null {
  switch (rows.kind) {
    case 'mine':
      return null;
    case 'every':
      return orWithoutRow(rowsToRun(content, library));
    case 'own':
      return orWithoutRow(allRows(content, library).filter((r) => r.id === rows.row));
    case 'chosen': {
      const chosen = new Set(rows.rows);
      return orWithoutRow(allRows(content, library).filter((r) => chosen.has(r.id)));
    }
  }
}

function orWithoutRow(rows: readonly Row[]): readonly (Row | null)[] {
  return rows.length === 0 ? WITHOUT_ROW : rows;
}

/** Taken rows by the data set they are of: the same rows again, not equal ones, as long as nothing changed. */
const known = new WeakMap<DataSetContent, { readonly columns: string; readonly own: readonly Row[]; readonly rows: readonly Row[] }[]>();

/** Of how many users of one data set the rows are kept. */
const MOST_KEPT = 50;

function joined(set: DataSetContent, columns: NonNullable<CaseContent['data']>['columns'], own: readonly Row[]): readonly Row[] {
  const key = JSON.stringify(columns);
  const kept = known.get(set) ?? [];
  const same = kept.find((k) => k.own === own && k.columns === key);
  if (same !== undefined) return same.rows;
  const rows = withOwnRows(takenRows(set, columns), own);
  known.set(set, [{ columns: key, own, rows }, ...kept].slice(0, MOST_KEPT));
  return rows;
}
