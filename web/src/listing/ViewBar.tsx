import type { ArtefactKind } from '@caderno/core/artefacts';
import { columnsOf, groupsOf, type ListColumn } from '@caderno/core/listing';
import { ArrowDownNarrowWide, ArrowUpNarrowWide } from 'lucide-react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose } from '../look/index.ts';
import { columnWord } from './listWords.ts';
import type { ListViewing } from './useListView.ts';

const NONE = '';

/** What a list is grouped by, and its order. */
export function ViewBar({ kind, view }: { readonly kind: ArtefactKind; readonly view: Pick<ListViewing, 'group' | 'sort' | 'setGroup' | 'setSort'> }) {
  const fields = useOwnFields(useFrame().project);
  const named = (columns: readonly ListColumn[], none: string): { value: ListColumn | typeof NONE; name: string }[] => [{ value: NONE, name: none }, ...columns.map((value) => ({ value, name: columnWord(value, fields) }))];
  const { sort } = view;
  const Direction = sort?.descending === true ? ArrowDownNarrowWide : ArrowUpNarrowWide;
  return (
    <>
      <Choose label="Group by" showLabel labelWhenEmpty value={view.group ?? NONE} options={named(groupsOf(kind, fields), 'nothing')} onChange={(group) => view.setGroup(group === NONE ? null : group)} />
      <Choose label="Sort by" showLabel labelWhenEmpty value={sort?.column ?? NONE} options={named(columnsOf(kind, fields), kind === 'requirement' ? 'outline' : 'module and id')} onChange={(column) => view.setSort(column === NONE ? null : { column, descending: false })} />
      {sort !== null && (
        <button type="button" className="grid size-chip place-items-center rounded-field border border-rule2 bg-page text-ink2 hover:bg-page2" aria-label={sort.descending ? 'Sort upwards' : 'Sort downwards'} title={sort.descending ? 'Sort upwards' : 'Sort downwards'} onClick={() => view.setSort({ ...sort, descending: !sort.descending })}>
          <Direction size={14} aria-hidden="true" />
        </button>
      )}
    </>
  );
}
