import { NO_OWN_KINDS, takenApart, type OwnKinds, type LineRole, type ReadLine } from '@caderno/core/scenarios';
import { Prec, RangeSetBuilder, type Extension } from '@codemirror/state';
import { Decoration, EditorView, ViewPlugin, type DecorationSet, type ViewUpdate } from '@codemirror/view';
import { readField } from './readField.ts';

const mark = (name: string): Decoration => Decoration.mark({ class: `feature-${name}` });
const [KEYWORD, STEP, TAGS, COMMENT, NAME, TEXT, BAR, CELL, VALUE, PLACEHOLDER, DOC] = ['keyword', 'step', 'tags', 'comment', 'name', 'text', 'bar', 'cell', 'value', 'placeholder', 'doc'].map(mark) as [Decoration, Decoration, Decoration, Decoration, Decoration, Decoration, Decoration, Decoration, Decoration, Decoration, Decoration];

/** A row of a table is never broken: it scrolls. */
const ROW = Decoration.line({ class: 'feature-row' });

/** Lines whose whole text is of one look. */
const WHOLE: Partial<Record<LineRole, Decoration>> = { comment: COMMENT, language: COMMENT, docString: DOC, docStringEdge: DOC, description: TEXT };

/** Colours for what each line is: keywords, names, values, parameters, tags, tables. Only what is in view is drawn. */
export function colours(own: OwnKinds = NO_OWN_KINDS): Extension {
  return ViewPlugin.fromClass(
    class {
      decorations: DecorationSet;

      constructor(view: EditorView) {
        this.decorations = decorated(view, own);
      }

      update(update: ViewUpdate): void {
        if (update.docChanged || update.viewportChanged) this.decorations = decorated(update.view, own);
      }
    },
    { decorations: (plugin) => plugin.decorations },
  );
}

function decorated(view: EditorView, own: OwnKinds): DecorationSet {
  const builder = new RangeSetBuilder<Decoration>();
  const { lines } = view.state.field(readField);
  for (const { from, to } of view.visibleRanges) {
    for (let at = from; at <= to; ) {
      const line = view.state.doc.lineAt(at);
      const read = lines[line.number - 1];
      if (read?.role === 'tableRow') builder.add(line.from, line.from, ROW);
      if (read !== undefined) for (const { start, end, look } of marksOf(line.text, read, own)) if (end > start) builder.add(line.from + start, line.from + end, look);
      at = line.to + 1;
    }
  }
  return builder.finish();
}

interface Marked {
  readonly start: number;
  readonly end: number;
  readonly look: Decoration;
}

function marksOf(text: string, read: ReadLine, own: OwnKinds): Marked[] {
  const whole = WHOLE[read.role];
  if (whole !== undefined) return [{ start: 0, end: text.length, look: whole }];
  if (read.role === 'tags') return [...text.matchAll(/@\S+|#.*$/g)].map(({ 0: found, index }) => ({ start: index, end: index + found.length, look: found.startsWith('@') ? TAGS : COMMENT }));
  if (read.role === 'tableRow') return cellMarks(text);
  if (read.keyword === '') return [];
  const start = text.length - text.trimStart().length;
  const end = start + read.keyword.length + (read.role === 'step' ? 0 : 1);
  const rest = text.length - text.slice(end).trimStart().length;
  if (read.role === 'step') return [{ start, end, look: STEP }, ...valueMarks(text, rest, own)];
  return [{ start, end, look: KEYWORD }, { start: rest, end: text.length, look: NAME }];
}

function valueMarks(text: string, from: number, own: OwnKinds): Marked[] {
  return takenApart(text.slice(from), own).values.map(({ kind, text: value, at }) => ({ start: from + at, end: from + at + value.length, look: kind === 'placeholder' ? PLACEHOLDER : VALUE }));
}

function cellMarks(text: string): Marked[] {
  const first = text.indexOf('|');
  return [...text.slice(first).matchAll(/\||(?:[^|\\]|\\.)+/g)].map(({ 0: found, index }) => ({ start: first + index, end: first + index + found.length, look: found === '|' ? BAR : CELL }));
}

/** The look of the marks, in the colours of the notebook by day and by night. */
export const gherkinLook = Prec.high(EditorView.theme({
  '.cm-scroller': { fontFamily: 'var(--font-mono)', fontSize: '12.5px', lineHeight: '22px' },
  '.cm-gutters': { backgroundColor: 'transparent', color: 'var(--color-ink2)', border: 'none', fontSize: '11px' },
  '.cm-lineNumbers .cm-gutterElement': { padding: '0 10px 0 0', minWidth: '28px' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'transparent' },
  '&.cm-focused .cm-activeLine, &.cm-focused .cm-activeLineGutter': { backgroundColor: 'var(--color-page2)' },
  '.cm-foldPlaceholder': { backgroundColor: 'var(--color-page2)', border: '1px solid var(--color-rule2)', color: 'var(--color-ink2)', padding: '0 6px' },
  '.feature-keyword, .feature-step': { color: 'var(--color-blue)', fontWeight: '700' },
  '.feature-name': { fontWeight: '600' },
  '.feature-tags': { color: 'var(--color-plum)' },
  '.feature-comment': { color: 'var(--color-ink2)', fontStyle: 'italic' },
  '.feature-text': { color: 'var(--color-ink2)', fontFamily: 'var(--font-sans)' },
  '.cm-line.feature-row': { whiteSpace: 'pre' },
  '.feature-bar': { color: 'var(--color-ink3)' },
  '.feature-doc': { color: 'var(--color-pine)' },
  '.feature-value': { textDecoration: 'underline dotted var(--color-ink3)', textUnderlineOffset: '3px' },
  '.feature-placeholder': { backgroundColor: 'var(--color-marker)', borderRadius: '3px', padding: '1px 2px' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--font-sans)', fontSize: '12.5px', minWidth: '340px', maxHeight: '19em' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li': { display: 'flex', gap: '18px', padding: '4px 10px', lineHeight: '1.4' },
  '.cm-completionLabel': { flex: '1', overflow: 'hidden', textOverflow: 'ellipsis' },
  '.cm-completionDetail': { fontStyle: 'normal', color: 'var(--color-ink2)', margin: '0' },
  '.cm-completionMatchedText': { textDecoration: 'none', fontWeight: '600' },
  '.cm-snippetField': { backgroundColor: 'var(--color-marker-wash)', borderRadius: '3px' },
  '.cm-lintRange-error': { backgroundImage: 'none', textDecoration: 'underline wavy var(--color-brick)', textUnderlineOffset: '3px' },
  '.cm-tooltip-lint': { fontFamily: 'var(--font-sans)', fontSize: '12.5px', maxWidth: '420px' },
  '.cm-diagnostic': { borderLeft: '3px solid var(--color-brick)', padding: '6px 10px' },
}));
