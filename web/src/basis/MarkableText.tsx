import { useEffect, useRef, useState } from 'react';
import { Button } from '../look/index.ts';
import { MarkdownText } from './MarkdownText.tsx';
import { markedSource } from './markedSource.ts';
import type { TextSpan } from './markSpans.ts';

interface Props {
  readonly text: string;
  readonly spans: readonly TextSpan[];
  /** What can be made of words that one marks; absent for readers. `start` and `end` are places in the source. */
  readonly mark?: { readonly label: string; readonly run: (start: number, end: number) => void };
  /** Clicking spans is a shortcut only: a list does the same by keyboard. */
  readonly onSpans?: (ids: readonly string[]) => void;
}

interface Marked {
  readonly start: number;
  readonly end: number;
  readonly left: number;
  readonly top: number;
}

/** A text with spans of its source marked, in which words can be marked to make something of them. */
export function MarkableText({ text, spans, mark, onSpans }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [marked, setMarked] = useState<Marked | null>(null);
  const markable = mark !== undefined;
  useEffect(() => {
    if (!markable) return undefined;
    const look = (): void => setMarked(box.current === null ? null : markedIn(box.current, text));
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, [markable, text]);
  const open = (event: React.MouseEvent): void => {
    if (window.getSelection()?.isCollapsed === false) return;
    onSpans?.((event.target as HTMLElement).closest<HTMLElement>('[data-spans]')?.dataset.spans?.split(' ') ?? []);
  };
  return (
    <div className="relative">
      <div ref={box} onClick={open}>
        <MarkdownText text={text} spans={spans} />
      </div>
      {marked !== null && mark !== undefined && (
        <div className="absolute z-20" style={{ left: marked.left, top: marked.top }}>
          <Button
            look="accent"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => {
              mark.run(marked.start, marked.end);
              window.getSelection()?.removeAllRanges();
            }}
          >
            {mark.label}
          </Button>
        </div>
      )}
    </div>
  );
}

function markedIn(box: HTMLElement, text: string): Marked | null {
  const stretch = markedSource(box, text);
  const selection = window.getSelection();
  if (stretch === null || selection === null || selection.rangeCount === 0) return null;
  const rect = selection.getRangeAt(0).getBoundingClientRect();
  const home = box.getBoundingClientRect();
  return { ...stretch, left: Math.max(0, Math.min(rect.left - home.left, home.width - 190)), top: rect.bottom - home.top + 6 };
}
