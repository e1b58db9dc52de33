import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { useDeferredValue, useMemo } from 'react';
import { useListed, useListProject, type ListedHead } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useNow, useSelection, type Selection } from '../look/index.ts';
import { idsOf, listLines, type ListLine } from './listLines.ts';
import { useListView, type ListPlace, type ListViewing } from './useListView.ts';

/** A list as it is seen now: what matches, in its groups and order, and what of it is selected. */
export interface Listing<K extends ArtefactKind> {
  readonly view: ListViewing;
  /** Undefined until it is known. */
  readonly list: readonly ListedHead<K>[] | undefined;
  /** What the query matches, also where the chapter leaves only some of it in the list. */
  readonly matching: readonly ListedHead<K>[] | undefined;
  /** How many there are without a query. */
  readonly total: number;
  readonly lines: readonly ListLine<K>[];
  readonly ids: readonly ArtefactId[];
  readonly selection: Selection<ArtefactId>;
  readonly chosen: readonly ListedHead<K>[];
}

/** `only`: what a chapter leaves of what matches; must be stable. */
export function useListing<K extends ArtefactKind>(kind: K, place: ListPlace = 'own', only?: (listed: ListedHead<K>) => boolean): Listing<K> {
  const { project } = useFrame();
  const view = useListView(kind, place);
  const { group, sort } = view;
  const now = useNow();
  const rules = useListProject(project);
  const { data: matching, total } = useListed(project, kind, useDeferredValue(view.query));
  const list = useMemo(() => (only === undefined ? matching : matching?.filter(only)), [matching, only]);
  const lines = useMemo(() => listLines(list ?? [], group, sort, now, rules), [rules, group, list, now, sort]);
  const ids = useMemo(() => idsOf(lines), [lines]);
  const selection = useSelection(ids);
  const chosen = useMemo(() => {
    const byId = new Map(list?.map((listed) => [listed.id as ArtefactId, listed]));
    return selection.chosen.flatMap((id) => byId.get(id) ?? []);
  }, [list, selection.chosen]);
  return { view, list, matching, total, lines, ids, selection, chosen };
}
