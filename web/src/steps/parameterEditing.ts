import { acceptCompletion, type Completion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { EditorState, RangeSetBuilder, type Extension } from '@codemirror/state';
import { Decoration, EditorView, ViewPlugin, WidgetType, keymap, placeholder, type DecorationSet, type ViewUpdate } from '@codemirror/view';
import type { Constants } from '@caderno/core/shared';
import { isParameterName, parseParameterText, type BoundValue, type Parameter, type ParameterId } from '@caderno/core/cases';
import { offering } from '../editor/index.ts';
import { boundValueText } from './boundValueText.ts';

export interface ParameterContext {
  readonly parameters: readonly Parameter[];
  /** Values of the chosen row; null: none is chosen. */
  readonly values: ReadonlyMap<ParameterId, BoundValue> | null;
  /** The project's constants, which any text may use. */
  readonly constants: Constants;
  readonly onCreate: (name: string, like?: Parameter) => void;
}

/** Parameters in a text: marked, completed after `<`, with their values beside them when a row is chosen. */
export function parameterText(context: ParameterContext): Extension {
  return [
    marks(context),
    offering(completions(context)),
    keymap.of([{ key: 'Tab', run: acceptCompletion }]),
    EditorView.lineWrapping,
  ];
}

/** Keeps a text on one line: what is typed or pasted into it loses its line breaks. */
export const ONE_LINE: Extension = EditorState.transactionFilter.of((transaction) => {
  if (!transaction.docChanged || transaction.newDoc.lines === 1) return transaction;
  const text = transaction.newDoc.toString().replaceAll(/\s*\n\s*/g, ' ');
  return [{ changes: { from: 0, to: transaction.startState.doc.length, insert: text }, selection: { anchor: text.length } }];
});

export function hint(text: string): Extension {
  return placeholder(text);
}

function completions({ parameters, constants, onCreate }: ParameterContext) {
  return (at: CompletionContext): CompletionResult | null => {
    const open = at.matchBefore(/<[^<>\n]*$/);
    if (open === null) return null;
    const typed = open.text.slice(1).trim();
    const put = (name: string) => (view: EditorView, _: Completion, from: number, to: number): void => {
      const closed = view.state.sliceDoc(to, to + 1) === '>' ? to + 1 : to;
      view.dispatch({ changes: { from, to: closed, insert: `<${name}>` }, selection: { anchor: from + name.length + 2 } });
    };
    const known = parameters
      .filter((p) => p.name.toLowerCase().includes(typed.toLowerCase()))
      .map((p): Completion => ({ label: `<${p.name}>`, detail: p.description || p.default, apply: put(p.name) }));
    const everywhere = [...constants].filter(([name]) => name.toLowerCase().includes(typed.toLowerCase()) && !parameters.some((p) => p.name === name)).map(([name, value]): Completion => ({ label: `<${name}>`, detail: `constant, ${value}`, apply: put(name) }));
    const isNew = isParameterName(typed) && !constants.has(typed) && !parameters.some((p) => p.name === typed);
    const made: Completion[] = isNew
      ? [
          {
            label: `<${typed}>`,
            detail: 'new parameter',
            apply: (view, completion, from, to) => {
              onCreate(typed);
              put(typed)(view, completion, from, to);
            },
          },
        ]
      : [];
    return { from: open.from, options: [...known, ...everywhere, ...made], filter: false };
  };
}

function marks(context: ParameterContext): Extension {
  const build = (view: EditorView): DecorationSet => {
    const builder = new RangeSetBuilder<Decoration>();
    for (const part of parseParameterText(view.state.doc.toString())) {
      if (part.kind !== 'parameter') continue;
      const parameter = context.parameters.find((p) => p.name === part.name);
      builder.add(part.from, part.to, Decoration.mark({ class: parameter === undefined && !context.constants.has(part.name) ? 'cad-parameter cad-undeclared' : 'cad-parameter' }));
      const constant = parameter === undefined ? context.constants.get(part.name) : undefined;
      const value: BoundValue | undefined = constant !== undefined ? { kind: 'value', text: constant, from: 'default' } : parameter === undefined ? undefined : context.values?.get(parameter.id);
      if (value !== undefined) builder.add(part.to, part.to, Decoration.widget({ widget: new ValueWidget(boundValueText(value)), side: 1 }));
    }
    return builder.finish();
  };
  return ViewPlugin.fromClass(
    class {
      decorations: DecorationSet;
      constructor(view: EditorView) {
        this.decorations = build(view);
      }
      update(update: ViewUpdate): void {
        if (update.docChanged) this.decorations = build(update.view);
      }
    },
    { decorations: (plugin) => plugin.decorations },
  );
}

class ValueWidget extends WidgetType {
  readonly text: string;
  constructor(text: string) {
    super();
    this.text = text;
  }
  override eq(other: ValueWidget): boolean {
    return other.text === this.text;
  }
  toDOM(): HTMLElement {
    const element = document.createElement('span');
    element.className = 'cad-value';
    element.textContent = this.text;
    return element;
  }
}
