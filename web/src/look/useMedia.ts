import { useSyncExternalStore } from 'react';
import { flushSync } from 'react-dom';
import { putOnPaper } from './theme.ts';

/** Whether a media query holds now. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (listener) => {
      const media = matchMedia(query);
      media.addEventListener('change', listener);
      return () => media.removeEventListener('change', listener);
    },
    () => matchMedia(query).matches,
  );
}

let printing = false;
const printers = new Set<() => void>();

function setPrinting(is: boolean): void {
  printing = is;
  putOnPaper(is);
  // The browser takes the page right after the event.
  flushSync(() => printers.forEach((listener) => listener()));
}

/** Whether the page is being put on paper: what is drawn only in view is drawn whole then. */
export function usePrinting(): boolean {
  return useSyncExternalStore(
    (listener) => {
      printers.add(listener);
      return () => printers.delete(listener);
    },
    () => printing,
  );
}

/** Follows the browser’s printing. Once, before anything is drawn. */
export function followPrinting(): void {
  addEventListener('beforeprint', () => setPrinting(true));
  addEventListener('afterprint', () => setPrinting(false));
}
