import type { ArtefactKind } from '@caderno/core/artefacts';
import type { OwnField } from '@caderno/core/fields';
import { columnsOf, groupsOf, type ListColumn, type Sorting } from '@caderno/core/listing';
import type { ListView, ResponseOf } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, tellFailure, useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

const VIEWS = ['lists'] as const;

/**
 * Where a list stands: on its own; as an outline, which is what is neither grouped nor sorted, and what its chapter
 * begins with however the table was seen last; or beside the list of the chapter, whose words in the address are not its own.
 */
export type ListPlace = 'own' | 'outline' | 'beside';

const FORGET = (): void => undefined;

/** How a list is seen, and the ways to change it. */
export interface ListViewing {
  readonly query: string;
  readonly group: ListColumn | null;
  readonly sort: Sorting | null;
  readonly columns: ListView['columns'];
  readonly setQuery: (query: string) => void;
  readonly setGroup: (group: ListColumn | null) => void;
  readonly setSort: (sort: Sorting | null) => void;
  readonly setColumns: (columns: ListView['columns']) => void;
}

/** How a list begins for somebody who never changed it. */
export function firstView(kind: ArtefactKind, fields: readonly OwnField[]): ListView {
  const group: Readonly<Record<ArtefactKind, ListColumn | null>> = { requirement: 'module', condition: 'requirement', case: 'module', question: 'status', shared: 'module', dataSet: 'module', feature: 'folder', suite: 'folder' };
  return { group: group[kind], sort: kind === 'question' ? { column: 'heldUp', descending: true } : null, columns: columnsOf(kind, fields).filter((c) => c !== 'version' && c !== 'author').map((column) => ({ column, width: null })) };
}

/** The columns that can be shown: a view may remember fields of another project, or such as are gone. */
export function shownColumns(columns: ListView['columns'], kind: ArtefactKind, fields: readonly OwnField[]): ListView['columns'] {
  const known = columnsOf(kind, fields);
  return columns.filter((c) => known.includes(c.column));
}

/**
 * The query, the groups and the order stand in the address, so that a link shows what its sender saw; groups, order and
 * columns are remembered of the person and stand where the address says nothing.
 */
export function useListView(kind: ArtefactKind, place: ListPlace = 'own'): ListViewing {
  const fields = useOwnFields(useFrame().project);
  const [search, setSearch] = useSearchParams();
  const table = useRemembered(kind, fields);
  const remembered = useMemo(() => (place === 'outline' ? { ...table.remembered, group: null, sort: null } : table.remembered), [place, table.remembered]);
  const remember = place === 'outline' ? FORGET : table.remember;
  const prefix = place === 'beside' ? `${kind}.` : '';
  const { group, sort } = fromAddress(kind, (name) => search.get(prefix + name), fields);
  const put = useCallback((name: string, value: string) => setSearch((now) => withParameter(now, prefix + name, value), { replace: true }), [prefix, setSearch]);
  return useMemo(
    () => ({
      query: search.get(`${prefix}query`) ?? '',
      group: group === undefined ? known(remembered.group, groupsOf(kind, fields)) : group,
      sort: sort === undefined ? (remembered.sort === null || known(remembered.sort.column, columnsOf(kind, fields)) === null ? null : remembered.sort) : sort,
      columns: remembered.columns,
      setQuery: (query) => put('query', query),
      setGroup: (next) => (put('group', next ?? 'none'), remember({ group: next })),
      setSort: (next) => (put('sort', next === null ? 'none' : `${next.descending ? '-' : ''}${next.column}`), remember({ sort: next })),
      setColumns: (columns) => remember({ columns }),
    }),
    [fields, group, kind, prefix, put, remember, remembered, search, sort],
  );
}

/** A column that is there; null: it is of another project, or gone. */
function known(column: ListColumn | null, there: readonly ListColumn[]): ListColumn | null {
  return column !== null && there.includes(column) ? column : null;
}

function withParameter(search: URLSearchParams, name: string, value: string): URLSearchParams {
  const next = new URLSearchParams(search);
  if (value === '') next.delete(name);
  else next.set(name, value);
  return next;
}

/** What the address says; undefined: nothing, or nothing that artefacts of the kind have. */
function fromAddress(kind: ArtefactKind, said: (name: string) => string | null, fields: readonly OwnField[]): { readonly group: ListColumn | null | undefined; readonly sort: Sorting | null | undefined } {
  const named = (text: string | undefined, there: readonly ListColumn[]): ListColumn | undefined => there.find((column) => column === text);
  const [group, sort] = [said('group'), said('sort')];
  const column = named(sort?.replace(/^-/, ''), columnsOf(kind, fields));
  return {
    group: group === 'none' ? null : named(group ?? undefined, groupsOf(kind, fields)),
    sort: sort === 'none' ? null : column === undefined ? undefined : { column, descending: sort?.startsWith('-') === true },
  };
}

function useRemembered(kind: ArtefactKind, fields: readonly OwnField[]): { readonly remembered: ListView; readonly remember: (part: Partial<ListView>) => void } {
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: VIEWS, queryFn: () => call('readListViews'), staleTime: Number.POSITIVE_INFINITY });
  // What was chosen here counts at once: what is cached is told a moment later.
  const [chosen, setChosen] = useState<ListView | null>(null);
  const remembered = useMemo(() => chosen ?? data?.[kind] ?? firstView(kind, fields), [chosen, data, fields, kind]);
  const remember = useCallback(
    (part: Partial<ListView>) => {
      // What was remembered last, not what this page was drawn with: two changes may come between two drawings.
      const known = client.getQueryData<ResponseOf<'readListViews'>>(VIEWS);
      const view = { ...(known?.[kind] ?? firstView(kind, fields)), ...part };
      setChosen(view);
      client.setQueryData(VIEWS, { ...known, [kind]: view });
      call('saveListView', { params: { kind }, body: view }).catch(tellFailure);
    },
    [client, fields, kind],
  );
  return { remembered, remember };
}
