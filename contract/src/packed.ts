import { z } from 'zod';

/**
 * A table of objects of one shape, column by column: a column in which all are alike says so once. Lists of thousands
 * travel so: the text is shorter, and packs many times better than object after object.
 */
export interface Packed {
  readonly length: number;
  readonly columns: Readonly<Record<string, PackedColumn>>;
}
type PackedColumn = { readonly same: unknown } | { readonly each: readonly unknown[] };

/** See {@link Packed}. */
export const packedSchema: z.ZodType<Packed> = z.object({ length: z.int().min(0), columns: z.record(z.string(), z.union([z.object({ same: z.unknown() }), z.object({ each: z.array(z.unknown()) })])) });

/** The columns of rows that all have the fields of the first. {@link unpack} gives the rows back. */
export function pack(rows: readonly object[]): Packed {
  const [first] = rows;
  const columns = first === undefined ? {} : Object.fromEntries(Object.keys(first).map((name) => [name, columnOf(rows.map((row) => (row as Record<string, unknown>)[name]))]));
  return { length: rows.length, columns };
}

function columnOf(values: readonly unknown[]): PackedColumn {
  const [first] = values;
  const text = JSON.stringify(first);
  return values.every((value) => value === first || JSON.stringify(value) === text) ? { same: first } : { each: values };
}

/** The rows of a table whose columns are held against the fields of a schema: many times quicker than row by row. @throws ZodError */
export function unpackAs<O extends object>({ shape }: z.ZodType<O> & { readonly shape: Readonly<Record<string, z.ZodType>> }, { length, columns }: Packed): O[] {
  const rows: Record<string, unknown>[] = Array.from({ length }, () => ({}));
  for (const [name, field] of Object.entries(shape)) {
    const column = columns[name] ?? { same: undefined };
    const values = 'same' in column ? null : z.array(field).length(length).parse(column.each);
    const value = 'same' in column ? field.parse(column.same) : undefined;
    rows.forEach((row, i) => (row[name] = values === null ? value : values[i]));
  }
  // Every field of the schema is there and was checked by it.
  return rows as O[];
}
