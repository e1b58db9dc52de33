/** A value by name, as tables and factors have them, with other spellings of it in rows: `sí` is *yes*. */
export interface NamedValue {
  readonly id: string;
  readonly value: string;
  readonly aliases: readonly string[];
}

/** Place of the value that a text names, by its name or an alias, letter for letter; -1 when none does. */
export function placeOfValue(values: readonly NamedValue[], text: string): number {
  return values.findIndex((v) => text === v.value || v.aliases.includes(text));
}
