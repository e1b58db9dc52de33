import { describe, expect, test } from '@jest/globals';
import { edited, isDirty, redone, saved, settled, startEdit, takeInHead, undone } from './editState.ts';

interface Text {
  readonly title: string;
  readonly steps: readonly { readonly id: string; readonly action: string }[];
}
const base: Text = { title: 'T', steps: [{ id: 'a', action: 'x' }] };
const titled = (title: string): Text => ({ ...base, title });
const acted = (action: string): Text => ({ ...base, steps: [{ id: 'a', action }] });

describe('undo', () => {
  test('what is typed into one text quickly is one step; anything else is its own', () => {
    let state = startEdit(1, base, base);
    state = edited(state, titled('T1'), 1000);
    state = edited(state, titled('T12'), 1300);
    state = edited(state, { ...titled('T12'), steps: [] }, 1350);
    state = edited(state, { ...acted('x'), title: 'T12' }, 1400);
    expect(state.past).toHaveLength(3);
    expect(undone(undone(state)).content).toEqual(titled('T12'));
    expect(undone(undone(undone(state))).content).toEqual(base);
    expect(redone(undone(state)).content).toEqual(state.content);
  });
  test('after a pause the same text is a step of its own', () => {
    const state = edited(edited(startEdit(1, base, base), titled('a'), 1000), titled('ab'), 2000);
    expect(undone(state).content).toEqual(titled('a'));
  });
  test('back where it began there is nothing to save', () => {
    const state = edited(startEdit(1, base, base), titled('a'), 1);
    expect([isDirty(state), isDirty(undone(state)), isDirty(edited(state, { ...base }, 2))]).toEqual([true, false, false]);
  });
});

describe('a newer head', () => {
  const head = (content: Text, version = 2) => ({ version, content, author: 'Rui M.' });
  test('is simply shown when nothing was edited', () => {
    expect(takeInHead(startEdit(1, base, base), head(titled('theirs')))).toMatchObject({ base: 2, content: titled('theirs') });
  });
  test('is merged with edits of other places', () => {
    const state = takeInHead(edited(startEdit(1, base, base), acted('mine'), 1), head(titled('theirs')));
    expect(state).toMatchObject({ base: 2, content: { ...acted('mine'), title: 'theirs' }, theirs: null });
  });
  test('with edits of the same place waits for a choice, mine on the page meanwhile', () => {
    const state = takeInHead(edited(startEdit(1, base, base), titled('mine'), 1), head(titled('theirs')));
    expect(state).toMatchObject({ base: 1, content: titled('mine'), theirs: { version: 2, author: 'Rui M.' } });
    expect(settled(state, new Map([['title', 'theirs']]))).toMatchObject({ base: 2, content: titled('theirs'), theirs: null });
    expect(settled(state, new Map([['title', 'mine']]))).toMatchObject({ base: 2, baseContent: titled('theirs'), content: titled('mine') });
  });
  test('older than what one edits changes nothing', () => {
    const state = startEdit(3, base, base);
    expect(takeInHead(state, head(titled('old'), 2))).toBe(state);
  });
});

test('what is typed while a save is under way stays as an edit of the new version', () => {
  const sent = edited(startEdit(1, base, base), titled('sent'), 1);
  const typed = edited(sent, titled('sent and more'), 5000);
  const state = saved(typed, sent.content, { version: 2, content: titled('sent'), author: 'me' });
  expect(state).toMatchObject({ base: 2, baseContent: titled('sent'), content: titled('sent and more') });
  expect(isDirty(state)).toBe(true);
  expect(isDirty(saved(sent, sent.content, { version: 2, content: titled('sent'), author: 'me' }))).toBe(false);
});
