import { aligned, tablesIn, type LineRole } from '@caderno/core/scenarios';
import type { EditorState, Extension, TransactionSpec } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import { readField } from './readField.ts';

/** What follows such a line is set in further. */
const OPENS: ReadonlySet<LineRole> = new Set(['feature', 'rule', 'background', 'scenario', 'examples', 'step']);
const BELOW: Partial<Record<LineRole, number>> = { feature: 2, rule: 2, background: 2, scenario: 2, examples: 2, step: 0 };

/** Keys while one writes: Enter sets the next line in, a bar in a table aligns it. */
export function writing(): Extension {
  return [keymap.of([{ key: 'Enter', run: newLine }]), barAligns()];
}

export function newLine(view: EditorView): boolean {
  if (view.state.readOnly) return false;
  const { state } = view;
  const { from, to } = state.selection.main;
  const line = state.doc.lineAt(from);
  const role = state.field(readField).lines[line.number - 1]?.role ?? 'blank';
  const indent = /^\s*/.exec(line.text)?.[0].slice(0, from - line.from) ?? '';
  const deeper = OPENS.has(role) && from - line.from > indent.length ? ' '.repeat(BELOW[role] ?? 0) : '';
  const insert = `\n${indent}${deeper}`;
  view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length }, scrollIntoView: true, userEvent: 'input' });
  return true;
}

/** A bar that ends a cell brings all bars of the table below each other; the cursor stays behind the bar that was typed. */
function barAligns(): Extension {
  return EditorView.inputHandler.of((view, from, to, typed) => {
    if (typed !== '|' || from !== to || view.state.readOnly) return false;
    const line = view.state.doc.lineAt(from);
    if (!/^\s*\|/.test(line.text)) return false;
    const written = view.state.update({ changes: { from, insert: '|' }, selection: { anchor: from + 1 }, userEvent: 'input.type' });
    view.dispatch(written, ...alignment(written.state, from + 1));
    return true;
  });
}

function alignment(state: EditorState, cursor: number): TransactionSpec[] {
  const at = state.doc.lineAt(cursor).number - 1;
  const table = tablesIn(state.field(readField).lines).find(([from, to]) => at >= from && at < to);
  if (table === undefined) return [];
  const [first, last] = [state.doc.line(table[0] + 1), state.doc.line(table[1])];
  const rows = state.doc.sliceString(first.from, last.to).split('\n');
  const made = aligned(rows);
  if (made.join('\n') === rows.join('\n')) return [];
  const row = at - table[0];
  const bars = barsBefore(rows[row] ?? '', cursor - state.doc.line(at + 1).from);
  const start = first.from + made.slice(0, row).reduce((sum, r) => sum + r.length + 1, 0);
  return [{ changes: { from: first.from, to: last.to, insert: made.join('\n') }, selection: { anchor: start + behindBar(made[row] ?? '', bars) }, sequential: true, userEvent: 'input.type' }];
}

function barsBefore(row: string, until: number): number {
  return barPlaces(row).filter((place) => place < until).length;
}

function behindBar(row: string, bar: number): number {
  return (barPlaces(row)[bar - 1] ?? row.length - 1) + 1;
}

function barPlaces(row: string): number[] {
  return [...row.matchAll(/\\.|\|/g)].flatMap(({ 0: found, index }) => (found === '|' ? [index] : []));
}
