import { useEffect, useId, useLayoutEffect, useRef, useState } from 'react';
import { Button } from '../look/index.ts';
import { MarkdownText } from './MarkdownText.tsx';
import { markSource, markedSource, type SourceStretch } from './markedSource.ts';
import type { TextSpan } from './markSpans.ts';
import { useGlossary } from './useGlossary.ts';

interface Props {
  readonly text: string;
  readonly spans: readonly TextSpan[];
  /** What can be made of words that one marks, the usual first; none for readers. `start` and `end` are places in the source. */
  readonly marks: readonly { readonly label: string; readonly run: (start: number, end: number) => void }[];
  /** Clicking spans is a shortcut only: a list does the same by keyboard. */
  readonly onSpans?: (ids: readonly string[]) => void;
}

interface Marked extends SourceStretch {
  readonly left: number;
  readonly top: number;
}

/**
 * A text with spans of its source marked, in which words can be marked to make something of them: with the mouse, or
 * with the arrows, Shift for more of them; Enter makes the first thing offered, Tab leads to the others.
 */
export function MarkableText({ text, spans, marks, onSpans }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const hint = useId();
  const [marked, setMarked] = useState<Marked | null>(null);
  const markable = marks.length > 0;
  const glossary = useGlossary();
  const kept = useRef<{ readonly of: string; readonly stretch: SourceStretch } | null>(null);
  useEffect(() => {
    if (!markable) return undefined;
    const look = (): void => {
      const now = box.current === null ? null : markedIn(box.current, text);
      kept.current = now === null ? null : { of: text, stretch: now };
      setMarked(now);
    };
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, [markable, text]);
  // Spans and terms may come while somebody marks words: the pieces of text are made anew then, and the browser would forget what was marked.
  useLayoutEffect(() => {
    if (box.current !== null && kept.current?.of === text && markedSource(box.current, text) === null) markSource(box.current, kept.current.stretch);
  }, [spans, glossary, text]);
  const open = (event: React.MouseEvent): void => {
    if (window.getSelection()?.isCollapsed === false) return;
    onSpans?.((event.target as HTMLElement).closest<HTMLElement>('[data-spans]')?.dataset.spans?.split(' ') ?? []);
  };
  // Read at the moment of the key: the browser tells of what is marked only afterwards, and quick fingers are faster.
  const make = (run: (start: number, end: number) => void): boolean => {
    const now = box.current === null ? null : markedSource(box.current, text);
    if (now === null) return false;
    run(now.start, now.end);
    window.getSelection()?.removeAllRanges();
    return true;
  };
  const takesKey = (home: HTMLElement, key: string, extend: boolean): boolean => {
    if (key === 'Enter') return marks[0] !== undefined && make(marks[0].run);
    if (key !== 'Escape') return markByKey(home, key, extend);
    if (markedSource(home, text) === null) return false;
    window.getSelection()?.removeAllRanges();
    return true;
  };
  const keyDown = (event: React.KeyboardEvent<HTMLDivElement>): void => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    if (takesKey(event.currentTarget, event.key, event.shiftKey)) event.preventDefault();
  };
  return (
    <div className="relative">
      <div ref={box} onClick={open} className="rounded-[3px]" {...(markable ? { tabIndex: 0, role: 'group', 'aria-label': 'Text to mark words in', 'aria-describedby': hint, onKeyDown: keyDown } : {})}>
        <MarkdownText text={text} spans={spans} />
      </div>
      {markable && (
        <p id={hint} className="sr-only">
          Arrows mark a word, with Shift more of them; Enter: {marks[0]?.label}.
        </p>
      )}
      {marked !== null && (
        <div className="absolute z-20 flex gap-1" style={{ left: marked.left, top: marked.top }}>
          {marks.map(({ label, run }, i) => (
            <Button key={label} {...(i === 0 ? { look: 'accent' } : {})} onMouseDown={(event) => event.preventDefault()} onClick={() => make(run)}>
              {label}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}

const WAY: Readonly<Record<string, readonly ['forward' | 'backward', 'word' | 'line']>> = { ArrowRight: ['forward', 'word'], ArrowLeft: ['backward', 'word'], ArrowDown: ['forward', 'line'], ArrowUp: ['backward', 'line'] };

/** Marks the next word or line, or adds it to what is marked. */
function markByKey(box: HTMLElement, key: string, extend: boolean): boolean {
  const way = WAY[key];
  const selection = window.getSelection();
  if (way === undefined || selection === null) return false;
  const [direction, unit] = way;
  if (selection.anchorNode === null || !box.contains(selection.anchorNode)) selection.collapse(box, 0);
  else if (!extend && direction === 'forward') selection.collapseToEnd();
  else if (!extend) selection.collapseToStart();
  selection.modify('extend', direction, unit);
  return true;
}

function markedIn(box: HTMLElement, text: string): Marked | null {
  const stretch = markedSource(box, text);
  const selection = window.getSelection();
  if (stretch === null || selection === null || selection.rangeCount === 0) return null;
  const rect = selection.getRangeAt(0).getBoundingClientRect();
  const home = box.getBoundingClientRect();
  return { ...stretch, left: Math.max(0, Math.min(rect.left - home.left, home.width - 290)), top: rect.bottom - home.top + 6 };
}
