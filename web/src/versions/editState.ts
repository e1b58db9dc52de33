import { mergeContent, sameJson, type Conflict, type Json, type Side } from '@caderno/core/versions';

/** A content being edited: what it grew from, what it is now, and what undo and redo lead to. */
export interface EditState<C> {
  /** The version the edit started from, and its content. */
  readonly base: number;
  readonly baseContent: C;
  readonly content: C;
  readonly past: readonly C[];
  readonly future: readonly C[];
  /** When the newest entry of `past` was made, to gather quick changes into one. */
  readonly lastAt: number;
  readonly theirs: Theirs<C> | null;
}

/** A newer head that changed the same places. */
export interface Theirs<C> {
  readonly version: number;
  readonly content: C;
  readonly author: string;
  readonly conflicts: readonly Conflict[];
}

export interface Head<C> {
  readonly version: number;
  readonly content: C;
  readonly author: string;
}

/** Changes within this time are one step of undo. */
const GATHER_MS = 700;
const MOST_UNDO = 200;

export function startEdit<C>(base: number, baseContent: C, content: C): EditState<C> {
  return { base, baseContent, content, past: [], future: [], lastAt: 0, theirs: null };
}

export function isDirty<C>(state: EditState<C>): boolean {
  return state.content !== state.baseContent && !sameJson(asJson(state.content), asJson(state.baseContent));
}

export function edited<C>(state: EditState<C>, content: C, now: number): EditState<C> {
  if (content === state.content) return state;
  const gathers = now - state.lastAt < GATHER_MS && state.past.length > 0;
  return { ...state, content, past: gathers ? state.past : [...state.past, state.content].slice(-MOST_UNDO), future: [], lastAt: now };
}

export function undone<C>(state: EditState<C>): EditState<C> {
  const content = state.past.at(-1);
  return content === undefined ? state : { ...state, content, past: state.past.slice(0, -1), future: [state.content, ...state.future], lastAt: 0 };
}

export function redone<C>(state: EditState<C>): EditState<C> {
  const [content, ...future] = state.future;
  return content === undefined ? state : { ...state, content, past: [...state.past, state.content], future, lastAt: 0 };
}

/**
 * Takes in a newer head. Without edits of one's own it is simply shown; with edits both are merged; where both
 * changed the same thing one's own stays on the page until the person has seen both and chosen.
 */
export function takeInHead<C>(state: EditState<C>, head: Head<C>): EditState<C> {
  if (head.version <= state.base) return state;
  if (!isDirty(state)) return startEdit(head.version, head.content, head.content);
  const { content, conflicts } = merge(state, head.content, new Map());
  if (conflicts.length > 0) return { ...state, theirs: { ...head, conflicts } };
  return { ...state, base: head.version, baseContent: head.content, content, past: [], future: [], theirs: null };
}

/** Settles the conflicts with a newer head as chosen. */
export function settled<C>(state: EditState<C>, choices: ReadonlyMap<string, Side>): EditState<C> {
  if (state.theirs === null) return state;
  const { version, content: theirs } = state.theirs;
  const { content } = merge(state, theirs, choices);
  return { ...startEdit(version, theirs, content) };
}

/** After a save: what was typed meanwhile stays as an edit of the new version. */
export function saved<C>(state: EditState<C>, sent: C, head: Head<C>): EditState<C> {
  if (state.content === sent) return { ...startEdit(head.version, head.content, head.content), past: state.past };
  return { ...state, base: head.version, baseContent: head.content, theirs: null };
}

function merge<C>(state: EditState<C>, theirs: C, choices: ReadonlyMap<string, Side>): { content: C; conflicts: readonly Conflict[] } {
  const merged = mergeContent(asJson(state.baseContent), asJson(state.content), asJson(theirs), choices);
  // All three are contents of one kind, and a merge takes every part from one of them; the server checks it again.
  return { content: merged.content as C, conflicts: merged.conflicts };
}

/** Contents are plain JSON by construction; their types just do not say so. */
export function asJson(content: unknown): Json {
  return content as Json;
}
