import { folderOf } from '@caderno/core/scenarios';

/** A path for a new feature in the folder of another one, that no feature has. */
export function freePath(beside: string, taken: readonly string[], name = 'new'): string {
  const folder = folderOf(beside);
  const inFolder = (file: string): string => (folder === '' ? file : `${folder}/${file}`);
  const known = new Set(taken.map((path) => path.toLowerCase()));
  for (let i = 1; ; i += 1) {
    const path = inFolder(i === 1 ? `${name}.feature` : `${name}-${i}.feature`);
    if (!known.has(path.toLowerCase())) return path;
  }
}
