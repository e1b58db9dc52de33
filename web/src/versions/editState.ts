import { asJson, diffContent, mergeContent, sameJson, type Conflict, type Choice, type FieldDiff } from '@caderno/core/versions';

/** A content being edited: what it grew from, what it is now, and what undo and redo lead to. */
export interface EditState<C> {
  /** The version the edit started from, and its content. */
  readonly base: number;
  readonly baseContent: C;
  readonly content: C;
  readonly past: readonly C[];
  readonly future: readonly C[];
  /** Where and when the last change was made, to gather what is typed into one field quickly. */
  readonly last: { readonly path: string; readonly at: number } | null;
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

/** Changes of one text within this time are one step of undo. */
const GATHER_MS = 700;
const MOST_UNDO = 200;

export function startEdit<C>(base: number, baseContent: C, content: C): EditState<C> {
  return { base, baseContent, content, past: [], future: [], last: null, theirs: null };
}

export function isDirty<C>(state: EditState<C>): boolean {
  return !sameJson(asJson(state.content), asJson(state.baseContent));
}

export function edited<C>(state: EditState<C>, content: C, now: number): EditState<C> {
  if (content === state.content) return state;
  const path = onlyChangedText(diffContent(asJson(state.content), asJson(content)));
  const gathers = path !== null && state.last?.path === path && now - state.last.at < GATHER_MS;
  const past = gathers ? state.past : [...state.past, state.content].slice(-MOST_UNDO);
  return { ...state, content, past, future: [], last: path === null ? null : { path, at: now } };
}

/** The path of the one text that differs; null when more than that does. */
function onlyChangedText(diff: FieldDiff): string | null {
  if (diff.kind === 'replaced') return typeof diff.to === 'string' ? '' : null;
  const inner = diff.kind === 'record' ? Object.entries(diff.fields) : diff.kind === 'list' && sameJson(diff.from, diff.to) ? Object.entries(diff.changed) : [];
  const [only] = inner;
  if (only === undefined || inner.length > 1) return null;
  const below = onlyChangedText(only[1]);
  return below === null ? null : `${only[0]}/${below}`;
}

export function undone<C>(state: EditState<C>): EditState<C> {
  const content = state.past.at(-1);
  return content === undefined ? state : { ...state, content, past: state.past.slice(0, -1), future: [state.content, ...state.future], last: null };
}

export function redone<C>(state: EditState<C>): EditState<C> {
  const [content, ...future] = state.future;
  return content === undefined ? state : { ...state, content, past: [...state.past, state.content], future, last: null };
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
export function settled<C>(state: EditState<C>, choices: ReadonlyMap<string, Choice>): EditState<C> {
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

function merge<C>(state: EditState<C>, theirs: C, choices: ReadonlyMap<string, Choice>): { content: C; conflicts: readonly Conflict[] } {
  const merged = mergeContent(asJson(state.baseContent), asJson(state.content), asJson(theirs), choices);
  // All three are contents of one kind, and a merge takes every part from one of them; the server checks it again.
  return { content: merged.content as C, conflicts: merged.conflicts };
}
