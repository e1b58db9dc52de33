import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import { goOnInAdded } from '../focus/index.ts';

/** Adds a part at the end of a list; one goes on in it. */
export function AddButton({ onAdd, children }: { readonly onAdd: () => void; readonly children: ReactNode }) {
  return (
    <button type="button" onClick={(event) => goOnInAdded(event.currentTarget, onAdd)} className="mt-0.5 inline-flex min-h-6 items-center gap-1 text-xs font-medium text-blue hover:underline">
      <Plus size={12} aria-hidden="true" />
      {children}
    </button>
  );
}
