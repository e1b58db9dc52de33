import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { EntryId } from '@caderno/core/suites';
import { GripVertical } from 'lucide-react';

/** Where what is dropped comes to stand behind all. */
export const END = 'end of the suite';

/** Behind the last line, where something can be dropped. */
export function EndPlace() {
  const { setNodeRef, isOver } = useDroppable({ id: END });
  return <div ref={setNodeRef} aria-hidden="true" className={`h-6 ${isOver ? 'shadow-[inset_0_2px_0_var(--color-blue)]' : ''}`} />;
}

/** Makes a line one that is dragged by its grip, and before which others are dropped. */
export function useDraggedLine(id: EntryId | null, enabled: boolean) {
  const key = id ?? 'found by a rule';
  const drag = useDraggable({ id: key, disabled: !enabled || id === null });
  const drop = useDroppable({ id: key, disabled: !enabled || id === null });
  const isTarget = drop.isOver && drop.active?.id !== key;
  return { setLine: drop.setNodeRef, look: `${isTarget ? 'shadow-[inset_0_2px_0_var(--color-blue)]' : ''} ${drag.isDragging ? 'opacity-50' : ''}`, grip: { ref: drag.setNodeRef, ...drag.listeners } };
}

/** What a line is dragged by. The keyboard has Alt and the arrows for it. */
export function Grip({ grip, name }: { readonly grip: ReturnType<typeof useDraggedLine>['grip']; readonly name: string }) {
  return (
    <span {...grip} aria-hidden="true" title={`Drag ${name}; Alt and the arrows move it too`} className="grid w-4 shrink-0 cursor-grab touch-none place-items-center self-stretch text-ink3 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 print:hidden">
      <GripVertical size={13} />
    </span>
  );
}
