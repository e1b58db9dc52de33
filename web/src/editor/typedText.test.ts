/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { ChangeSet, EditorState, type TransactionSpec } from '@codemirror/state';
import fc from 'fast-check';
import { TypedText } from './typedText.ts';

afterEach(() => void jest.useRealTimers());

/** An editor without a page: what is typed, what comes from elsewhere, and what is told. */
class Writing {
  state: EditorState;
  readonly told: string[] = [];
  readonly typed = new TypedText(() => this.told.push(this.state.doc.toString()));

  constructor(text: string) {
    this.state = EditorState.create({ doc: text });
  }

  type(spec: TransactionSpec): void {
    const before = this.state;
    const { state, changes } = before.update(spec);
    this.state = state;
    this.typed.add({ startState: before, changes });
  }

  /** What somebody else's change makes of the text that is known. */
  comes(change: { from: number; to?: number; insert: string }): void {
    const known = this.typed.known(this.state.doc);
    this.state = this.state.update({ changes: this.typed.among(ChangeSet.of(change, known.length)) }).state;
  }
}

test('what is typed is told once, after the frame or when it is asked for', () => {
  jest.useFakeTimers();
  const writing = new Writing('ab');
  for (const letter of 'xyz') writing.type({ changes: { from: writing.state.doc.length, insert: letter } });
  expect([writing.told, writing.typed.known(writing.state.doc).toString()]).toEqual([[], 'ab']);
  jest.runAllTimers();
  expect(writing.told).toEqual(['abxyz']);
  writing.type({ changes: { from: 0, insert: '!' } });
  writing.typed.tell();
  writing.typed.tell();
  jest.runAllTimers();
  expect(writing.told).toEqual(['abxyz', '!abxyz']);
});

test('what comes from elsewhere meanwhile is there, and so is what was typed', () => {
  const writing = new Writing('one\ntwo\n');
  writing.type({ changes: { from: 3, insert: ' more' } });
  writing.comes({ from: 4, to: 7, insert: 'TWO' });
  writing.type({ changes: { from: 0, insert: '> ' } });
  expect([writing.state.doc.toString(), writing.typed.known(writing.state.doc).toString()]).toEqual(['> one more\nTWO\n', 'one\nTWO\n']);
  writing.typed.tell();
  expect([writing.told, writing.typed.known(writing.state.doc).toString()]).toEqual([['> one more\nTWO\n'], '> one more\nTWO\n']);
});

test('whatever is typed and comes, in whatever order, no letter of either is lost', () => {
  const step = fc.record({ who: fc.constantFrom('types', 'comes', 'is told'), at: fc.nat(30), letter: fc.constantFrom('a', 'b', 'c') });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      const writing = new Writing('....');
      let known = '....';
      for (const [i, { who, at, letter }] of steps.entries()) {
        const mark = `${letter}${i} `;
        if (who === 'types') writing.type({ changes: { from: Math.min(at, writing.state.doc.length), insert: mark } });
        else if (who === 'comes') {
          const from = Math.min(at, known.length);
          writing.comes({ from, insert: mark.toUpperCase() });
          known = known.slice(0, from) + mark.toUpperCase() + known.slice(from);
        } else {
          writing.typed.tell();
          known = writing.state.doc.toString();
        }
        expect(writing.typed.known(writing.state.doc).toString()).toBe(known);
      }
      writing.typed.tell();
      const letters = (text: string): string => [...text].sort().join('');
      expect(letters(writing.state.doc.toString())).toBe(letters(`....${steps.map(({ who, letter }, i) => (who === 'types' ? `${letter}${i} ` : who === 'comes' ? `${letter}${i} `.toUpperCase() : '')).join('')}`));
    }),
    { numRuns: 300 },
  );
});
