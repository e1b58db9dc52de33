import { Annotation, ChangeSet, Compartment, EditorState, Prec, type Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import { TypedText } from './typedText.ts';

interface Props {
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** Must be stable; a new list reconfigures the editor. */
  readonly extensions: readonly Extension[];
  /** For long texts: a change is told when it stands on the screen, or when something is asked of the page. */
  readonly afterFrame?: boolean;
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
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--font-sans)', fontSize: '12.5px' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li': { padding: '4px 10px' },
  '.cm-tooltip-autocomplete > ul > li[aria-selected]': { backgroundColor: 'var(--color-blue-wash)', color: 'var(--color-ink)' },
});

/** CodeMirror as a controlled field. A value from outside changes only what differs, so that the cursor stays. */
export function CodeField({ value, onChange, extensions, afterFrame = false, autoFocus = false, className = '', onReady }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const typed = useRef<TypedText | null>(null);
  const latest = useRef({ value, onChange, extensions, afterFrame, onReady, autoFocus });
  const configuration = useRef(new Compartment());
  useEffect(() => {
    latest.current = { value, onChange, extensions, afterFrame, onReady, autoFocus };
  });

  useEffect(() => {
    if (host.current === null) return undefined;
    const { current } = latest;
    const waiting = new TypedText(() => latest.current.onChange(made.state.doc.toString()));
    // Whatever is asked of the page is asked of it with what was typed.
    const tellNow = (): void => flushSync(() => waiting.tell());
    const listener = EditorView.updateListener.of((update) => {
      const ours = update.transactions.some((t) => t.annotation(FromOutside) === true);
      if (!update.docChanged || ours) return;
      if (latest.current.afterFrame) waiting.add(update);
      else latest.current.onChange(update.state.doc.toString());
    });
    const asking = EditorView.domEventHandlers({ blur: tellNow, keydown: (event) => (event.ctrlKey || event.metaKey || event.altKey ? tellNow() : undefined) });
    window.addEventListener('pagehide', tellNow, { capture: true });
    const made = new EditorView({
      parent: host.current,
      state: EditorState.create({ doc: current.value, selection: { anchor: current.value.length }, extensions: [LOOK, listener, Prec.highest(asking), configuration.current.of([...current.extensions])] }),
    });
    view.current = made;
    typed.current = waiting;
    if (current.autoFocus) made.focus();
    current.onReady?.(made);
    return () => {
      window.removeEventListener('pagehide', tellNow, { capture: true });
      waiting.tell();
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
    const known = typed.current?.known(editor.state.doc) ?? editor.state.doc;
    const change = smallestChange(known.toString(), value);
    if (change === null) return;
    const changes = ChangeSet.of(change, known.length, editor.state.lineBreak);
    editor.dispatch({ changes: typed.current?.among(changes) ?? changes, annotations: FromOutside.of(true) });
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
