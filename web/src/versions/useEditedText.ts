import { useCallback, useEffect, useMemo, useReducer, useRef } from 'react';
import { isPassing, tellFailure } from '../api/index.ts';
import { useLatest } from '../look/index.ts';
import { nextSequence } from './draftSequence.ts';
import { isDirty, type Head } from './editState.ts';
import { afterEvent, type Editing, type EditingEvent, type EditingState } from './editing.ts';
import { dropLocally, keepLocally, type DraftPlace } from './localDraft.ts';

/** Where a text comes from and goes to. */
export interface TextStore<C> {
  /** Where this browser keeps it. */
  readonly place: DraftPlace;
  readonly canEdit: boolean;
  /** What this browser may keep of a text; absent: all of it. */
  readonly toKeepHere?: (content: C, baseContent: C) => C;
  /** The newest version. */
  readonly head: Head<C>;
  /** Keeps a draft and answers when; null where only this browser keeps one. */
  readonly keepDraft: ((text: { readonly base: number; readonly content: C }, sequence: number, keepalive: boolean) => Promise<string>) | null;
  /** Drops the draft, those typed until `sequence`, and answers the version. */
  readonly dropDraft: (sequence: number) => Promise<Head<C>>;
  /** Whether the server has a draft of before. */
  readonly hadDraft: boolean;
  /** Makes a version, also when the server is away for a while: `onWaiting` is called once then. */
  readonly save: (command: SaveCommand<C>, onWaiting: (error: unknown) => void) => Promise<Head<C>>;
  /** A save was refused for good. */
  readonly onRefused: (error: unknown) => void;
}

export interface SaveCommand<C> {
  readonly base: number;
  readonly content: C;
  readonly note: string;
  readonly sequence: number;
}

/** A pause of this length and the draft is sent. */
const PAUSE_MS = 900;
export const RETRY_MS = 3_000;
const KEEP_HERE_MS = 120;

/** Edits a text. `first`: where it begins; read once. */
export function useEditedText<C>(store: TextStore<C>, first: () => EditingState<C>): Editing<C> {
  const [state, dispatch] = useReducer(afterEvent<C>, undefined, first);
  const dirty = useMemo(() => isDirty(state.text), [state.text]);
  const nowRef = useLatest({ state, dirty, store });
  useTakeInHead(store.head, dispatch);
  const { keepHere, dropHere, isHere } = useCopyHere(nowRef, dirty, dispatch);
  const send = useSendInTurn(nowRef, dispatch, isHere);
  useSendDrafts(state, dirty, send, keepHere);
  useDropEmptyDraft(state, dirty, store.hadDraft, nowRef);

  const save = useCallback(
    async (note: string): Promise<void> => {
      const { text, sequence } = nowRef.current.state;
      const command: SaveCommand<C> = { base: text.base, content: text.content, note, sequence };
      const waits = (error: unknown): void => {
        tellFailure(error);
        dispatch({ kind: 'saveWaits', here: isHere() });
      };
      try {
        const head = await nowRef.current.store.save(command, waits);
        dispatch({ kind: 'saved', sent: command.content, head, sequence: nextSequence() });
        if (nowRef.current.state.text.content === command.content) dropHere();
      } catch (error) {
        nowRef.current.store.onRefused(error);
        tellFailure(error);
      }
    },
    [dropHere, isHere, nowRef],
  );
  const discard = useCallback(() => {
    dropHere();
    nowRef.current.store.dropDraft(nextSequence()).then((head) => dispatch({ kind: 'discarded', head, sequence: nextSequence() }), tellFailure);
  }, [dropHere, nowRef]);
  const update = useCallback(
    (change: (content: C) => C) => {
      if (nowRef.current.store.canEdit) dispatch({ kind: 'edited', change, at: Date.now(), sequence: nextSequence() });
    },
    [nowRef],
  );
  const undo = useCallback(() => dispatch({ kind: 'undone', sequence: nextSequence() }), []);
  const redo = useCallback(() => dispatch({ kind: 'redone', sequence: nextSequence() }), []);
  const settle: Editing<C>['settle'] = useCallback((choices) => dispatch({ kind: 'settled', choices, sequence: nextSequence() }), []);

  const { content, base: version, theirs, past, future } = state.text;
  return { content, version, dirty, keep: dirty ? state.keep : { kind: 'version' }, theirs, canUndo: past.length > 0, canRedo: future.length > 0, update, undo, redo, save, discard, settle };
}

type Now<C> = React.RefObject<{ readonly state: EditingState<C>; readonly dirty: boolean; readonly store: TextStore<C> }>;
type Dispatch<C> = (event: EditingEvent<C>) => void;

function useTakeInHead<C>({ version, content, author }: Head<C>, dispatch: Dispatch<C>): void {
  useEffect(() => {
    dispatch({ kind: 'headCame', head: { version, content, author }, sequence: nextSequence() });
  }, [author, content, dispatch, version]);
}

interface CopyHere {
  readonly keepHere: () => void;
  readonly dropHere: () => void;
  readonly isHere: () => boolean;
}

/** The browser's copy of the text. */
function useCopyHere<C>(nowRef: Now<C>, dirty: boolean, dispatch: Dispatch<C>): CopyHere {
  const hasRoom = useRef(true);
  const keepHere = useCallback(() => {
    const { state, store } = nowRef.current;
    const { base, baseContent, content } = state.text;
    // What was too large once is not tried with every key again: writing it out takes long.
    if (!hasRoom.current) return;
    const at = new Date().toISOString();
    keepLocally(store.place, { base, baseContent, content: store.toKeepHere?.(content, baseContent) ?? content, at }).then((kept) => {
      hasRoom.current = kept;
      if (kept && store.keepDraft === null) dispatch({ kind: 'draftKept', content, at });
    }, tellFailure);
  }, [dispatch, nowRef]);
  const dropHere = useCallback(() => void dropLocally(nowRef.current.store.place).catch(tellFailure), [nowRef]);
  const isHere = useCallback(() => hasRoom.current, []);
  useEffect(() => {
    // What is as the version has it needs no copy, and an older one would come back.
    if (!dirty) dropHere();
  }, [dirty, dropHere]);
  return { keepHere, dropHere, isHere };
}

/** Sends drafts one after the other. */
function useSendInTurn<C>(nowRef: Now<C>, dispatch: Dispatch<C>, isHere: () => boolean): (keepalive: boolean) => void {
  const onItsWay = useRef<Promise<void>>(Promise.resolve());
  return useCallback(
    (keepalive) => {
      const sendNow = (): Promise<void> => sendDraft(nowRef.current, () => nowRef.current.state.text.content, dispatch, isHere, keepalive);
      // A page that is left cannot wait; the sequence tells which text was typed last.
      if (keepalive) void sendNow();
      else onItsWay.current = onItsWay.current.then(sendNow);
    },
    [dispatch, isHere, nowRef],
  );
}

/** Sends the draft as it is; where only this browser keeps one there is nothing to send. */
async function sendDraft<C>({ state, store }: Now<C>['current'], contentNow: () => C, dispatch: Dispatch<C>, isHere: () => boolean, keepalive: boolean): Promise<void> {
  const { base, content } = state.text;
  if (store.keepDraft === null) return;
  try {
    const at = await store.keepDraft({ base, content }, state.sequence, keepalive);
    dispatch({ kind: 'draftKept', content, at });
    // Only when the server has that very text.
    if (contentNow() === content) await dropLocally(store.place);
  } catch (error) {
    dispatch({ kind: 'draftNotKept', sequence: state.sequence, keep: isPassing(error) ? { kind: 'waiting', here: isHere() } : { kind: 'refused', error } });
  }
}

/** Keeps the draft in this browser at once, sends it after a pause, again while the server is away, and when the page is left. */
function useSendDrafts<C>({ keep, text }: EditingState<C>, dirty: boolean, send: (keepalive: boolean) => void, keepHere: () => void): void {
  const pending = dirty && (keep.kind === 'typing' || keep.kind === 'waiting');
  useEffect(() => {
    if (!pending) return undefined;
    // Not within the keystroke: a large content takes longer to write than one may.
    const timer = setTimeout(keepHere, KEEP_HERE_MS);
    return () => clearTimeout(timer);
  }, [keepHere, pending, text.content]);
  useEffect(() => {
    if (!pending) return undefined;
    const timer = setTimeout(() => send(false), keep.kind === 'waiting' ? RETRY_MS : PAUSE_MS);
    return () => clearTimeout(timer);
  }, [keep, pending, send, text.content]);

  const unsent = useLatest(pending);
  useEffect(() => {
    const leave = (): void => {
      if (!unsent.current) return;
      keepHere();
      send(true);
    };
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [keepHere, send, unsent]);
}

/** Typed back to what the version holds: there is no draft any more, here or on the server. */
function useDropEmptyDraft<C>({ keep, sequence }: EditingState<C>, dirty: boolean, hadDraft: boolean, nowRef: Now<C>): void {
  const kept = useRef(hadDraft);
  useEffect(() => {
    if (keep.kind === 'kept') kept.current = true;
    if (dirty || !kept.current || keep.kind !== 'typing') return;
    kept.current = false;
    nowRef.current.store.dropDraft(sequence).catch(tellFailure);
  }, [dirty, keep, nowRef, sequence]);
}
