/** The name of a file for what is called so, in small letters and hyphens, without its ending. */
export function fileNameFor(title: string): string {
  const plain = title.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, '').replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-+|-+$/g, '');
  return plain.slice(0, 60).replace(/-+$/, '') || 'new';
}

/** A path for a feature in a folder (empty: at the top) that no feature has; where its name is taken, with a number. */
export function freePath(folder: string, name: string, taken: Iterable<string>): string {
  const known = new Set([...taken].map((path) => path.toLowerCase()));
  for (let n = 1; ; n += 1) {
    const path = `${folder === '' ? '' : `${folder}/`}${name}${n === 1 ? '' : `-${n}`}.feature`;
    if (!known.has(path.toLowerCase())) return path;
  }
}
