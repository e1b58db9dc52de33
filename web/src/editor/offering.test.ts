/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { acceptCompletion, currentCompletions, type CompletionContext } from '@codemirror/autocomplete';
import { Compartment, EditorState } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { setTimeout as sleep } from 'node:timers/promises';
import { offering } from './offering.ts';

let view: EditorView | null = null;
afterEach(() => view?.destroy());

const beginning = (words: readonly string[]) => (at: CompletionContext) => {
  const typed = at.matchBefore(/\w+$/);
  const options = words.filter((word) => typed !== null && word.startsWith(typed.text)).map((label) => ({ label }));
  return typed === null || options.length === 0 ? null : { from: typed.from, options, filter: false };
};
const others = new Compartment();
/** An editor that offers words, and has offered those that begin with `typed`. */
async function written(typed: string, words: readonly string[]): Promise<EditorView> {
  view = new EditorView({ parent: document.body, state: EditorState.create({ extensions: others.of(offering(beginning(words))) }) });
  type(view, typed);
  for (let i = 0; i < 100 && labels(view).length === 0; i += 1) await sleep(10);
  // A word is not taken by a key that was on its way when it came up.
  await sleep(100);
  return view;
}
function type(into: EditorView, text: string): void {
  const at = into.state.selection.main.head;
  into.dispatch({ changes: { from: at, insert: text }, selection: { anchor: at + text.length }, userEvent: 'input.type' });
}
const labels = ({ state }: EditorView) => currentCompletions(state).map((o) => o.label);

test('what is offered is brought up with each key, and taken at once', async () => {
  const editor = await written('f', ['first', 'factor', 'field']);
  expect(labels(editor)).toEqual(['first', 'factor', 'field']);
  type(editor, 'i');
  expect(labels(editor)).toEqual(['first', 'field']);
  type(editor, 'r');
  expect([labels(editor), acceptCompletion(editor), editor.state.doc.toString()]).toEqual([['first'], true, 'first']);
});

test('what is shown stays when the field learns of others, and can be taken; the next key knows them', async () => {
  const editor = await written('f', ['first', 'factor']);
  const learn = (words: readonly string[]) => editor.dispatch({ effects: others.reconfigure(offering(beginning(words))) });
  learn(['first', 'firm', 'factor']);
  expect(labels(editor)).toEqual(['first', 'factor']);
  type(editor, 'i');
  expect(labels(editor)).toEqual(['first', 'firm']);
  learn(['first', 'firm']);
  expect([acceptCompletion(editor), editor.state.doc.toString()]).toEqual([true, 'first']);
});
