import { EditorView } from '@codemirror/view';
import { useCallback, useEffect, useRef } from 'react';

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

/** Asks where somebody was last on the page: who goes to the margin to say something means that. Null: nowhere yet, or it is gone. */
export function useLastPlace(): () => PagePlace | null {
  const field = useRef<Element | null>(null);
  useEffect(() => {
    const look = ({ target }: Event): void => {
      if (target instanceof Element && target.closest(`[${PLACE}]`) !== null) field.current = target;
    };
    document.addEventListener('focusin', look);
    return () => document.removeEventListener('focusin', look);
  }, []);
  return useCallback(() => (field.current?.isConnected === true ? placeOf(field.current) : null), []);
}

function placeOf(field: Element): PagePlace | null {
  const path = field.closest(`[${PLACE}]`)?.getAttribute(PLACE) ?? '';
  return path === '' ? null : { path, words: wordsMarked(field, /\/lines\/[^/]+$/.test(path)) };
}

/** Words marked in a field whose text is that of its place; `oneLine`: whose line at the cursor is. */
function wordsMarked(field: Element, oneLine: boolean): PagePlace['words'] {
  const editor = field instanceof HTMLElement ? EditorView.findFromDOM(field) : null;
  if (editor !== null) {
    const { from, to } = editor.state.selection.main;
    const line = editor.state.doc.lineAt(from);
    if (oneLine && to > line.to) return null;
    const before = oneLine ? line.from : 0;
    return to > from ? { start: from - before, end: to - before } : null;
  }
  if (!(field instanceof HTMLTextAreaElement) && !(field instanceof HTMLInputElement && field.type === 'text')) return null;
  const [start, end] = [field.selectionStart ?? 0, field.selectionEnd ?? 0];
  return end > start ? { start, end } : null;
}

/** What is written in or pressed; a text that becomes an editor once one is in it is one, too. */
const FOCUSABLE = 'input, textarea, [contenteditable="true"], [tabindex="0"], button';

/** Brings a place into view and goes there. */
export function goToPlace(path: string): void {
  const parts = path.split('/');
  for (let count = parts.length; count > 0; count -= 1) {
    const found = document.querySelector(placeSelector(parts.slice(0, count).join('/')));
    if (found === null) continue;
    found.scrollIntoView({ block: 'center' });
    const inside = found.matches(FOCUSABLE) ? found : found.querySelector(FOCUSABLE);
    if (inside instanceof HTMLElement) inside.focus({ preventScroll: true });
    return;
  }
}
