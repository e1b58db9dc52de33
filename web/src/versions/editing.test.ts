import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isDirty } from './editState.ts';
import { afterEvent, beginEditing, type EditingEvent, type EditingState } from './editing.ts';

interface Text {
  readonly title: string;
  readonly text: string;
}
const first: Text = { title: 'T', text: 'x' };
const begin = (): EditingState<Text> => beginEditing({ version: 1, content: first, author: 'a' }, null, { kind: 'version' }, 0);
const titled = (title: string) => (content: Text): Text => ({ ...content, title });
const after = (state: EditingState<Text>, ...events: EditingEvent<Text>[]): EditingState<Text> => events.reduce(afterEvent, state);

test('a draft that was kept is no longer the text once more was typed; what failed late says nothing of it', () => {
  const one = after(begin(), { kind: 'edited', change: titled('T1'), at: 1, sequence: 1 });
  const two = after(one, { kind: 'edited', change: titled('T2'), at: 2, sequence: 2 });
  expect(after(two, { kind: 'draftKept', content: one.text.content, at: 'then' }).keep).toEqual({ kind: 'typing' });
  expect(after(two, { kind: 'draftKept', content: two.text.content, at: 'then' }).keep).toEqual({ kind: 'kept', at: 'then' });
  expect(after(two, { kind: 'draftNotKept', sequence: 1, keep: { kind: 'waiting', here: true } }).keep).toEqual({ kind: 'typing' });
  expect(after(two, { kind: 'draftNotKept', sequence: 2, keep: { kind: 'waiting', here: false } }).keep).toEqual({ kind: 'waiting', here: false });
});

test('what was typed while a save was under way is an edit of the new version, and its sequence stays', () => {
  const sent = after(begin(), { kind: 'edited', change: titled('sent'), at: 1, sequence: 1 });
  const head = { version: 2, content: sent.text.content, author: 'me' };
  const through = after(sent, { kind: 'saved', sent: sent.text.content, head, sequence: 9 });
  expect([through.keep.kind, through.sequence, through.text.base, isDirty(through.text)]).toEqual(['version', 9, 2, false]);
  const more = after(sent, { kind: 'edited', change: titled('more'), at: 2, sequence: 2 }, { kind: 'saved', sent: sent.text.content, head, sequence: 9 });
  expect([more.keep.kind, more.sequence, more.text.base, more.text.content.title, isDirty(more.text)]).toEqual(['typing', 2, 2, 'more', true]);
});

test('what was kept of an older version is merged with what others saved since; discarded, undo brings it back', () => {
  const head = { version: 3, content: { ...first, text: 'theirs' }, author: 'b' };
  const state = beginEditing(head, { base: 1, baseContent: first, content: { ...first, title: 'mine' } }, { kind: 'typing' }, 4);
  expect([state.text.base, state.text.content]).toEqual([3, { title: 'mine', text: 'theirs' }]);
  const discarded = after(state, { kind: 'discarded', head, sequence: 5 });
  expect([discarded.text.content, discarded.keep.kind]).toEqual([head.content, 'version']);
  expect(after(discarded, { kind: 'undone', sequence: 6 }).text.content).toEqual({ title: 'mine', text: 'theirs' });
});

test('however edits, undo, redo, saves and others’ saves follow: the base is never newer than what came, and a new text has a new sequence', () => {
  const event = fc.oneof(
    fc.string({ maxLength: 3 }).map((t) => ({ kind: 'edited' as const, change: titled(t) })),
    fc.constantFrom('undone' as const, 'redone' as const).map((kind) => ({ kind })),
    fc.string({ maxLength: 3 }).map((text) => ({ kind: 'theirs' as const, text })),
    fc.constant({ kind: 'save' as const }),
  );
  fc.assert(
    fc.property(fc.array(event, { maxLength: 30 }), (events) => {
      let state = begin();
      let head = { version: 1, content: first, author: 'a' };
      events.forEach((e, i) => {
        const before = state;
        const sequence = i + 1;
        if (e.kind === 'edited') state = after(state, { kind: 'edited', change: e.change, at: i * 1_000, sequence });
        else if (e.kind === 'undone') state = after(state, { kind: 'undone', sequence });
        else if (e.kind === 'redone') state = after(state, { kind: 'redone', sequence });
        else if (e.kind === 'theirs') {
          head = { version: head.version + 1, content: { ...head.content, text: e.text }, author: 'b' };
          state = after(state, { kind: 'headCame', head, sequence });
        } else if (state.text.base === head.version) {
          head = { version: head.version + 1, content: state.text.content, author: 'me' };
          state = after(state, { kind: 'saved', sent: state.text.content, head, sequence });
        }
        expect(state.text.base).toBeLessThanOrEqual(head.version);
        if (state.text.theirs === null) expect(state.text.base).toBe(head.version);
        // A draft is told from one of before by its sequence.
        if (isDirty(state.text) && state.text.content !== before.text.content) expect(state.sequence).toBe(sequence);
      });
    }),
    { numRuns: 300 },
  );
});
