import type { CompletionContext } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { EditorState, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, keymap, placeholder, type DecorationSet } from '@codemirror/view';
import { completeConstraint, readConstraint, type Factor } from '@caderno/core/conditions';
import { useMemo } from 'react';
import { CodeField, offering } from '../../editor/index.ts';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly factors: readonly Factor[];
  readonly readOnly: boolean;
  readonly autoFocus: boolean;
  readonly onChange: (text: string) => void;
}

/** One line in the language of constraints: words are offered as one types, and what cannot be read is underlined. */
export function ConstraintField({ label, value, factors, readOnly, autoFocus, onChange }: Props) {
  const extensions = useMemo<Extension[]>(() => [...fixedParts(label, readOnly), languageOf(factors)], [factors, label, readOnly]);
  return <CodeField value={value} onChange={onChange} extensions={extensions} autoFocus={autoFocus} className="min-w-0 flex-1 rounded-field border border-rule2 bg-page px-2 py-1.5 font-mono text-xs focus-within:border-blue" />;
}

function fixedParts(label: string, readOnly: boolean): Extension[] {
  return [
    history(),
    EditorState.transactionFilter.of((t) => (t.newDoc.lines > 1 ? [] : t)),
    EditorState.readOnly.of(readOnly),
    EditorView.contentAttributes.of({ 'aria-label': label }),
    placeholder('if Channel = SMS then Consent = yes'),
    keymap.of([...defaultKeymap, ...historyKeymap]),
  ];
}

const UNREADABLE = Decoration.mark({ class: 'underline decoration-wavy decoration-brick underline-offset-3' });

function languageOf(factors: readonly Factor[]): Extension {
  const marks = (state: EditorState): DecorationSet => {
    const read = readConstraint(state.doc.toString(), factors);
    if (read.kind !== 'problem' || read.problem.end <= read.problem.start) return Decoration.none;
    return Decoration.set([UNREADABLE.range(read.problem.start, Math.min(read.problem.end, state.doc.length))]);
  };
  const field = StateField.define<DecorationSet>({
    create: marks,
    update: (old, transaction) => (transaction.docChanged ? marks(transaction.state) : old),
    provide: (f) => EditorView.decorations.from(f),
  });
  return [field, offering((context) => offered(context, factors))];
}

function offered(context: CompletionContext, factors: readonly Factor[]) {
  const { from, words } = completeConstraint(context.state.sliceDoc(0, context.pos), factors);
  const typed = context.state.sliceDoc(from, context.pos);
  if (words.length === 0 || (words.includes(typed) && !context.explicit)) return null;
  return { from, options: words.map((word) => ({ label: word, apply: word.endsWith('{') ? word : `${word} ` })) };
}
