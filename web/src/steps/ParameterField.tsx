import { defaultKeymap } from '@codemirror/commands';
import { EditorView, keymap } from '@codemirror/view';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { CodeField } from '../editor/index.ts';
import { ParameterView } from './ParameterView.tsx';
import { ONE_LINE, hint, parameterText, type ParameterContext } from './parameterEditing.ts';

/** What the keys that leave a line mean to whoever holds the lines. Each answers whether it was taken. */
export interface LineKeys {
  readonly onEnter?: () => boolean;
  readonly onTab?: () => boolean;
  readonly onShiftTab?: () => boolean;
  readonly onMove?: (direction: -1 | 1) => boolean;
  readonly onLeave?: (direction: -1 | 1) => boolean;
  readonly onBackspaceEmpty?: () => boolean;
  /** Something was pasted that may be more than a text. */
  readonly onPasteLines?: (data: DataTransfer) => boolean;
  /** A slash in an empty line. */
  readonly onSlash?: () => boolean;
}

interface Props extends LineKeys {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly context: ParameterContext;
  readonly readOnly: boolean;
  readonly placeholder?: string;
  readonly oneLine?: boolean;
  /** A number that grows when the field is to be focused. */
  readonly focusTurn?: number;
  /** It is then only pointed at, not written in. */
  readonly rests?: boolean;
  readonly className?: string;
  readonly lead?: ReactNode;
}

/**
 * A text with parameters. It is plain text until one goes into it, and an editor while one is in it, so that a case
 * of many steps opens quickly. Escape ends the writing and leaves the focus on the text; Enter or a letter goes on.
 */
export function ParameterField(props: Props) {
  const { label, value, context, readOnly, placeholder = '', focusTurn = 0, rests = false, className = '' } = props;
  const [mode, setMode] = useState<'idle' | 'writing' | 'resting'>('idle');
  const pressedRef = useRef<{ x: number; y: number } | null>(null);
  const text = useRef<HTMLDivElement>(null);
  const [seenTurn, setSeenTurn] = useState(0);
  if (focusTurn !== seenTurn) {
    setSeenTurn(focusTurn);
    if (focusTurn > 0 && !readOnly) setMode(rests ? 'resting' : 'writing');
  }
  useEffect(() => {
    if (mode === 'resting') text.current?.focus();
  }, [focusTurn, mode]);
  if (mode === 'writing') return <ActiveField {...props} pressedRef={pressedRef} onDone={() => setMode((now) => (now === 'writing' ? 'idle' : now))} onRest={() => setMode('resting')} />;
  const write = (): void => {
    if (!readOnly) setMode('writing');
  };
  return (
    <div
      ref={text}
      role={readOnly ? undefined : 'textbox'}
      aria-label={readOnly ? undefined : label}
      tabIndex={readOnly ? undefined : 0}
      data-resting={mode === 'resting' || undefined}
      className={`min-h-6 whitespace-pre-wrap leading-6 break-words rounded-[3px] ${readOnly ? '' : 'cursor-text'} ${className}`}
      onMouseDown={(event) => {
        pressedRef.current = { x: event.clientX, y: event.clientY };
      }}
      onClick={write}
      onFocus={() => mode === 'idle' && write()}
      onBlur={() => setMode((now) => (now === 'resting' ? 'idle' : now))}
      onKeyDown={(event) => {
        const begins = event.key === 'Enter' || event.key === 'F2' || (event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey);
        if (!begins) return;
        // The letter itself is typed into the editor, which has the focus by then.
        if (event.key.length > 1) event.preventDefault();
        write();
      }}
    >
      {value === '' ? <span data-screen-only className="text-ink2">{readOnly ? '' : placeholder}</span> : <ParameterView text={value} parameters={context.parameters} values={context.values} constants={context.constants} />}
    </div>
  );
}

interface ActiveProps extends Props {
  /** Where the mouse was pressed: there the cursor goes. */
  readonly pressedRef: React.RefObject<{ x: number; y: number } | null>;
  readonly onDone: () => void;
  readonly onRest: () => void;
}

function ActiveField({ label, value, onChange, context, placeholder = '', oneLine = false, className = '', pressedRef, onDone, onRest, ...keys }: ActiveProps) {
  const latest = useRef({ keys, onDone, onRest, context });
  useEffect(() => {
    latest.current = { keys, onDone, onRest, context };
  });
  const { parameters, values, constants } = context;
  /* oxlint-disable react/refs -- these functions run on key presses and events, never during render */
  const extensions = useMemo(() => {
    const key = (name: keyof LineKeys, ...args: never[]) => (): boolean => (latest.current.keys[name] as ((...a: never[]) => boolean) | undefined)?.(...args) ?? false;
    const atEdge = (direction: -1 | 1) => (view: EditorView): boolean => {
      const { main } = view.state.selection;
      const moved = view.moveVertically(main, direction === 1);
      const leaves = main.empty && (moved.head === main.head || (moved.head === (direction === 1 ? view.state.doc.length : 0)));
      return leaves && (latest.current.keys.onLeave?.(direction) ?? false);
    };
    const lineKeys = keymap.of([
      { key: 'Enter', run: key('onEnter') },
      { key: 'Tab', run: key('onTab'), shift: key('onShiftTab') },
      { key: 'Alt-ArrowUp', run: () => latest.current.keys.onMove?.(-1) ?? false },
      { key: 'Alt-ArrowDown', run: () => latest.current.keys.onMove?.(1) ?? false },
      { key: 'ArrowUp', run: atEdge(-1) },
      { key: 'ArrowDown', run: atEdge(1) },
      { key: 'Backspace', run: (view) => view.state.doc.length === 0 && (latest.current.keys.onBackspaceEmpty?.() ?? false) },
      { key: '/', run: (view) => view.state.doc.length === 0 && (latest.current.keys.onSlash?.() ?? false) },
      {
        key: 'Escape',
        run: () => {
          latest.current.onRest();
          return true;
        },
      },
    ]);
    const events = EditorView.domEventHandlers({
      blur: (_, view) => {
        // Completion lists take the focus for a moment, and an editor that is taken down loses it: neither ends the editing.
        setTimeout(() => {
          if (!view.hasFocus && view.dom.isConnected) latest.current.onDone();
        });
      },
      paste: (event) => {
        const taken = event.clipboardData !== null && (latest.current.keys.onPasteLines?.(event.clipboardData) ?? false);
        if (taken) event.preventDefault();
        return taken;
      },
    });
    return [
      parameterText({ parameters, values, constants, onCreate: (name) => latest.current.context.onCreate(name) }),
      lineKeys,
      keymap.of(defaultKeymap),
      events,
      hint(placeholder),
      EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'true' }),
      ...(oneLine ? [ONE_LINE] : []),
    ];
  }, [constants, label, oneLine, parameters, placeholder, values]);
  /* eslint-enable react-hooks/refs */
  const ready = (view: EditorView): void => {
    view.focus();
    const where = pressedRef.current;
    const position = where === null ? null : view.posAtCoords(where);
    if (position !== null) view.dispatch({ selection: { anchor: position } });
    pressedRef.current = null;
  };
  return <CodeField value={value} onChange={onChange} extensions={extensions} onReady={ready} className={`min-h-6 break-words leading-6 ${className}`} />;
}
