import type { CaseId, SharedId } from '@caderno/core/artefacts';
import type { StepId } from '@caderno/core/cases';
import { DndContext, DragOverlay, PointerSensor, pointerWithin, useDndContext, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { createContext, use as useContext, useMemo, type ReactNode } from 'react';
import { UsePreview } from './UsePreview.tsx';

type ReusableId = SharedId | CaseId;

/** What is dragged: shared steps to be used, or a case to be called. */
interface Dragged {
  readonly reusable: ReusableId;
}

/** What takes it, where it is dropped. */
interface Taker {
  readonly take: (id: ReusableId) => void;
}

/** Pages between which shared steps and cases are dragged into steps; what is dragged is seen opened on the way. */
export function UseDragging({ children }: { readonly children: ReactNode }) {
  // A click on a line of an index goes there; only a pull drags.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }));
  const drop = ({ active, over }: DragEndEvent): void => {
    const dragged = active.data.current as Dragged | undefined;
    const taker = over?.data.current as Taker | undefined;
    if (dragged !== undefined) taker?.take(dragged.reusable);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={drop}>
      {children}
      <DragOverlay dropAnimation={null}>
        <InHand />
      </DragOverlay>
    </DndContext>
  );
}

function InHand() {
  const dragged = useDndContext().active?.data.current as Dragged | undefined;
  if (dragged === undefined) return null;
  return (
    <div className="max-h-56 w-80 overflow-hidden rounded-field border border-rule2 bg-page2 px-3 py-2 text-sm opacity-95">
      <UsePreview id={dragged.reusable} />
    </div>
  );
}

/** A line of an index that can be dragged among the steps. The keyboard has / in a step for it. */
export function DraggableUse({ id, enabled, children }: { readonly id: ReusableId; readonly enabled: boolean; readonly children: ReactNode }) {
  const data: Dragged = { reusable: id };
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `use ${id}`, data, disabled: !enabled });
  return (
    <div ref={setNodeRef} {...listeners} className={isDragging ? 'opacity-50' : ''} onDragStart={(event) => event.preventDefault()}>
      {children}
    </div>
  );
}

/** Puts a use in after a step; null: before the first. */
export type PlaceUse = (after: StepId | null, id: ReusableId) => void;

const Placing = createContext<PlaceUse | null>(null);

export function DropPlaces({ place, children }: { readonly place: PlaceUse | null; readonly children: ReactNode }) {
  return <Placing value={place}>{children}</Placing>;
}

/** Below a step, where what is dragged can be dropped; seen only while something is. */
export function DropPlace({ after }: { readonly after: StepId | null }) {
  const place = useContext(Placing);
  const data = useMemo<Taker>(() => ({ take: (id) => place?.(after, id) }), [after, place]);
  const { setNodeRef, isOver, active } = useDroppable({ id: `after ${after ?? ''}`, data, disabled: place === null });
  const isUse = (active?.data.current as Dragged | undefined)?.reusable !== undefined;
  return <span ref={setNodeRef} aria-hidden="true" className={`pointer-events-none absolute inset-x-0 z-10 ${after === null ? 'top-0 h-4' : 'bottom-0 h-1/2'}`}>{isOver && isUse && <span className={`absolute inset-x-0 h-0.5 bg-blue ${after === null ? 'top-0' : 'bottom-0'}`} />}</span>;
}
