import type { OwnField } from '../fields/index.ts';
import type { KindAndContent } from '../kinds/index.ts';

/** Where a text stands, as facts that people know it by. `number` counts from 1; `row` and `column` are names. */
export type PlaceName =
  | { readonly kind: 'field'; readonly field: string }
  /** A field of the project's own, by its name. */
  | { readonly kind: 'own'; readonly field: string }
  | { readonly kind: 'step'; readonly number: number; readonly field: 'action' | 'expected' }
  | { readonly kind: 'argument'; readonly number: number; readonly parameter: string }
  | { readonly kind: 'row'; readonly row: string; readonly number: number; readonly field: 'name' | 'description' }
  | { readonly kind: 'cell'; readonly row: string; readonly number: number; readonly column: string };

/** What a path of a text place is called in its artefact. */
export function placeName({ content }: KindAndContent, path: string, own: readonly OwnField[]): PlaceName {
  const [list, id, field = '', inner = ''] = path.split('/');
  if (list === 'steps' && 'steps' in content) {
    const number = content.steps.findIndex((s) => s.id === id) + 1;
    return field === 'arguments' ? { kind: 'argument', number, parameter: inner } : { kind: 'step', number, field: field === 'expected' ? 'expected' : 'action' };
  }
  if (list === 'rows' && 'rows' in content) {
    const number = content.rows.findIndex((r) => r.id === id) + 1;
    const row = content.rows[number - 1]?.name ?? '';
    if (field !== 'cells') return { kind: 'row', row, number, field: field === 'description' ? 'description' : 'name' };
    return { kind: 'cell', row, number, column: content.parameters.find((p) => p.id === inner)?.name ?? '' };
  }
  if (list === 'own') return { kind: 'own', field: own.find((f) => f.id === id)?.name ?? '' };
  return { kind: 'field', field: path };
}
