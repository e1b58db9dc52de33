import { DndContext, KeyboardSensor, PointerSensor, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent, type DragMoveEvent } from '@dnd-kit/core';
import type { ArtefactId, RequirementId } from '@caderno/core/artefacts';
import { idInSource, makesCircle, orderOutline, type OutlineEntry, type OutlineMove } from '@caderno/core/basis';
import { percentDown, shownRatio, type RequirementCoverage } from '@caderno/core/coverage';
import type { RequirementSummary } from '@caderno/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { GripVertical } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Ticks } from '../artefacts/index.ts';
import { CannotBeRead, SelectMark, drawnLines, usePrinting, type Selection } from '../look/index.ts';

type Entry = OutlineEntry<RequirementSummary>;
type Zone = 'before' | 'inside' | 'after';
interface Target {
  readonly id: RequirementId;
  readonly zone: Zone;
}

interface Props {
  readonly requirements: readonly RequirementSummary[];
  readonly coverage: ReadonlyMap<RequirementId, RequirementCoverage>;
  /** How many weak words stand in each, where it is known. */
  readonly wording?: Readonly<Record<string, number>>;
  readonly current: RequirementId | null;
  readonly addressOf: (id: RequirementId) => string;
  /** Absent: nothing can be selected. */
  readonly selection?: Selection<ArtefactId>;
  /** What was looked for, and can be selected; the others only show where it stands. Absent: all. */
  readonly found?: ReadonlySet<RequirementId>;
  /** Absent: the outline can be read only. */
  readonly onMove?: (id: RequirementId, move: OutlineMove) => void;
}

const ROW_HEIGHT = 36;
/** The outline of requirements with their ticks. Rows are dragged by their grip: onto the upper or lower edge of another, or into it. */
export function Outline({ requirements, coverage, wording, current, addressOf, selection, found, onMove }: Props) {
  const entries = useMemo(() => orderOutline(requirements), [requirements]);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: entries.length, getScrollElement: () => scroller.current, estimateSize: () => ROW_HEIGHT, overscan: 12 });
  const [target, setTarget] = useState<Target | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor));
  const at = current === null ? -1 : entries.findIndex((e) => e.place.id === current);
  useEffect(() => {
    if (at >= 0) rows.scrollToIndex(at, { align: 'auto' });
  }, [at, rows]);
  const drop = (event: DragEndEvent): void => {
    const move = target === null ? null : moveTo(entries, target);
    const id = event.active.id as RequirementId;
    setTarget(null);
    if (move !== null && target?.id !== id && !makesCircle(requirements, id, move.parent)) onMove?.(id, move);
  };
  return (
    <DndContext sensors={sensors} onDragMove={(event) => setTarget(targetOf(event))} onDragEnd={drop} onDragCancel={() => setTarget(null)}>
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto" role="list" aria-label="Outline of requirements">
        <div data-lines style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {drawnLines(rows, printing).map((row) => {
            const entry = entries[row.index];
            if (entry === undefined) return null;
            return (
              <div key={entry.place.id} role="listitem" className="absolute inset-x-0" style={{ top: row.start, height: ROW_HEIGHT }}>
                <OutlineRow
                  entry={entry}
                  coverage={coverage.get(entry.place.id)}
                  weak={wording?.[entry.place.id] ?? 0}
                  hasWording={wording !== undefined}
                  isCurrent={entry.place.id === current}
                  to={addressOf(entry.place.id)}
                  movable={onMove !== undefined}
                  isFound={found === undefined || found.has(entry.place.id)}
                  {...(selection === undefined || found?.has(entry.place.id) === false ? {} : { selected: selection.has(entry.place.id), onSelect: selection.toggle })}
                  zone={target?.id === entry.place.id ? target.zone : null}
                />
              </div>
            );
          })}
        </div>
      </div>
    </DndContext>
  );
}

interface RowProps {
  readonly entry: Entry;
  readonly coverage: RequirementCoverage | undefined;
  readonly weak: number;
  readonly hasWording: boolean;
  readonly isCurrent: boolean;
  readonly isFound: boolean;
  readonly to: string;
  readonly movable: boolean;
  readonly selected?: boolean;
  readonly onSelect?: Selection<ArtefactId>['toggle'];
  readonly zone: Zone | null;
}

const ZONE_LOOK: Record<Zone, string> = {
  before: 'shadow-[inset_0_2px_0_var(--color-blue)]',
  after: 'shadow-[inset_0_-2px_0_var(--color-blue)]',
  inside: 'bg-blue-wash',
};

function OutlineRow({ entry: { place, depth, children }, coverage, weak, hasWording, isCurrent, isFound, to, movable, selected = false, onSelect, zone }: RowProps) {
  const { attributes, listeners, setNodeRef: setDrag, isDragging } = useDraggable({ id: place.id, disabled: !movable });
  const { setNodeRef: setDrop } = useDroppable({ id: place.id });
  const percent = coverage === undefined ? null : percentDown(shownRatio(coverage.counts));
  const withdrawn = place.state === 'withdrawn';
  return (
    <div
      ref={setDrop}
      className={`group flex h-full items-center border-b border-rule pr-5 ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : selected ? 'bg-blue-wash' : 'hover:bg-page2'} ${zone === null ? '' : ZONE_LOOK[zone]} ${isDragging ? 'opacity-50' : ''}`}
      style={{ paddingLeft: 6 + depth * 16 }}
    >
      {movable ? (
        <button ref={setDrag} type="button" {...attributes} {...listeners} aria-label={`Drag ${place.id}`} className="grid h-full w-5 shrink-0 cursor-grab place-items-center text-ink3 opacity-0 focus:opacity-100 group-hover:opacity-100">
          <GripVertical size={13} aria-hidden="true" />
        </button>
      ) : (
        <span className="w-5 shrink-0" />
      )}
      {onSelect === undefined ? !isFound && <span className="mr-0.5 w-6 shrink-0" /> : <SelectMark name={place.id} selected={selected} byPointerOnly onSelect={(_, through) => onSelect(place.id, through)} className="mr-0.5" />}
      <Link
        to={to}
        aria-current={isCurrent ? 'page' : undefined}
        onKeyDown={(event) => {
          if (event.key !== ' ' || onSelect === undefined) return;
          event.preventDefault();
          onSelect(place.id, event.shiftKey);
        }}
        className="flex h-full min-w-0 flex-1 items-center gap-2.5">
        <span className="w-9 shrink-0 font-mono text-xs text-ink2">{place.id}</span>
        <span title={idInSource(place.sourceId) === '' ? undefined : `${place.sourceId} in its source`} className={`min-w-0 flex-1 truncate ${children > 0 || place.type === 'heading' ? 'font-semibold' : ''} ${withdrawn ? 'text-ink2 line-through' : isFound ? '' : 'text-ink2'}`}>{place.title}</span>
        {place.broken && <CannotBeRead />}
        {place.type === 'heading' ? null : withdrawn ? <span className="text-xs text-ink2">withdrawn</span> : <span className="max-[560px]:hidden"><Ticks conditions={coverage?.conditions ?? []} most={12} /></span>}
        {hasWording && (
          <span className="w-4 shrink-0 text-right text-xs text-ochre-ink underline decoration-wavy decoration-1 underline-offset-2" title={weak === 0 ? undefined : `${weak} weak ${weak === 1 ? 'word' : 'words'}`}>
            {weak > 0 && weak}
          </span>
        )}
        <span className="w-10 shrink-0 text-right font-mono text-xs text-ink2">{percent === null ? (children > 0 || withdrawn || place.type === 'heading' ? '' : '–') : `${percent} %`}</span>
      </Link>
    </div>
  );
}

function targetOf(event: DragMoveEvent): Target | null {
  const { over, active } = event;
  const moved = active.rect.current.translated;
  if (over === null || moved === null) return null;
  const place = (moved.top + moved.height / 2 - over.rect.top) / over.rect.height;
  return { id: over.id as RequirementId, zone: place < 0.3 ? 'before' : place > 0.7 ? 'after' : 'inside' };
}

function moveTo(entries: readonly Entry[], { id, zone }: Target): OutlineMove | null {
  const target = entries.find((e) => e.place.id === id);
  if (target === undefined) return null;
  const siblings = entries.filter((e) => e.place.parent === target.place.parent);
  const children = entries.filter((e) => e.place.parent === id);
  switch (zone) {
    case 'before':
      return { parent: target.place.parent, after: siblings[siblings.indexOf(target) - 1]?.place.id ?? null };
    case 'after':
      return { parent: target.place.parent, after: id };
    case 'inside':
      return { parent: id, after: children.at(-1)?.place.id ?? null };
  }
}
