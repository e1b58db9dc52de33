import { orderIn, valueIn, type ListColumn, type ListProject, type Listed, type ListValue } from './columns.ts';

export interface Sorting {
  readonly column: ListColumn;
  readonly descending: boolean;
}

const texts = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/**
 * A list in another order; what has nothing in the column stands last either way. Where a column says the same of two
 * they stay in the order they had.
 */
export function sorted<L extends Listed>(list: readonly L[], { column, descending }: Sorting, project: ListProject): L[] {
  const keyed = list.map((listed) => ({ listed, key: keyOf(column, valueIn(column, listed, project.fields), project) }));
  const sign = descending ? -1 : 1;
  return keyed.sort((a, b) => (a.key === null || b.key === null ? (a.key === b.key ? 0 : a.key === null ? 1 : -1) : sign * compareKeys(a.key, b.key))).map(({ listed }) => listed);
}

/** A share by itself: one third is less than a half, whatever they are of. */
type Key = number | string;

function keyOf(column: ListColumn, value: ListValue, project: ListProject): Key | null {
  if (value === null || typeof value === 'number') return value;
  if (typeof value === 'string') return orderIn(column, value, project) ?? value;
  if ('part' in value) return value.of === 0 ? null : value.part / value.of;
  const [first] = value;
  return first === undefined ? null : (orderIn(column, first, project) ?? first);
}

function compareKeys(a: Key, b: Key): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  if (typeof a === 'number' || typeof b === 'number') return typeof a === 'number' ? -1 : 1;
  return texts.compare(a, b);
}

/** Orders the names of groups as the columns they come from. */
export function compareTexts(column: ListColumn, a: string, b: string, project: ListProject): number {
  return compareKeys(orderIn(column, a, project) ?? a, orderIn(column, b, project) ?? b);
}
