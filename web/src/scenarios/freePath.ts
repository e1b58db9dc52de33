import { folderOf } from '@caderno/core/scenarios';

/** A path for a new feature in the folder of another one, that no feature has. */
export function freePath(beside: string, taken: readonly string[]): string {
  const folder = folderOf(beside);
  const inFolder = (name: string): string => (folder === '' ? name : `${folder}/${name}`);
  const known = new Set(taken.map((path) => path.toLowerCase()));
  for (let i = 1; ; i += 1) {
    const path = inFolder(i === 1 ? 'new.feature' : `new-${i}.feature`);
    if (!known.has(path.toLowerCase())) return path;
  }
}
