import type { OwnKinds } from '@caderno/core/scenarios';
import { defaultKeymap } from '@codemirror/commands';
import { EditorState, type Extension } from '@codemirror/state';
import { EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view';
import { useEffect, useMemo, useState } from 'react';
import { CodeField } from '../../editor/index.ts';
import { colours, gherkinLook } from './colours.ts';
import { folding } from './folding.ts';
import { problems } from './problems.ts';
import { readField } from './readField.ts';
import { writing } from './writing.ts';

/** A line that the editor is asked to show, from 0; a new object asks again. */
export interface ShownLine {
  readonly line: number;
  readonly focus: boolean;
}

interface Props {
  readonly text: string;
  readonly readOnly: boolean;
  readonly onChange: (text: string) => void;
  readonly show: ShownLine | null;
  /** Where the cursor is, from 0; must be stable. */
  readonly onLine: (line: number) => void;
  /** Kinds of values of the project; must be stable. */
  readonly own: OwnKinds;
  /** What is offered while writing; must be stable. */
  readonly offers: Extension;
}

/** A feature as text. Ctrl Z and the keys of the page are the page's; Tab leads on, as everywhere. */
export function FeatureEditor({ text, readOnly, onChange, show, onLine, own, offers }: Props) {
  const [view, setView] = useState<EditorView | null>(null);
  const extensions = useMemo<readonly Extension[]>(
    () => [
      // Only line feeds part lines here: a carriage return within one is of the line.
      EditorState.lineSeparator.of('\n'),
      readField,
      lineNumbers(),
      folding(),
      highlightActiveLine(),
      EditorView.lineWrapping,
      colours(own),
      gherkinLook,
      problems(),
      EditorView.contentAttributes.of({ 'aria-label': 'Text of the feature', spellcheck: 'false' }),
      EditorView.updateListener.of((update) => {
        if (update.selectionSet || update.docChanged) onLine(update.state.doc.lineAt(update.state.selection.main.head).number - 1);
      }),
      ...(readOnly ? [EditorState.readOnly.of(true)] : [offers, writing()]),
      keymap.of(defaultKeymap.filter((binding) => binding.key !== 'Mod-Enter' && binding.key !== 'Alt-ArrowUp' && binding.key !== 'Alt-ArrowDown')),
    ],
    [offers, onLine, own, readOnly],
  );
  useEffect(() => {
    if (view === null || show === null || show.line >= view.state.doc.lines) return;
    const line = view.state.doc.line(show.line + 1);
    view.dispatch({ selection: { anchor: line.to }, effects: EditorView.scrollIntoView(line.from, { y: 'start', yMargin: 60 }) });
    if (show.focus) view.focus();
  }, [show, view]);
  return <CodeField afterFrame value={text} onChange={onChange} extensions={extensions} onReady={setView} className="min-h-40" />;
}
