import { prefixSearch } from '../artefacts/index.ts';

/** Binds a value and answers its place in the statement. */
export type Bind = (value: unknown) => string;

/** The id that the source of a requirement gives it begins with … */
export const SOURCE_ID_BEGINS = `a.kind = 'requirement' AND lower(a.facts->>'origin') LIKE lower`;

/** Whether an artefact (alias `a`) has words in any of its texts, each perhaps as the beginning of a longer one. */
export function wordsSql(words: string, parameter: Bind): string {
  const search = prefixSearch(words);
  return search === null ? 'true' : `(a.search @@ to_tsquery('simple', ${parameter(search)}) OR (${SOURCE_ID_BEGINS}(${parameter(`${likeText(words)}%`)})))`;
}

/** A text as a pattern that matches nothing else. */
export function likeText(text: string): string {
  return text.replaceAll(/[\\%_]/g, String.raw`\$&`);
}
