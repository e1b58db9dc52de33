/** As much of what a file brings as a module is said in. */
interface InModule {
  readonly ownId: string | null;
  readonly fields: { readonly module?: string };
}

/**
 * The entries with one spelling for each module, whatever its capitals: that of the project, of several the first; of those it
 * does not know that of the file's first. What we wrote out ourselves, and what is spelled as a module of the project is, stays.
 */
export function inModulesAsSpelled<E extends InModule>(entries: readonly E[], known: readonly string[]): E[] {
  const exact = new Set(known);
  const spelled = new Map(known.toReversed().map((module) => [module.toLowerCase(), module]));
  return entries.map((entry) => {
    const { module } = entry.fields;
    if (module === undefined || module === '' || entry.ownId !== null || exact.has(module)) return entry;
    const there = spelled.get(module.toLowerCase());
    if (there === undefined) spelled.set(module.toLowerCase(), module);
    return there === undefined || there === module ? entry : { ...entry, fields: { ...entry.fields, module: there } };
  });
}
