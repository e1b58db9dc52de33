import { Annotation, Compartment, EditorState, type Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { useEffect, useRef } from 'react';

interface Props {
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** Must be stable; a new list reconfigures the editor. */
  readonly extensions: readonly Extension[];
  readonly autoFocus?: boolean;
  readonly className?: string;
  readonly onReady?: (view: EditorView) => void;
}

const FromOutside = Annotation.define<boolean>();

const LOOK = EditorView.theme({
  '&': { fontSize: 'inherit' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': { fontFamily: 'inherit', lineHeight: 'inherit' },
  '.cm-content': { padding: '0', caretColor: 'var(--color-ink)' },
  '.cm-line': { padding: '0' },
  '.cm-tooltip': { backgroundColor: 'var(--color-page)', border: '1px solid var(--color-rule2)', borderRadius: '6px' },
  '.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--font-sans)', fontSize: '12.5px' },
  '.cm-tooltip-autocomplete > ul > li': { padding: '4px 10px' },
  '.cm-tooltip-autocomplete > ul > li[aria-selected]': { backgroundColor: 'var(--color-blue-wash)', color: 'var(--color-ink)' },
});

/** CodeMirror as a controlled field. A value from outside changes only what differs, so that the cursor stays. */
export function CodeField({ value, onChange, extensions, autoFocus = false, className = '', onReady }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef({ value, onChange, extensions, onReady, autoFocus });
  const configuration = useRef(new Compartment());
  useEffect(() => {
    latest.current = { value, onChange, extensions, onReady, autoFocus };
  });

  useEffect(() => {
    if (host.current === null) return undefined;
    const { current } = latest;
    const listener = EditorView.updateListener.of((update) => {
      const ours = update.transactions.some((t) => t.annotation(FromOutside) === true);
      if (update.docChanged && !ours) latest.current.onChange(update.state.doc.toString());
    });
    const made = new EditorView({
      parent: host.current,
      state: EditorState.create({ doc: current.value, selection: { anchor: current.value.length }, extensions: [LOOK, listener, configuration.current.of([...current.extensions])] }),
    });
    view.current = made;
    if (current.autoFocus) made.focus();
    current.onReady?.(made);
    return () => {
      made.destroy();
      view.current = null;
    };
  }, []);

  useEffect(() => {
    view.current?.dispatch({ effects: configuration.current.reconfigure([...extensions]) });
  }, [extensions]);

  useEffect(() => {
    const editor = view.current;
    if (editor === null) return;
    const change = smallestChange(editor.state.doc.toString(), value);
    if (change !== null) editor.dispatch({ changes: change, annotations: FromOutside.of(true) });
  }, [value]);

  return <div ref={host} className={className} />;
}

/** The one stretch that differs; null when nothing does. */
function smallestChange(from: string, to: string): { from: number; to: number; insert: string } | null {
  if (from === to) return null;
  let start = 0;
  while (start < from.length && start < to.length && from[start] === to[start]) start += 1;
  let end = 0;
  while (end < from.length - start && end < to.length - start && from[from.length - 1 - end] === to[to.length - 1 - end]) end += 1;
  return { from: start, to: from.length - end, insert: to.slice(start, to.length - end) };
}
