import { useEffect, useState } from 'react';

/** A place on the page, and the words chosen there. */
export interface PagePlace {
  readonly path: string;
  readonly words: { readonly start: number; readonly end: number } | null;
}

/** What a part of a page that shows some path of the content says of itself. */
const PLACE = 'data-place';

/** Chooses what shows a path. */
export function placeSelector(path: string): string {
  return `[${PLACE}=${JSON.stringify(path)}]`;
}

/** Where somebody was last on the page: who goes to the margin to say something means that. Null: nowhere yet. */
export function useLastPlace(): readonly [PagePlace | null, (place: PagePlace | null) => void] {
  const [place, setPlace] = useState<PagePlace | null>(null);
  useEffect(() => {
    const look = ({ target }: Event): void => {
      const field = target instanceof Document ? target.activeElement : target;
      const path = field instanceof Element ? field.closest(`[${PLACE}]`)?.getAttribute(PLACE) : null;
      if (path === null || path === undefined || !(field instanceof Element)) return;
      const words = chosenIn(field);
      setPlace((now) => (now?.path === path && now.words?.start === words?.start && now.words?.end === words?.end ? now : { path, words }));
    };
    document.addEventListener('focusin', look);
    document.addEventListener('selectionchange', look);
    return () => {
      document.removeEventListener('focusin', look);
      document.removeEventListener('selectionchange', look);
    };
  }, []);
  return [place, setPlace];
}

/** Words marked in a field whose text is that of its place. */
function chosenIn(field: Element): PagePlace['words'] {
  if (!(field instanceof HTMLTextAreaElement) && !(field instanceof HTMLInputElement && field.type === 'text')) return null;
  const [start, end] = [field.selectionStart ?? 0, field.selectionEnd ?? 0];
  return end > start ? { start, end } : null;
}

/** Brings a place into view and goes there. */
export function goToPlace(path: string): void {
  const parts = path.split('/');
  for (let count = parts.length; count > 0; count -= 1) {
    const found = document.querySelector(placeSelector(parts.slice(0, count).join('/')));
    if (found === null) continue;
    found.scrollIntoView({ block: 'center' });
    const inside = found.matches('input, textarea, button') ? found : found.querySelector('input, textarea, [contenteditable], button');
    if (inside instanceof HTMLElement) inside.focus({ preventScroll: true });
    return;
  }
}
