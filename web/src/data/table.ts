import { newRow, rowId, type Parameter, type Row } from '@caderno/core/cases';

/** Rows and their columns: of a case's own, or of a data set. */
export interface DataTable {
  readonly rows: readonly Row[];
  readonly parameters: readonly Parameter[];
}

/** Edits the table, whatever it is a part of. */
export type EditTable = (change: <D extends DataTable>(data: D) => D) => void;

/** A column of the grid: the row's name, what it gives to a parameter, or what it is for. */
export type GridColumn = { readonly kind: 'name' } | { readonly kind: 'parameter'; readonly parameter: Parameter } | { readonly kind: 'description' };

export const NAME: GridColumn = { kind: 'name' };
const DESCRIPTION: GridColumn = { kind: 'description' };

const LONGEST_NAME = 200;
const LONGEST_DESCRIPTION = 300;

/** The columns that are seen, in their order: the name first, what the row is for last, if that is said. */
export function gridColumns(parameters: readonly Parameter[], hidden: ReadonlySet<string>, isDescribed: boolean): readonly GridColumn[] {
  return [NAME, ...parameters.filter((p) => !hidden.has(p.id)).map((parameter): GridColumn => ({ kind: 'parameter', parameter })), ...(isDescribed ? [DESCRIPTION] : [])];
}

export function columnName(column: GridColumn): string {
  switch (column.kind) {
    case 'name':
      return 'name';
    case 'parameter':
      return column.parameter.name;
    case 'description':
      return 'what it is for';
  }
}

export function cellOf(row: Row, column: GridColumn): string {
  switch (column.kind) {
    case 'name':
      return row.name;
    case 'parameter':
      return row.cells[column.parameter.id] ?? '';
    case 'description':
      return row.description;
  }
}

/** The row with texts written into some of its columns. */
export function withCells(row: Row, columns: readonly GridColumn[], texts: readonly string[]): Row {
  let { name, description } = row;
  const cells = { ...row.cells };
  columns.forEach((column, i) => {
    const text = texts[i];
    if (text === undefined) return;
    if (column.kind === 'name') name = text.slice(0, LONGEST_NAME);
    else if (column.kind === 'description') description = text.slice(0, LONGEST_DESCRIPTION);
    else if (text === '') Reflect.deleteProperty(cells, column.parameter.id);
    else cells[column.parameter.id] = text;
  });
  return { ...row, name, description, cells };
}

/** A row that is not there yet, under a new id. */
export function freshRow(name: string): Row {
  return newRow(rowId(crypto.randomUUID().slice(0, 8)), name);
}
