import type { RequirementContent, WordingMark } from '@caderno/core/basis';
import { Pencil } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Button, Section, TextButton } from '../look/index.ts';
import { MarkdownEditor } from './MarkdownEditor.tsx';
import { MarkdownText } from './MarkdownText.tsx';
import { markedSource } from './markedSource.ts';
import type { TextSpan } from './markSpans.ts';
import { RULE_WORD } from './wording/wordingWords.ts';

interface Props {
  readonly content: RequirementContent;
  readonly marks: readonly WordingMark[];
  readonly canEdit: boolean;
  readonly onText: (text: string) => void;
  /** Raises a question about a stretch of the text. */
  readonly onAsk: (start: number, end: number) => void;
  /** Absent while there is a draft: it would be left behind. */
  readonly onSplit?: () => void;
  readonly onMerge?: () => void;
}

/** The text to read, with what is weak underlined; marking words offers to ask about them. */
export function RequirementText({ content, marks, canEdit, onText, onAsk, onSplit, onMerge }: Props) {
  const [writing, setWriting] = useState(false);
  const read = useCallback(() => setWriting(false), []);
  const spans = useMemo(() => marks.map((m): TextSpan => ({ id: `${m.rule}-${m.start}`, start: m.start, end: m.end, className: 'cad-weak', title: RULE_WORD[m.rule] })), [marks]);
  const actions = canEdit && (
    <>
      {onSplit !== undefined && <TextButton onClick={onSplit}>Split</TextButton>}
      {onMerge !== undefined && <TextButton onClick={onMerge}>Merge</TextButton>}
      <TextButton onClick={() => setWriting((w) => !w)} className="inline-flex items-center gap-1 text-blue">
        <Pencil size={12} aria-hidden="true" /> {writing ? 'Read it' : 'Edit the text'}
      </TextButton>
    </>
  );
  return (
    <Section title="Text" aside={writing ? 'Markdown; Escape goes back to reading' : undefined} actions={actions}>
      <div className="mt-3">
        {writing ? (
          <MarkdownEditor value={content.text} marks={marks} onChange={onText} onLeave={read} />
        ) : content.text.trim() === '' ? (
          <p className="text-ink2">No text yet. {canEdit && <TextButton onClick={() => setWriting(true)}>Write it</TextButton>}</p>
        ) : (
          <Readable text={content.text} spans={spans} {...(canEdit ? { onAsk } : {})} />
        )}
      </div>
    </Section>
  );
}

interface Marked {
  readonly start: number;
  readonly end: number;
  readonly left: number;
  readonly top: number;
}

function Readable({ text, spans, onAsk }: { readonly text: string; readonly spans: readonly TextSpan[]; readonly onAsk?: Props['onAsk'] }) {
  const box = useRef<HTMLDivElement>(null);
  const [marked, setMarked] = useState<Marked | null>(null);
  useEffect(() => {
    if (onAsk === undefined) return undefined;
    const look = (): void => setMarked(box.current === null ? null : markedIn(box.current, text));
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, [onAsk, text]);
  return (
    <div className="relative">
      <div ref={box}>
        <MarkdownText text={text} spans={spans} />
      </div>
      {marked !== null && onAsk !== undefined && (
        <div className="absolute z-20" style={{ left: marked.left, top: marked.top }}>
          <Button look="accent" onMouseDown={(event) => event.preventDefault()} onClick={() => onAsk(marked.start, marked.end)}>
            Ask about these words
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
