import type { Choice } from '@caderno/core/versions';
import { edited, redone, saved, settled, startEdit, takeInHead, undone, type EditState, type Head, type Theirs } from './editState.ts';

export type KeepState =
  | { readonly kind: 'version' }
  | { readonly kind: 'typing' }
  | { readonly kind: 'kept'; readonly at: string }
  /** The server is away; the text is in this browser (`here`) or on this page only, and is sent later. */
  | { readonly kind: 'waiting'; readonly here: boolean }
  | { readonly kind: 'refused'; readonly error: unknown };

/** A content under edit: kept as a draft by itself, made a version on demand. */
export interface Editing<C> {
  readonly content: C;
  readonly version: number;
  readonly dirty: boolean;
  readonly keep: KeepState;
  readonly theirs: Theirs<C> | null;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  /** Does nothing for people who may only read. */
  update(change: (content: C) => C): void;
  undo(): void;
  redo(): void;
  save(note: string): Promise<void>;
  discard(): void;
  settle(choices: ReadonlyMap<string, Choice>): void;
}

/** A content under edit, and how far it is kept. */
export interface EditingState<C> {
  readonly text: EditState<C>;
  readonly keep: KeepState;
  /** Counts with every other content: of two drafts the larger was typed later. */
  readonly sequence: number;
}

export type EditingEvent<C> =
  | { readonly kind: 'edited'; readonly change: (content: C) => C; readonly at: number; readonly sequence: number }
  | { readonly kind: 'undone'; readonly sequence: number }
  | { readonly kind: 'redone'; readonly sequence: number }
  | { readonly kind: 'settled'; readonly choices: ReadonlyMap<string, Choice>; readonly sequence: number }
  /** Somebody's save came in. */
  | { readonly kind: 'headCame'; readonly head: Head<C>; readonly sequence: number }
  | { readonly kind: 'draftKept'; readonly content: C; readonly at: string }
  | { readonly kind: 'draftNotKept'; readonly sequence: number; readonly keep: KeepState }
  | { readonly kind: 'saveWaits'; readonly here: boolean }
  | { readonly kind: 'saved'; readonly sent: C; readonly head: Head<C>; readonly sequence: number }
  | { readonly kind: 'discarded'; readonly head: Head<C>; readonly sequence: number };

/** What becomes of a content under edit by what happened to it. */
export function afterEvent<C>(state: EditingState<C>, event: EditingEvent<C>): EditingState<C> {
  switch (event.kind) {
    case 'edited':
      return typed(state, edited(state.text, event.change(state.text.content), event.at), event.sequence);
    case 'undone':
      return typed(state, undone(state.text), event.sequence);
    case 'redone':
      return typed(state, redone(state.text), event.sequence);
    case 'settled':
      return typed(state, settled(state.text, event.choices), event.sequence);
    case 'headCame': {
      const text = takeInHead(state.text, event.head);
      return text === state.text ? state : { ...state, text, sequence: event.sequence };
    }
    case 'draftKept':
      return state.text.content === event.content ? { ...state, keep: { kind: 'kept', at: event.at } } : state;
    case 'draftNotKept':
      // More was typed since, and goes its own way.
      return state.sequence === event.sequence ? { ...state, keep: event.keep } : state;
    case 'saveWaits':
      return { ...state, keep: { kind: 'waiting', here: event.here } };
    case 'saved':
      return afterSave(state, event.sent, event.head, event.sequence);
    case 'discarded': {
      const { version, content } = event.head;
      return { text: { ...startEdit(version, content, content), past: [...state.text.past, state.text.content] }, keep: { kind: 'version' }, sequence: event.sequence };
    }
  }
}

function typed<C>(state: EditingState<C>, text: EditState<C>, sequence: number): EditingState<C> {
  return text === state.text ? state : { text, keep: { kind: 'typing' }, sequence };
}

/** What was typed while the save was under way is a draft of the new version and still to be kept. */
function afterSave<C>(state: EditingState<C>, sent: C, head: Head<C>, sequence: number): EditingState<C> {
  const typedOn = state.text.content !== sent;
  return { text: saved(state.text, sent, head), keep: { kind: typedOn ? 'typing' : 'version' }, sequence: typedOn ? state.sequence : sequence };
}

/** A working text kept somewhere, and what it grew from. */
export interface KeptText<C> {
  readonly base: number;
  readonly baseContent: C;
  readonly content: C;
}

/** Where an edit begins: with the version, or with what was kept; what others saved since is merged in, never overwritten. */
export function beginEditing<C>(head: Head<C>, kept: KeptText<C> | null, keep: KeepState, sequence: number): EditingState<C> {
  const text = kept === null ? startEdit(head.version, head.content, head.content) : takeInHead(startEdit(kept.base, kept.baseContent, kept.content), head);
  return { text, keep, sequence };
}
