import { Dialog as HeadlessDialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import type { ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly wide?: boolean;
}

/** A sheet of paper laid over the book. */
export function Dialog({ title, onClose, children, wide = false }: Props) {
  return (
    <HeadlessDialog open onClose={onClose} className="relative z-40">
      <DialogBackdrop className="fixed inset-0 bg-ink/25" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-12">
        <DialogPanel className={`w-full rounded-[8px] border border-rule2 bg-page p-6 ${wide ? 'max-w-4xl' : 'max-w-xl'}`}>
          <DialogTitle className="font-serif text-xl font-semibold">{title}</DialogTitle>
          <div className="mt-3">{children}</div>
        </DialogPanel>
      </div>
    </HeadlessDialog>
  );
}
