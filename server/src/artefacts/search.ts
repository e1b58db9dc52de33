import { wordsOf } from '@caderno/core/kinds';
import type { KindAndContent } from '@caderno/contract';

/** PostgreSQL refuses a document of over 1 MB of lexemes; words beyond this are not found. */
const MOST_SEARCHED = 200_000;

/** The vector of a record `r` with `title` and `words`; those of the title weigh most. */
export const SEARCH_SQL = `setweight(to_tsvector('simple', r.title), 'A') || setweight(to_tsvector('simple', r.words), 'D')`;

/** The words an artefact is found by besides its title. */
export function searchWords(value: KindAndContent): string {
  return wordsOf(value).join('\n').slice(0, MOST_SEARCHED).toWellFormed();
}

/** A text search expression in which every word may be the beginning of a longer one; null when there are no words. */
export function prefixSearch(text: string): string | null {
  const words = text.match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.length === 0 ? null : words.slice(0, 12).map((w) => `${w}:*`).join(' & ');
}
