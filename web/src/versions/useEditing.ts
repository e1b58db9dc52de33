import type { ArtefactKind } from '@caderno/core/artefacts';
import { KIND_SCHEMA, type ArtefactOfKind, type ContentOfKind, type KindAndContent } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { RefusedCall, call, keys, untilTaken, useRefresh, whileSaving } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { nextSequence } from './draftSequence.ts';
import type { Head } from './editState.ts';
import { beginEditing, type Editing, type EditingState, type KeptText } from './editing.ts';
import type { LocalDraft } from './localDraft.ts';
import { RETRY_MS, useEditedText, type TextStore } from './useEditedText.ts';
import type { EditableArtefact } from './useKeptHere.ts';

/** Edits an artefact. Mount it under a key of the artefact's id. */
export function useEditing<K extends ArtefactKind>(kind: K, artefact: EditableArtefact<K>): Editing<ContentOfKind[K]> {
  const store = useArtefactStore(kind, artefact);
  return useEditedText(store, () => begin(kind, artefact));
}

function useArtefactStore<K extends ArtefactKind>(kind: K, artefact: ArtefactOfKind<K>): TextStore<ContentOfKind[K]> {
  type C = ContentOfKind[K];
  const { project, person, canEdit } = useFrame();
  const client = useQueryClient();
  const refresh = useRefresh(project);
  return useMemo(() => {
    const { id } = artefact.summary;
    const queryKey = keys.artefact(project, id);
    const taken = (answer: unknown): Head<C> => {
      client.setQueryData(queryKey, answer);
      return headOf<K>(answer as ArtefactOfKind<K>);
    };
    return {
      place: { project, person: person.id, of: id },
      canEdit,
      head: headOf<K>(artefact),
      hadDraft: artefact.draft !== null,
      keepDraft: async ({ base, content }, sequence, keepalive) => (await call('keepDraft', { params: { project, id }, body: { ...withKind(kind, content), base, sequence } }, { keepalive })).at,
      dropDraft: async (sequence) => taken(await call('dropDraft', { params: { project, id }, query: { sequence } })),
      save: async ({ base, content, note, sequence }, onWaiting) => {
        // The same command however often it is sent: it is carried out once.
        const commandId = crypto.randomUUID();
        const send = () => call('saveArtefact', { params: { project, id }, body: { ...withKind(kind, content), note, sequence } }, { ifMatch: base, commandId });
        const head = await whileSaving(client, project, queryKey, async () => taken(await untilTaken(send, RETRY_MS, onWaiting)));
        void refresh();
        return head;
      },
      onRefused: (error) => {
        // The newer head comes in by the artefact's query and is merged there; the next save then goes through.
        if (error instanceof RefusedCall && error.refusal.code === 'version_moved') void client.invalidateQueries({ queryKey });
      },
    };
  }, [artefact, canEdit, client, kind, person.id, project, refresh]);
}

function headOf<K extends ArtefactKind>({ summary, content }: { readonly summary: { readonly version: number; readonly author: string }; readonly content: unknown }): Head<ContentOfKind[K]> {
  return { version: summary.version, content: content as ContentOfKind[K], author: summary.author };
}

/** The newer of the server's draft and what this browser kept when the server was away. */
function begin<K extends ArtefactKind>(kind: K, artefact: EditableArtefact<K>): EditingState<ContentOfKind[K]> {
  const { draft, keptHere } = artefact;
  const head = headOf<K>(artefact);
  const here = keptHere !== null && (draft === null || keptHere.at > draft.at) ? readKept(kind, keptHere) : null;
  if (here !== null) return beginEditing(head, here, { kind: 'typing' }, nextSequence());
  if (draft === null) return beginEditing(head, null, { kind: 'version' }, nextSequence());
  const kept = { base: draft.base, content: draft.content as ContentOfKind[K], baseContent: (draft.baseContent ?? artefact.content) as ContentOfKind[K] };
  return beginEditing(head, kept, { kind: 'kept', at: draft.at }, nextSequence());
}

/** What this browser kept may be of an earlier Caderno, unlike what the server answers. */
function readKept<K extends ArtefactKind>(kind: K, kept: LocalDraft): KeptText<ContentOfKind[K]> | null {
  const content = KIND_SCHEMA[kind].content.safeParse(kept.content);
  const baseContent = KIND_SCHEMA[kind].content.safeParse(kept.baseContent);
  return content.success && baseContent.success ? { base: kept.base, content: content.data, baseContent: baseContent.data } : null;
}

function withKind<K extends ArtefactKind>(kind: K, content: ContentOfKind[K]): KindAndContent {
  return { kind, content } as KindAndContent;
}
