import type { OwnField } from '../fields/index.ts';
import { valueIn, type ListColumn, type ListProject, type Listed } from './columns.ts';
import { compareTexts } from './sorting.ts';

/** What artefacts have in common; `value` null: they have nothing in the column. */
export interface ListGroup<L extends Listed> {
  readonly value: string | null;
  readonly members: readonly L[];
}

/** How long ago, as a group of `updated`; each is what the ones before it are not. */
export const AGES = ['today', 'week', 'month', 'earlier'] as const;
export type Age = (typeof AGES)[number];

const DAY = 86_400_000;

/**
 * A list in groups, in the order of the column; members keep their order, and what has several values stands in each
 * of their groups. `now` in milliseconds since 1970, for ages.
 */
export function grouped<L extends Listed>(list: readonly L[], column: ListColumn, now: number, project: ListProject): ListGroup<L>[] {
  const groups = new Map<string | null, L[]>();
  for (const listed of list) {
    for (const value of new Set(namesOf(column, listed, now, project.fields))) {
      const members = groups.get(value);
      if (members === undefined) groups.set(value, [listed]);
      else members.push(listed);
    }
  }
  return [...groups].sort(([a], [b]) => (a === null || b === null ? (a === b ? 0 : a === null ? 1 : -1) : inOrder(column, a, b, project))).map(([value, members]) => ({ value, members }));
}

function inOrder(column: ListColumn, a: string, b: string, project: ListProject): number {
  if (column !== 'updated') return compareTexts(column, a, b, project);
  return AGES.findIndex((age) => age === a) - AGES.findIndex((age) => age === b);
}

function namesOf(column: ListColumn, listed: Listed, now: number, fields: readonly OwnField[]): readonly (string | null)[] {
  if (column === 'updated') return [ageOf(now - Date.parse(listed.at))];
  const value = valueIn(column, listed, fields);
  if (typeof value === 'string') return [value];
  if (typeof value === 'number') return [String(value)];
  return Array.isArray(value) && value.length > 0 ? (value as readonly string[]) : [null];
}

function ageOf(ms: number): Age {
  return ms < DAY ? 'today' : ms < 7 * DAY ? 'week' : ms < 30 * DAY ? 'month' : 'earlier';
}
