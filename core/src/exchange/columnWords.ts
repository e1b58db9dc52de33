/** What columns of a kind of table are called, in words of other languages than English: `de`, `fr`, `es`, `pt`, `sv`, those that dates can be written in. */
export type ColumnWords<T extends string> = readonly (readonly [T, readonly string[]])[];

/** Which column a name means; undefined: none of them. Capitals, signs between words and a unit in brackets make no difference. */
export function meantBy<T extends string>(words: ColumnWords<T>): (name: string) => T | undefined {
  const known = new Map(words.flatMap(([target, names]) => names.map((name) => [plain(name), target] as const)));
  return (name) => known.get(plain(name));
}

/** Whether a column calls itself a title, and not what it stands for, as “Requirement” does, which may as well be its number. */
export function isCalledTitle(name: string): boolean {
  return /^(?:(?:short|test|case|test case|req(?:uirement)?) )?(?:title|titel|titre|intitulé|título|name|nombre|nome|namn|summary|heading|headline|überschrift|bezeichnung|rubrik)$/.test(plain(name));
}

function plain(name: string): string {
  return name
    .normalize('NFC')
    .toLowerCase()
    .replace(/\([^)]*\)\s*$/, '')
    .replace(/[\s_./:-]+/g, ' ')
    .trim();
}
