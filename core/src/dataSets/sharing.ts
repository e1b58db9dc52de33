import type { DataSetId } from '../artefacts/index.ts';
import { ALL_ROWS, newCover, parameterId, rowsChosen, type CaseContent, type Cover, type DataUse, type Parameter, type ParameterId, type Row } from '../cases/index.ts';
import { NO_OWN } from '../fields/index.ts';
import type { DataSetContent, Served } from './dataSet.ts';

/** A data set as it is used: which one, and what it holds. */
export interface KnownDataSet {
  readonly id: DataSetId;
  readonly content: DataSetContent;
}

/**
 * The rows of a case as a data set of their own: the columns are the parameters that have a value in any row or carry
 * something of a condition. The rows keep their ids, so that calls and choices of rows hold.
 */
export function sharedRows(content: CaseContent, title: string): DataSetContent {
  const filled = new Set(content.rows.flatMap((row) => Object.keys(row.cells)));
  const carrying = new Set(content.covers.flatMap(parametersOf));
  const parameters = content.parameters.filter((p) => filled.has(p.id) || carrying.has(p.id));
  return { title, purpose: '', parameters, rows: content.rows, serves: content.covers.flatMap(servedOf), module: content.module, tags: [], own: NO_OWN };
}

/** The case with a data set in the place of its own rows, which are those of the data set. */
export function withRowsShared(content: CaseContent, { id, content: set }: KnownDataSet): CaseContent {
  const columns = set.parameters.flatMap(({ id: column }) => (content.parameters.some((p) => p.id === column) ? [{ id: column, column }] : []));
  return { ...content, rows: content.rows.filter((row) => !set.rows.some((r) => r.id === row.id)), data: { set: id, pinned: null, columns } };
}

/**
 * The case with rows of a data set taken in: columns go to parameters of equal name, and a column without one becomes a
 * parameter. It covers what the data set serves, as far as it does not yet. `newId` makes ids of parameters.
 */
export function withDataSet(content: CaseContent, { id, content: set }: KnownDataSet, newId: () => string): CaseContent {
  const parameters = [...content.parameters];
  const columns = set.parameters.map((column) => {
    const same = parameters.find((p) => p.name.toLowerCase() === column.name.toLowerCase());
    if (same === undefined) parameters.push({ ...column, id: parameterId(newId()) });
    return { id: same?.id ?? parameters.at(-1)?.id ?? column.id, column: column.id };
  });
  const covers = set.serves.flatMap((served) => (content.covers.some((c) => c.id === served.id) ? [] : [coverOfServed(served, columns)]));
  return { ...content, parameters, data: { set: id, pinned: null, columns }, covers: [...content.covers, ...covers] };
}

/** The case with the rows of its data set as its own: the same rows, that change with the data set no longer. */
export function withRowsOwned(content: CaseContent, set: Pick<DataSetContent, 'rows' | 'parameters'>): CaseContent {
  if (content.data === null) return content;
  return { ...content, rows: withOwnRows(takenRows(set, content.data.columns), content.rows), data: null };
}

/** The same, with what does not run put aside, so that it may stand among rows that all run. `set`: the one it takes rows of; null: it takes none, or the set is gone. */
export function withRunsSettled(content: CaseContent, set: Pick<DataSetContent, 'rows' | 'parameters'> | null): CaseContent {
  const owned = set === null ? { ...content, data: null } : withRowsOwned(content, set);
  const running = new Set(rowsChosen(owned.rows, owned.parameters, owned.runs));
  return { ...owned, rows: owned.rows.map((row) => (running.has(row) ? row : { ...row, aside: true })), runs: ALL_ROWS };
}

/** Rows of a data set as a case takes them: cells under the case's own parameters, columns that none takes left out. */
export function takenRows({ rows, parameters }: Pick<DataSetContent, 'rows' | 'parameters'>, columns: DataUse['columns']): readonly Row[] {
  const taking = columns.flatMap(({ id, column }) => {
    const known = parameters.find((p) => p.id === column);
    return known === undefined ? [] : [{ id, column: known }];
  });
  return rows.map((row) => ({ ...row, cells: Object.fromEntries(taking.flatMap(({ id, column }) => {
    const cell = row.cells[column.id] ?? column.default;
    return cell === '' ? [] : [[id, cell] as const];
  })) }));
}

/** Rows of a data set and those of a case's own behind them; one of its own with the same id stands instead. */
export function withOwnRows(taken: readonly Row[], own: readonly Row[]): readonly Row[] {
  if (own.length === 0) return taken;
  const ids = new Set(own.map((r) => r.id));
  return [...taken.filter((r) => !ids.has(r.id)), ...own];
}

/** The columns of a data set that no parameter of a case takes. */
export function columnsNotTaken(set: Pick<DataSetContent, 'parameters'>, data: DataUse): readonly Parameter[] {
  return set.parameters.filter((p) => !data.columns.some((c) => c.column === p.id));
}

function servedOf(cover: Cover): Served[] {
  return cover.fields.length === 0 ? [] : [{ id: cover.id, seenVersion: cover.seenVersion, fields: cover.fields, outcome: cover.outcome }];
}

function coverOfServed({ id, seenVersion, fields, outcome }: Served, columns: DataUse['columns']): Cover {
  const parameterOf = (column: ParameterId): ParameterId[] => columns.flatMap((c) => (c.column === column ? [c.id] : []));
  return { ...newCover(id, seenVersion), fields: fields.flatMap((f) => parameterOf(f.parameter).map((parameter) => ({ id: f.id, parameter }))), outcome: outcome === null ? null : (parameterOf(outcome)[0] ?? null) };
}

function parametersOf({ fields, outcome }: Cover): ParameterId[] {
  return [...fields.map((f) => f.parameter), ...(outcome === null ? [] : [outcome])];
}
