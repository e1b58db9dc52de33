import type { Row } from '../cases/index.ts';
import { asJson, sameJson } from '../versions/index.ts';

interface WithRows {
  readonly rows: readonly Row[];
}

/**
 * The rows, by name or else by number, that are new or others than before, where nothing but rows is: of a case or a data set. Rows that are gone have no
 * name here, so of those alone the list is empty. Null: more than rows changed. `meaning`: what of a content is executed.
 */
export function touchedRows<C extends WithRows>(before: C, after: C, meaning: (content: C) => unknown): string[] | null {
  const isSame = (a: C, b: C): boolean => sameJson(asJson(meaning(a)), asJson(meaning(b)));
  if (!isSame({ ...before, rows: [] }, { ...after, rows: [] })) return null;
  const was = new Map(before.rows.map((row) => [row.id, row]));
  return after.rows.flatMap((row, i) => {
    const earlier = was.get(row.id);
    const isOther = earlier === undefined || !isSame({ ...after, rows: [earlier] }, { ...after, rows: [row] });
    return isOther ? [row.name === '' ? String(i + 1) : row.name] : [];
  });
}
