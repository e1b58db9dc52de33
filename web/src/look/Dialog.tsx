import { Dialog as HeadlessDialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { useEffect, useState, type ReactNode } from 'react';
import { focusBelow } from '../focus/index.ts';
import { Button } from './Button.tsx';

interface Props {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly wide?: boolean;
  /** What is written in it counts at once: closing it loses nothing. */
  readonly keepsAtOnce?: boolean;
}

/** Words to search by are no work that could be lost. */
const WRITTEN = 'textarea, input:not([type="search"], [type="checkbox"], [type="radio"], [role="combobox"]), [contenteditable="true"]';
const FIELD = 'textarea:not([readonly]), input:not([type="checkbox"], [type="radio"], [type="file"], [readonly], :disabled), [contenteditable="true"]';

const CHOICE = 'input[type="radio"]:checked';

/** A sheet of paper laid over the book. It begins in its first field, asks before what was typed is lost, and gives the focus back. */
export function Dialog({ title, onClose, children, wide = false, keepsAtOnce = false }: Props) {
  // In state, not in a ref: the first dialog of a page is drawn a moment after it is there.
  const [sheet, setSheet] = useState<HTMLElement | null>(null);
  const [typed, setTyped] = useState(false);
  const [asking, setAsking] = useState(false);
  useFirstField(sheet);
  useFocusBack();
  return (
    <HeadlessDialog open onClose={() => (typed && !keepsAtOnce ? setAsking(true) : onClose())} className="relative z-40">
      <DialogBackdrop className="fixed inset-0 bg-ink/25" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 sm:p-12">
        <DialogPanel
          ref={setSheet}
          onInput={(event) => event.target instanceof Element && event.target.closest(WRITTEN) !== null && setTyped(true)}
          className={`w-full rounded-[8px] border border-rule2 bg-page p-6 ${wide ? 'max-w-4xl' : 'max-w-xl'}`}
        >
          <DialogTitle className="font-serif text-xl font-semibold">{title}</DialogTitle>
          {asking && (
            <div role="alert" className="mt-3 flex flex-wrap items-center gap-3 rounded-field bg-ochre-wash px-3 py-2 text-sm text-ochre-ink">
              <span className="flex-1">What you typed here is not saved yet.</span>
              <Button autoFocus onClick={() => setAsking(false)}>
                Keep writing
              </Button>
              <Button onClick={onClose}>Discard it</Button>
            </div>
          )}
          <div className="mt-3">{children}</div>
        </DialogPanel>
      </div>
    </HeadlessDialog>
  );
}

/** The first field has the focus, also when it is drawn later than the dialog, unless somebody was quicker. */
function useFirstField(panel: HTMLElement | null): void {
  useEffect(() => {
    if (panel === null) return undefined;
    const begin = (): void => {
      const focused = document.activeElement;
      const chosen = panel.querySelector<HTMLElement>('[data-first]') ?? (focused !== null && panel.contains(focused) && focused.matches(FIELD) ? null : panel.querySelector<HTMLElement>(FIELD));
      if (chosen === null) {
        // Where one only chooses, the arrows choose and Enter takes it at once; a field that is drawn later still comes first.
        if (!panel.contains(focused)) panel.querySelector<HTMLElement>(CHOICE)?.focus();
        return;
      }
      chosen.focus();
      stop();
    };
    const observer = new MutationObserver(begin);
    const stop = (): void => {
      cancelAnimationFrame(frame);
      observer.disconnect();
      panel.removeEventListener('keydown', stop);
      panel.removeEventListener('pointerdown', stop);
    };
    panel.addEventListener('keydown', stop);
    panel.addEventListener('pointerdown', stop);
    observer.observe(panel, { childList: true, subtree: true });
    // Headless UI puts the focus on the first thing that can have it; a field comes before.
    const frame = requestAnimationFrame(begin);
    return stop;
  }, [panel]);
}

/** Once the dialog is gone, the focus is where it was before, or at what is left nearby. */
function useFocusBack(): void {
  useEffect(() => {
    const back = focusBelow();
    return () => void requestAnimationFrame(() => requestAnimationFrame(back));
  }, []);
}
