import { defaultKeymap } from '@codemirror/commands';
import { markdown } from '@codemirror/lang-markdown';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { EditorView, keymap } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useMemo } from 'react';
import type { WordingMark } from '@caderno/core/basis';
import { CodeField } from '../editor/index.ts';
import { editorMarks } from './wording/editorMarks.ts';

const MARKS = HighlightStyle.define([
  { tag: tags.heading, fontWeight: '600' },
  { tag: tags.strong, fontWeight: '600' },
  { tag: tags.emphasis, fontStyle: 'italic' },
  { tag: [tags.processingInstruction, tags.contentSeparator], color: 'var(--color-ink3)' },
  { tag: tags.monospace, fontFamily: 'var(--font-mono)', fontSize: '0.9em' },
]);

interface Props {
  readonly value: string;
  readonly marks: readonly WordingMark[];
  readonly onChange: (value: string) => void;
  readonly onLeave: () => void;
}

/** The source of a text, written as Markdown. Escape goes back to reading. */
export function MarkdownEditor({ value, marks, onChange, onLeave }: Props) {
  const extensions = useMemo(
    () => [
      markdown(),
      syntaxHighlighting(MARKS),
      EditorView.lineWrapping,
      keymap.of([{ key: 'Escape', run: () => (onLeave(), true) }, ...defaultKeymap]),
      editorMarks(marks),
      EditorView.contentAttributes.of({ 'aria-label': 'Text of the requirement, in Markdown' }),
    ],
    [marks, onLeave],
  );
  return <CodeField value={value} onChange={onChange} extensions={extensions} autoFocus className="min-h-40 rounded-field border border-rule2 bg-page px-3 py-2 font-serif text-read leading-7 focus-within:border-blue" />;
}
