import type { Parameter, Row } from '../cases/index.ts';

/** Rows that are not among others by the values of some columns, nor among themselves: the first of equal ones stays. */
export function withoutDoubles(made: readonly Row[], there: readonly Row[], columns: readonly Parameter[]): Row[] {
  const keyOf = (row: Row): string => JSON.stringify(columns.map((p) => row.cells[p.id] ?? p.default));
  const known = new Set(there.map(keyOf));
  return made.filter((row) => {
    const key = keyOf(row);
    if (known.has(key)) return false;
    known.add(key);
    return true;
  });
}
