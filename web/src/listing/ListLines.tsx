import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import type { ListColumn } from '@caderno/core/listing';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useOwnFields } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { KIND_NAME, countOf, drawnLines, usePrinting, type Selection } from '../look/index.ts';
import { ListEntry, type LineLook } from './ListEntry.tsx';
import type { ListLine } from './listLines.ts';
import { groupName } from './listWords.ts';
import { useLineKeys } from './useLineKeys.ts';
import { useTitles } from './useTitles.ts';

interface Props<K extends ArtefactKind> {
  readonly kind: K;
  readonly label: string;
  readonly lines: readonly ListLine<K>[];
  readonly group: ListColumn | null;
  readonly current: ArtefactId | null;
  readonly selection: Selection<ArtefactId>;
  readonly look: LineLook<K>;
  readonly staysOpen: boolean;
  readonly empty: string | null;
}

/** The lines of a narrow list: each leads to its artefact; arrows move through it, and the right page follows where it may. */
export function ListLines<K extends ArtefactKind>({ kind, label, lines, group, current, selection, look, staysOpen, empty }: Props<K>) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const { search } = useLocation();
  const titleOf = useTitles(project);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: (i) => (lines[i]?.kind === 'group' ? 31 : 54), getItemKey: (i) => keyOf(lines[i]), overscan: 10 });
  const scrollTo = useCallback((index: number) => rows.scrollToIndex(index, { align: 'auto' }), [rows]);
  const open = useCallback((id: ArtefactId) => void navigate({ pathname: address.artefact(project, id), search }, { replace: true }), [navigate, project, search]);
  const keys = useLineKeys(scroller, { lines, selection, current, scrollTo, onCome: staysOpen ? undefined : open });
  const at = lines.findIndex((line) => line.kind === 'artefact' && line.listed.id === current);
  useEffect(() => {
    if (at >= 0) scrollTo(at);
  }, [at, scrollTo]);
  const fields = useOwnFields(project);
  const [one, many] = KIND_NAME[kind];
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto border-t border-rule" role="list" aria-label={label} onKeyDown={keys.onKeyDown}>
      <div data-lines className="relative" style={{ height: rows.getTotalSize() }}>
        {drawnLines(rows, printing).map((row) => {
          const line = lines[row.index];
          if (line === undefined) return null;
          return (
            <div key={row.key} ref={rows.measureElement} data-index={row.index} data-line={row.index} className="absolute inset-x-0" style={{ top: row.start }} role="listitem" onFocus={() => keys.onFocus(row.index)}>
              {line.kind === 'group' ? (
                <h2 className="flex items-baseline gap-3 border-b border-rule bg-page2 px-5 py-1.5 text-xs font-semibold text-ink2">
                  <span className="min-w-0 truncate">{group === null ? '' : groupName(group, line.value, titleOf, fields)}</span>
                  <span className="ml-auto shrink-0 font-normal">{[countOf(line.members.length, one, many), look.groupNote?.(line.members)].filter(Boolean).join(' · ')}</span>
                </h2>
              ) : (
                <ListEntry listed={line.listed} isCurrent={line.listed.id === current} isActive={row.index === keys.active} isSelected={selection.has(line.listed.id)} selecting={selection.chosen.length > 0} onSelect={selection.toggle} search={search} look={look} />
              )}
            </div>
          );
        })}
      </div>
      {empty !== null && <p className="px-5 py-4 text-ink2">{empty}</p>}
    </div>
  );
}

function keyOf<K extends ArtefactKind>(line: ListLine<K> | undefined): string {
  return line === undefined ? '' : line.kind === 'group' ? `group ${line.value ?? ''}` : line.key;
}
