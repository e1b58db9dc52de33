/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, describe, expect, test } from '@jest/globals';
import { OwnKinds, ownKindId, takenApart, type ValueKind } from '@caderno/core/scenarios';
import { CompletionContext, currentCompletions, type Completion, type CompletionResult } from '@codemirror/autocomplete';
import { foldable } from '@codemirror/language';
import { forEachDiagnostic, forceLinting } from '@codemirror/lint';
import { EditorSelection, EditorState, type Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { pace } from '../../../../scripts/pace.mjs';
import type { ShownPhrase } from '../usePhrases.ts';
import { colours } from './colours.ts';
import { folding } from './folding.ts';
import { offered, offers, soughtOf } from './offers.ts';
import { problems } from './problems.ts';
import { readField } from './readField.ts';
import { newLine, writing } from './writing.ts';

let view: EditorView | null = null;
afterEach(() => view?.destroy());

/** An editor whose cursor stands where `|>` is written. */
function editor(marked: string, ...extensions: Extension[]): EditorView {
  const at = marked.indexOf('|>');
  const doc = marked.replace('|>', '');
  view?.destroy();
  view = new EditorView({ parent: document.body, state: EditorState.create({ doc, selection: EditorSelection.cursor(at < 0 ? doc.length : at), extensions: [readField, ...extensions] }) });
  return view;
}
/** The text with the cursor in it. */
const shown = ({ state }: EditorView): string => `${state.doc.sliceString(0, state.selection.main.head)}|>${state.doc.sliceString(state.selection.main.head)}`;
const FEATURE = 'Feature: f\n  Scenario: s\n    Given x\n';

describe('a new line', () => {
  test.each([
    ['is set in below a scenario', 'Feature: f\n  Scenario: s|>', 'Feature: f\n  Scenario: s\n    |>'],
    ['and below a feature', 'Feature: f|>', 'Feature: f\n  |>'],
    ['stays as far in below a step', `${FEATURE}    When y|>`, `${FEATURE}    When y\n    |>`],
    ['parts a line where the cursor is', 'Feature: f\n  Scenario: s\n    Given |>x', 'Feature: f\n  Scenario: s\n    Given \n    |>x'],
    ['is no deeper than the cursor', 'Feature: f\n  |>Scenario: s', 'Feature: f\n  \n  |>Scenario: s'],
  ])('%s', (_, before, after) => {
    const made = editor(before);
    expect(newLine(made)).toBe(true);
    expect(shown(made)).toBe(after);
  });

  test('is not written where nothing may be', () => {
    const made = editor('Feature: f|>', EditorState.readOnly.of(true));
    expect([newLine(made), shown(made)]).toEqual([false, 'Feature: f|>']);
  });
});

test('a bar that ends a cell brings the bars of its table below each other, and the cursor stays behind it', () => {
  const typed = (before: string): string => {
    const made = editor(before, writing());
    const { head } = made.state.selection.main;
    const handled = made.state.facet(EditorView.inputHandler).some((handle) => handle(made, head, head, '|', () => made.state.update({})));
    return handled ? shown(made) : 'as it comes';
  };
  expect(typed(`${FEATURE}      | name | n |\n      | a long name |>`)).toBe(`${FEATURE}      | name        | n |\n      | a long name ||>`);
  expect(typed(`${FEATURE}      | a\\||> b`)).toContain('| a\\| ||> b');
  expect(typed(`${FEATURE}    And a |>`)).toBe('as it comes');
});

test('what a keyword begins folds away to its last line, without what belongs to the next', () => {
  const text = 'Feature: f\n\n  Rule: r\n    Scenario: s\n      Given x\n\n    # of t\n    @t\n    Scenario Outline: t\n      Given <n>\n      Examples:\n        | n |\n\n  Rule: q\n';
  const { state } = editor(text, folding());
  const folds = (words: string): string | null => {
    const line = state.doc.lineAt(text.indexOf(words));
    const range = foldable(state, line.from, line.to);
    return range === null ? null : state.doc.sliceString(range.from, range.to).trim().split('\n').at(-1)?.trim() ?? '';
  };
  expect([folds('Rule: r'), folds('Scenario: s'), folds('Scenario Outline'), folds('Examples'), folds('Rule: q'), folds('Feature'), folds('Given x')]).toEqual(['Given x', 'Given x', '| n |', '| n |', null, null, null]);
});

test('what each line is has its look; words in a doc string and a description have none of their own', () => {
  const made = editor('# language: en\n@a\nFeature: "f"\n  a 5\n  Scenario: s\n    Given "v" and <p>\n      | c |\n      """\n      Given 5\n      """\n', colours());
  const marked = [...made.contentDOM.querySelectorAll('[class^=feature-]')].map((e) => `${e.className.replace('feature-', '')}: ${e.textContent}`);
  expect(marked).toEqual(['comment: # language: en', 'tags: @a', 'keyword: Feature:', 'name: "f"', 'text:   a 5', 'keyword: Scenario:', 'name: s', 'step: Given', 'value: "v"', 'placeholder: <p>', 'bar: |', 'cell:  c ', 'bar: |', 'doc:       """', 'doc:       Given 5', 'doc:       """']);
  expect(made.contentDOM.querySelectorAll('.feature-row')).toHaveLength(1);
});

test('values of own kinds look as values, and are offered with the name of their kind in the hole', () => {
  const own = new OwnKinds([{ id: ownKindId('k'), name: 'season', pattern: 'wet|dry' }]);
  const marked = (...more: Parameters<typeof colours>) => [...editor('Feature: f\n  Scenario: s\n    Given the dry season of 5 days\n', colours(...more)).contentDOM.querySelectorAll('.feature-value')].map((e) => e.textContent);
  expect([marked(), marked(own)]).toEqual([['5'], ['dry', '5']]);
  const { key, values } = takenApart('the dry season of 5 days', own);
  const phrase: ShownPhrase = { key, holes: values.map((v) => v.kind), uses: 1, features: 1, kinds: { given: 1, when: 0, then: 0, other: 0 }, shown: 'the {season} season of {int} days', agreed: false, ambiguous: false };
  const chosen = (typed: string): string => {
    const made = editor(`${FEATURE}    When ${typed}|>`, offers([phrase], own));
    const result = offered(new CompletionContext(made.state, made.state.selection.main.head, false), soughtOf([phrase]), own);
    const [option] = result?.options ?? [];
    if (result === null || typeof option?.apply !== 'function') throw new Error(`A phrase is offered for '${typed}'`);
    option.apply(made, option, result.from, result.to ?? made.state.doc.length);
    return made.state.doc.toString().split('When ')[1] ?? '';
  };
  expect([chosen('the se'), chosen('the wet s')]).toEqual(['the season season of 0 days', 'the wet season of 0 days']);
});

test('problems stand at their place in words', async () => {
  const made = editor(`${FEATURE}    nonsense\n`, problems());
  forceLinting(made);
  await new Promise((resolve) => setTimeout(resolve, 50));
  const told: string[] = [];
  forEachDiagnostic(made.state, (d, from, to) => told.push(`${made.state.doc.sliceString(from, to)}: ${d.message.slice(0, 30)}`));
  expect(told).toEqual(['nonsense: “nonsense” cannot stand here: ']);
});

describe('while one writes', () => {
  const phrase = (text: string, uses: number, agreed = false): ShownPhrase => {
    const { key, values } = takenApart(text);
    const holes = values.map((v): ValueKind => v.kind);
    return { key, holes, uses, features: 1, kinds: { given: uses, when: 0, then: 0, other: 0 }, shown: text, agreed, ambiguous: false };
  };
  const PHRASES = [phrase('the clerk enters 12', 3, true), phrase('the clerk leaves', 9), phrase('meter "M" of the clerk', 2), phrase('nothing', 1)];
  const at = (before: string, explicit = false): CompletionResult | null => {
    const { state } = editor(before);
    return offered(new CompletionContext(state, state.selection.main.head, explicit), soughtOf(PHRASES));
  };
  const labels = (result: CompletionResult | null): string[] => (result?.options ?? []).map((o: Completion) => o.label);

  test('phrases are offered behind a keyword: those that begin so first, then those that have the words', () => {
    expect(labels(at(`${FEATURE}    When the cl|>`))).toEqual(['the clerk enters 12', 'the clerk leaves', 'meter "M" of the clerk']);
    expect(at(`${FEATURE}    When the cl|>`)?.options.map((o) => o.detail)).toEqual(['agreed · 3 uses', '9 uses', '2 uses']);
    expect(labels(at(`${FEATURE}    When clerk met|>`))).toEqual(['meter "M" of the clerk']);
    expect(labels(at(`${FEATURE}    When |>`))).toEqual([]);
    expect(labels(at(`${FEATURE}    When |>`, true))).toHaveLength(4);
  });

  test('of ten thousand phrases the right ones are there before the next frame, whatever was written', () => {
    const many = Array.from({ length: 10_000 }, (_, n) => phrase(`the ${['clerk', 'Reader', 'member'][n % 3] ?? ''} Looks at thing ${String.fromCharCode(97 + (n % 26))}${n.toString(36).replaceAll(/\d/g, 'z')} of the ledger`, 1));
    const sought = soughtOf([...many, phrase('A LEDGER is closed', 1)]);
    const begun = pace();
    for (const [typed, first] of [['the reader looks', /^the Reader Looks at thing/], ['ledger clos', /^A LEDGER is closed$/], ['nobody says so', null]] as const) {
      const { state } = editor(`${FEATURE}    When ${typed}|>`);
      const took = Array.from({ length: 21 }, () => {
        const from = performance.now();
        const found = labels(offered(new CompletionContext(state, state.selection.main.head, false), sought));
        if (first === null) expect(found).toEqual([]);
        else expect(found[0]).toMatch(first);
        return performance.now() - from;
      });
      expect(took.toSorted((a, b) => a - b)[10]).toBeLessThan(16 * Math.max(begun, pace()));
    }
  });

  test('nothing is offered that stands there whole, nor in tables, tags, comments and doc strings', () => {
    for (const before of [`${FEATURE}    When the clerk leaves|>`, `${FEATURE}      | the|> |`, '@the|>', `${FEATURE}  # the|>`, `${FEATURE}    """\n    the|>\n    """`]) expect([before, labels(at(before))]).toEqual([before, []]);
  });

  test('a chosen phrase takes the place of the line, with the values that were written', () => {
    const made = editor(`${FEATURE}    When the clerk enters 7|>`);
    const result = offered(new CompletionContext(made.state, made.state.selection.main.head, true), soughtOf([phrase('the clerk enters 12 of "M"', 1)]));
    const [option] = result?.options ?? [];
    if (typeof option?.apply !== 'function' || result === null) throw new Error('A phrase is put in by a function');
    option.apply(made, option, result.from, result.to ?? result.from);
    expect(made.state.doc.line(4).text).toBe('    When the clerk enters 7 of "text"');
    expect(currentCompletions(made.state)).toEqual([]);
  });

  test('keywords are offered where a line begins, in the language of the file', () => {
    expect(labels(at(`${FEATURE}  Sc|>`))).toEqual(['Scenario:', 'Scenario Outline:', 'Scenario Template:', 'Scenarios:']);
    expect(labels(at('# language: pt\nFuncionalidade: f\n  Cenário: c\n    Qu|>'))).toEqual(['Quando']);
  });
});
