import type { Row, RowId } from '@caderno/core/cases';
import { TextButton, countOf } from '../look/index.ts';
import type { RowShows } from './GridRow.tsx';
import { withRowsMarked } from './rowEdits.ts';
import type { EditTable } from './table.ts';

interface Props {
  readonly rows: readonly Row[];
  readonly shows: ReadonlyMap<RowId, RowShows>;
  readonly canEdit: boolean;
  readonly update: EditTable;
}

/** Rows that show nothing others do not, and the way to put them aside together. */
export function RedundantRows({ rows, shows, canEdit, update }: Props) {
  const places = rows.flatMap((row, i) => (!row.aside && (shows.get(row.id)?.redundant ?? '') !== '' ? [i] : []));
  if (places.length === 0) return null;
  return (
    <p className="mt-1 text-xs text-ochre-ink">
      {countOf(places.length, 'row')} {places.length === 1 ? 'shows' : 'show'} nothing that others do not. {canEdit && <TextButton onClick={() => update((data) => withRowsMarked(data, places, { aside: true }))}>put {places.length === 1 ? 'it' : 'them'} aside</TextButton>}
    </p>
  );
}
