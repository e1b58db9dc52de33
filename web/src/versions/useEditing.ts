import type { ArtefactKind } from '@caderno/core/artefacts';
import type { Choice } from '@caderno/core/versions';
import { CONTENT_SCHEMA, type ArtefactOfKind, type ContentOfKind, type KindAndContent } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { RefusedCall, call, isPassing, keys, tellFailure, untilTaken, useRefresh, whileSaving } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { nextSequence } from './draftSequence.ts';
import { edited, isDirty, redone, saved, settled, startEdit, takeInHead, undone, type EditState, type Theirs } from './editState.ts';
import { dropLocally, keepLocally, readLocally, type LocalDraft } from './localDraft.ts';

export type KeepState =
  | { readonly kind: 'version' }
  | { readonly kind: 'typing' }
  | { readonly kind: 'kept'; readonly at: string }
  /** The server is away; the text is in this browser and is sent later. */
  | { readonly kind: 'waiting' }
  | { readonly kind: 'refused'; readonly error: unknown };

/** An artefact's content under edit: kept as a draft by itself, made a version on demand. */
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

/** A pause of this length and the draft is sent. */
const PAUSE_MS = 900;
const RETRY_MS = 3_000;
const KEEP_HERE_MS = 120;

/** Edits an artefact. Mount it under a key of the artefact's id. */
export function useEditing<K extends ArtefactKind>(kind: K, artefact: ArtefactOfKind<K>): Editing<ContentOfKind[K]> {
  type C = ContentOfKind[K];
  const { project, person, canEdit } = useFrame();
  const client = useQueryClient();
  const refresh = useRefresh(project);
  const { id } = artefact.summary;
  const [state, setState] = useState<EditState<C>>(() => firstState<K>(kind, project, person.id, artefact));
  const [keep, setKeep] = useState<KeepState>(artefact.draft === null ? { kind: 'version' } : { kind: 'kept', at: artefact.draft.at });
  const dirty = useMemo(() => isDirty(state), [state]);
  const now = useRef({ state, dirty });
  useEffect(() => {
    now.current = { state, dirty };
  });

  useTakeInHead<C>(artefact.summary, artefact.content as C, setState);

  const sequence = useRef(0);
  useEffect(() => {
    sequence.current = nextSequence();
  }, [state.content]);
  const sendNow = useCallback(
    async (keepalive: boolean): Promise<void> => {
      const { state: at } = now.current;
      const typed = sequence.current;
      try {
        const { at: when } = await call('keepDraft', { params: { project, id }, body: { ...withKind(kind, at.content), base: at.base, sequence: typed } }, { keepalive });
        if (now.current.state.content === at.content) {
          dropLocally(project, person.id, id);
          setKeep({ kind: 'kept', at: when });
        }
      } catch (error) {
        // More was typed since, and goes its own way.
        if (sequence.current === typed) setKeep(isPassing(error) ? { kind: 'waiting' } : { kind: 'refused', error });
      }
    },
    [id, kind, person.id, project],
  );
  const onItsWay = useRef<Promise<void>>(Promise.resolve());
  const send = useCallback(
    (keepalive = false): Promise<void> => {
      // A page that is left cannot wait; the sequence tells which text was typed last.
      if (keepalive) return sendNow(true);
      onItsWay.current = onItsWay.current.then(() => sendNow(false));
      return onItsWay.current;
    },
    [sendNow],
  );

  const hasRoom = useRef(true);
  const keepHere = useCallback((): void => {
    const { base, baseContent, content } = now.current.state;
    // What was too large once is not tried with every key again: writing it out takes long.
    if (hasRoom.current) hasRoom.current = keepLocally(project, person.id, id, { base, baseContent, content, at: new Date().toISOString() });
  }, [id, person.id, project]);
  useSendDrafts(state, dirty, keep, now, send, keepHere);
  useEffect(() => {
    // What is as the version has it needs no copy, and an older one would come back.
    if (!dirty) dropLocally(project, person.id, id);
  }, [dirty, id, person.id, project]);
  const drop = useCallback(async (): Promise<void> => {
    dropLocally(project, person.id, id);
    await call('dropDraft', { params: { project, id }, query: { sequence: sequence.current } });
  }, [id, person.id, project]);
  useDropEmptyDraft(dirty, keep, artefact.draft !== null, drop);

  const update = useCallback(
    (change: (content: C) => C) => {
      if (!canEdit) return;
      setState((s) => edited(s, change(s.content), Date.now()));
      setKeep({ kind: 'typing' });
    },
    [canEdit],
  );

  const takeAnswer = useCallback(
    (answer: ArtefactOfKind<K>, sent: C) => {
      client.setQueryData(keys.artefact(project, id), answer);
      void refresh();
      setState((s) => saved(s, sent, { version: answer.summary.version, content: answer.content as C, author: answer.summary.author }));
      // What was typed while the save was under way is a draft of the new version and still to be kept.
      const typedOn = now.current.state.content !== sent;
      if (!typedOn) dropLocally(project, person.id, id);
      setKeep({ kind: typedOn ? 'typing' : 'version' });
    },
    [client, id, person.id, project, refresh],
  );

  const save = useCallback(
    async (note: string): Promise<void> => {
      const { state: at } = now.current;
      // The same command however often it is sent: it is carried out once.
      const commandId = crypto.randomUUID();
      const until = sequence.current;
      const send = () => call('saveArtefact', { params: { project, id }, body: { ...withKind(kind, at.content), note, sequence: until } }, { ifMatch: at.base, commandId });
      try {
        await whileSaving(client, project, keys.artefact(project, id), async () => {
          const answer = await untilTaken(send, RETRY_MS, (error) => {
            tellFailure(error);
            setKeep({ kind: 'waiting' });
          });
          takeAnswer(answer as ArtefactOfKind<K>, at.content);
        });
      } catch (error) {
        // The newer head comes in by the artefact's query and is merged there; the next save then goes through.
        if (error instanceof RefusedCall && error.refusal.code === 'version_moved') await client.invalidateQueries({ queryKey: keys.artefact(project, id) });
        tellFailure(error);
      }
    },
    [client, id, kind, project, takeAnswer],
  );

  const discard = useCallback(() => {
    dropLocally(project, person.id, id);
    call('dropDraft', { params: { project, id }, query: { sequence: nextSequence() } }).then((answer) => {
      client.setQueryData(keys.artefact(project, id), answer);
      const head = answer.content as C;
      setState((s) => ({ ...startEdit(answer.summary.version, head, head), past: [...s.past, s.content] }));
      setKeep({ kind: 'version' });
    }, tellFailure);
  }, [client, id, person.id, project]);

  const step = (change: (s: EditState<C>) => EditState<C>) => (): void => {
    setState(change);
    setKeep({ kind: 'typing' });
  };
  return {
    content: state.content,
    version: state.base,
    dirty,
    keep: dirty ? keep : { kind: 'version' },
    theirs: state.theirs,
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    update,
    undo: step(undone),
    redo: step(redone),
    save,
    discard,
    settle: (choices) => {
      setState((s) => settled(s, choices));
      setKeep({ kind: 'typing' });
    },
  };
}

/** The newer of the server's draft and what this browser kept when the server was away. */
function firstState<K extends ArtefactKind>(kind: K, project: string, person: string, artefact: ArtefactOfKind<K>): EditState<ContentOfKind[K]> {
  const head = artefact.content as ContentOfKind[K];
  const local = readLocally(project, person, artefact.summary.id);
  const kept = local !== null && (artefact.draft === null || local.at > artefact.draft.at) ? local : artefact.draft;
  const fresh = startEdit<ContentOfKind[K]>(artefact.summary.version, head, head);
  if (kept === null) return fresh;
  const read = kept === local ? readKept(kind, kept) : { content: kept.content as ContentOfKind[K], baseContent: (kept.baseContent ?? head) as ContentOfKind[K] };
  if (read === null) return fresh;
  // A draft of an older version starts from there; what others saved since is merged in, never overwritten.
  const state = startEdit<ContentOfKind[K]>(kept.base, read.baseContent, read.content);
  return takeInHead(state, { version: artefact.summary.version, content: head, author: artefact.summary.author });
}

/** What this browser kept may be of an earlier Caderno, unlike what the server answers. */
function readKept<K extends ArtefactKind>(kind: K, kept: LocalDraft): { readonly content: ContentOfKind[K]; readonly baseContent: ContentOfKind[K] } | null {
  const content = CONTENT_SCHEMA[kind].safeParse(kept.content);
  const baseContent = CONTENT_SCHEMA[kind].safeParse(kept.baseContent);
  return content.success && baseContent.success ? { content: content.data, baseContent: baseContent.data } : null;
}

function useTakeInHead<C>(summary: { readonly version: number; readonly author: string }, content: C, setState: (change: (s: EditState<C>) => EditState<C>) => void): void {
  const { version, author } = summary;
  useEffect(() => {
    setState((s) => takeInHead(s, { version, content, author }));
  }, [author, content, setState, version]);
}

interface Now<C> {
  readonly current: { readonly state: EditState<C>; readonly dirty: boolean };
}

/** Keeps the draft in this browser at once, sends it after a pause, again while the server is away, and when the page is left. */
function useSendDrafts<C>(state: EditState<C>, dirty: boolean, keep: KeepState, now: Now<C>, send: (keepalive?: boolean) => Promise<void>, keepHere: () => void): void {
  const pending = dirty && (keep.kind === 'typing' || keep.kind === 'waiting');
  useEffect(() => {
    if (!pending) return undefined;
    // Not within the keystroke: a large content takes longer to write than one may.
    const timer = setTimeout(keepHere, KEEP_HERE_MS);
    return () => clearTimeout(timer);
  }, [keepHere, pending, state.content]);
  useEffect(() => {
    if (!pending) return undefined;
    const timer = setTimeout(() => void send(), keep.kind === 'waiting' ? RETRY_MS : PAUSE_MS);
    return () => clearTimeout(timer);
  }, [keep, pending, send, state.content]);

  const unsent = useRef(false);
  useEffect(() => {
    unsent.current = pending;
  });
  useEffect(() => {
    const leave = (): void => {
      if (!unsent.current || !now.current.dirty) return;
      keepHere();
      void send(true);
    };
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [keepHere, now, send]);
}

/** Typed back to what the version holds: there is no draft any more, here or on the server. */
function useDropEmptyDraft(dirty: boolean, keep: KeepState, hadDraft: boolean, drop: () => Promise<void>): void {
  const kept = useRef(hadDraft);
  useEffect(() => {
    if (keep.kind === 'kept') kept.current = true;
    if (dirty || !kept.current || keep.kind !== 'typing') return;
    kept.current = false;
    drop().catch(tellFailure);
  }, [dirty, drop, keep]);
}

function withKind<K extends ArtefactKind>(kind: K, content: ContentOfKind[K]): KindAndContent {
  return { kind, content } as KindAndContent;
}
