import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import type { ListColumn } from '@caderno/core/listing';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, type ReactNode } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useOwnFields, useReadAhead, type ListedHead } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { CannotBeRead, KIND_NAME, SelectMark, countOf, drawnLines, usePrinting, type Selection } from '../look/index.ts';
import type { ListLine } from './listLines.ts';
import { groupName } from './listWords.ts';
import { useLineKeys } from './useLineKeys.ts';
import { useTitles } from './useTitles.ts';

/** What a chapter says of the artefacts in its list. */
export interface LineLook<K extends ArtefactKind> {
  /** In small print below the title. */
  readonly notes: (listed: ListedHead<K>) => readonly string[];
  /** At the end of the line. */
  readonly mark?: (listed: ListedHead<K>) => ReactNode;
  /** Behind how many a group has. */
  readonly groupNote?: (members: readonly ListedHead<K>[]) => string;
  /** Lines of its own below it. */
  readonly below?: (listed: ListedHead<K>) => ReactNode;
  /** Puts a line into something that handles it. */
  readonly wrap?: (listed: ListedHead<K>, line: ReactNode) => ReactNode;
}

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
                <Wrapped wrap={look.wrap} listed={line.listed}>
                  <Line listed={line.listed} isCurrent={line.listed.id === current} isActive={row.index === keys.active} search={search} selection={selection} look={look} />
                  {look.below?.(line.listed)}
                </Wrapped>
              )}
            </div>
          );
        })}
      </div>
      {empty !== null && <p className="px-5 py-4 text-ink2">{empty}</p>}
    </div>
  );
}

function Wrapped<K extends ArtefactKind>({ wrap, listed, children }: { readonly wrap: LineLook<K>['wrap']; readonly listed: ListedHead<K>; readonly children: ReactNode }) {
  return wrap === undefined ? children : wrap(listed, children);
}

interface LineProps<K extends ArtefactKind> {
  readonly listed: ListedHead<K>;
  readonly isCurrent: boolean;
  readonly isActive: boolean;
  /** Of the address: the list stays as it is when one of it is opened. */
  readonly search: string;
  readonly selection: Selection<ArtefactId>;
  readonly look: LineLook<K>;
}

/** An artefact in the list: a click opens it, Space or its box selects it. */
function Line<K extends ArtefactKind>({ listed, isCurrent, isActive, search, selection, look }: LineProps<K>) {
  const { project } = useFrame();
  const { id, title, broken } = listed;
  const isSelected = selection.has(id);
  const readAhead = useReadAhead(project);
  return (
    <div className={`group flex border-b border-rule ${isSelected ? 'bg-blue-wash' : ''} ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      <SelectMark name={id} selected={isSelected} shown={selection.chosen.length > 0} byPointerOnly={!isActive} onSelect={(_, through) => selection.toggle(id, through)} className="ml-0.5 mr-0.5 mt-2" />
      <Link draggable={false} tabIndex={isActive ? 0 : -1} to={{ pathname: address.artefact(project, id), search }} onClick={() => readAhead(id)} aria-current={isCurrent ? 'page' : undefined} className="flex min-w-0 flex-1 gap-2.5 py-2 pr-5">
        <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{id}</span>
        <span className="min-w-0 flex-1">
          <span className={`block leading-[1.35] ${isCurrent ? 'font-semibold' : ''}`}>{title}</span>
          <span className="block truncate text-xs text-ink2">{broken ? <CannotBeRead /> : look.notes(listed).join(' · ')}</span>
        </span>
        {look.mark?.(listed)}
      </Link>
    </div>
  );
}

function keyOf<K extends ArtefactKind>(line: ListLine<K> | undefined): string {
  return line === undefined ? '' : line.kind === 'group' ? `group ${line.value ?? ''}` : line.key;
}
