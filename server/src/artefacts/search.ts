import type { KindAndContent } from '@caderno/contract';
import { execute, type Work } from '../database/index.ts';

/** PostgreSQL refuses a document of over 1 MB of lexemes; words beyond this are not found. */
const MOST_SEARCHED = 200_000;

/** Writes the words an artefact is found by; those of its title weigh most. */
export async function writeSearch(work: Work, rowId: string, value: KindAndContent): Promise<void> {
  const words = wordsOf(value).join('\n').slice(0, MOST_SEARCHED).toWellFormed();
  await execute(
    work,
    `UPDATE artefact SET search = setweight(to_tsvector('simple', $2), 'A') || setweight(to_tsvector('simple', $3), 'D') WHERE id = $1`,
    [rowId, value.content.title, words],
  );
}

function wordsOf(value: KindAndContent): string[] {
  switch (value.kind) {
    case 'requirement':
      return [value.content.text, value.content.source];
    case 'condition':
      return value.content.requirements.map((r) => r.anchor?.quote ?? '');
    case 'case': {
      const { objective, preconditions, steps, rows } = value.content;
      return [objective, preconditions, ...steps.flatMap((s) => [s.action, s.expected]), ...rows.map((r) => r.name)];
    }
  }
}

/** A text search expression in which every word may be the beginning of a longer one; null when there are no words. */
export function prefixSearch(text: string): string | null {
  const words = text.match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.length === 0 ? null : words.slice(0, 12).map((w) => `${w}:*`).join(' & ');
}
