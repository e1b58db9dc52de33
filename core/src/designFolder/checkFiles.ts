/** How the files of a folder differ from what its manifest says, by path. */
export interface FolderDifference {
  readonly changed: readonly string[];
  readonly missing: readonly string[];
  /** In the folder, and not in the manifest. */
  readonly unknown: readonly string[];
}

/** Holds the hashes of files against those that the manifest names. The manifest itself is none of them. */
export function differenceOf(named: ReadonlyMap<string, string>, found: ReadonlyMap<string, string>): FolderDifference {
  return {
    changed: [...named].flatMap(([path, hash]) => (found.has(path) && found.get(path) !== hash ? [path] : [])),
    missing: [...named.keys()].filter((path) => !found.has(path)),
    unknown: [...found.keys()].filter((path) => !named.has(path)),
  };
}

export function isDifferent({ changed, missing, unknown }: FolderDifference): boolean {
  return changed.length + missing.length + unknown.length > 0;
}
