import type { OwnField } from '../fields/index.ts';
import { queryNameOf, type QueryField } from '../find/index.ts';
import { fieldOfColumn, isOwnColumn, type BuiltInColumn, type ListColumn } from './columns.ts';

const FIELD: Readonly<Partial<Record<BuiltInColumn, QueryField>>> = {
  state: 'state', module: 'module', requirement: 'requirement', type: 'type', technique: 'technique', risk: 'risk', priority: 'priority', owner: 'owner', status: 'status', caseKind: 'kind', execution: 'execution', tags: 'tag', depths: 'depth', author: 'author',
};

/** The columns whose lack can be asked for. */
const HAS: Readonly<Partial<Record<BuiltInColumn, string>>> = { owner: 'owner', module: 'module', requirement: 'requirement', tags: 'tags' };

/**
 * What a query says of those who stand in a group; `value` null: of those who have nothing in the column. Null: no query
 * says it. A gotcha: a module and a person are asked for by a part of the name, so that a longer name matches as well.
 */
export function groupQuery(column: ListColumn, value: string | null, fields: readonly OwnField[]): string | null {
  if (isOwnColumn(column)) {
    const field = fieldOfColumn(column, fields);
    return field === undefined ? null : value === null ? `-has:${queryNameOf(field)}` : term(queryNameOf(field), value);
  }
  if (value !== null) return FIELD[column] === undefined ? null : term(FIELD[column], value);
  return HAS[column] === undefined ? null : `-has:${HAS[column]}`;
}

/** Nothing in a query says a quotation mark. */
function term(field: string, value: string): string | null {
  if (value.includes('"')) return null;
  return /^[\p{L}\p{N}-]+$/u.test(value) ? `${field}:${value}` : `${field}:"${value}"`;
}
