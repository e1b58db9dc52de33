import { ownQueryName, type OwnField } from './ownField.ts';

/** Names of a file's other columns, as {@link ownQueryName} makes them. */
export type TakenNames = ReadonlySet<string>;

export function takenNames(names: readonly string[]): TakenNames {
  return new Set(names.map(ownQueryName));
}

/** What a column of a file is called that holds a field of the project's own: as the field, with `own.` before it where such files have another column of that name. */
export function ownColumnName({ name }: Pick<OwnField, 'name'>, taken: TakenNames): string {
  return taken.has(ownQueryName(name)) ? `own.${name}` : name;
}

/** The field that a column of that name holds: the one that is written so, else one that is spelt otherwise; undefined: none of them. */
export function ownFieldOfColumn(name: string, fields: readonly OwnField[], taken: TakenNames): OwnField | undefined {
  return fields.find((field) => ownColumnName(field, taken) === name) ?? fields.find((field) => ownQueryName(ownColumnName(field, taken)) === ownQueryName(name));
}
