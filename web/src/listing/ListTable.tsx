import type { ArtefactKind } from '@caderno/core/artefacts';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useMemo, useRef } from 'react';
import { useLocation } from 'react-router';
import { useListProject, useOwnFields, type ListedHead } from '../api/index.ts';
import { useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { KIND_NAME, countOf, drawnLines, usePrinting } from '../look/index.ts';
import { ColumnHead, widthOf } from './ColumnHead.tsx';
import type { ListLine } from './listLines.ts';
import { emptyWords, groupName } from './listWords.ts';
import { TableLine, type TableRules } from './TableLine.tsx';
import { shownColumns } from './useListView.ts';
import { useLineKeys } from './useLineKeys.ts';
import type { Listing } from './useListing.ts';
import { useTitles } from './useTitles.ts';

const BOX_WIDTH = 32;
/** The same list over the whole spread: a line for each artefact, with the columns one has chosen. */
export function ListTable<K extends ArtefactKind>({ kind, listing }: { readonly kind: K; readonly listing: Listing<K> }) {
  const { project, canEdit } = useFrame();
  const { view, lines, selection, chosen } = listing;
  const titleOf = useTitles(project);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: () => 34, overscan: 5 });
  const scrollTo = useCallback((index: number) => rows.scrollToIndex(index, { align: 'auto' }), [rows]);
  const fields = useOwnFields(project);
  const keys = useLineKeys(scroller, { lines, selection, current: null, scrollTo });
  const columns = useMemo(() => shownColumns(view.columns, kind, fields), [view.columns, kind, fields]);
  const { search } = useLocation();
  const rules = useListProject(project);
  const changeMany = useChangeMany(project);
  const isEdited = canEdit && !printing;
  const { onFocus } = keys;
  const onSelect = selection.toggle;
  const table = useMemo((): TableRules => ({ project, kind, columns, rules, changeMany, isEdited, search, onSelect, onFocus }), [changeMany, columns, isEdited, kind, onFocus, onSelect, project, rules, search]);
  const widths = columns.map((c) => widthOf(c));
  // On paper all columns stand beside each other, however narrow; an id is never broken.
  const template = printing ? `0 ${columns.map((c) => (c.column === 'id' ? '3.25rem' : `minmax(0, ${widthOf(c)}fr)`)).join(' ')}` : `${BOX_WIDTH}px ${widths.map((w) => `${w}px`).join(' ')}`;
  const width = printing ? 0 : BOX_WIDTH + widths.reduce((sum, w) => sum + w, 0);
  const [one, many] = KIND_NAME[kind];
  const empty = emptyWords(kind, listing);
  return (
    <div ref={scroller} className="min-h-64 flex-1 overflow-auto border-t border-rule print:overflow-visible" role="table" aria-label={`Table of ${many}`} aria-rowcount={lines.length + 1} tabIndex={-1} onKeyDown={keys.onKeyDown}>
      <div role="row" className="sticky top-0 z-10 grid border-b border-ink bg-page text-xs font-semibold text-ink2" style={{ gridTemplateColumns: template, minWidth: width }}>
        <span role="columnheader" aria-label="Selected" />
        {columns.map((column) => (
          <ColumnHead key={column.column} column={column} view={view} />
        ))}
      </div>
      <div data-lines className="relative" role="rowgroup" style={{ height: rows.getTotalSize(), minWidth: width }}>
        {drawnLines(rows, printing).map((row) => {
          const line = lines[row.index];
          if (line === undefined) return null;
          if (line.kind === 'group')
            return (
              <div key={row.key} role="row" className="absolute inset-x-0 flex h-[34px] items-center gap-3 border-b border-rule bg-page2 px-3 text-xs font-semibold text-ink2" style={{ top: row.start }}>
                <span role="rowheader">{view.group === null ? '' : groupName(view.group, line.value, titleOf, fields)}</span>
                <span role="cell" className="font-normal">
                  {countOf(line.members.length, one, many)}
                </span>
              </div>
            );
          const { listed } = line;
          return <TableLine key={row.key} table={table} index={row.index} top={row.start} template={template} width={width} listed={listed} above={artefactAt(lines[row.index - 1])} chosen={chosen} isSelected={selection.has(listed.id)} isActive={row.index === keys.active} />;
        })}
      </div>
      {empty !== null && <p className="px-7 py-6 text-ink2">{empty}</p>}
    </div>
  );
}

/** What stands on a line; undefined: the head of a group, or nothing. */
function artefactAt<K extends ArtefactKind>(line: ListLine<K> | undefined): ListedHead<K> | undefined {
  return line?.kind === 'artefact' ? line.listed : undefined;
}
