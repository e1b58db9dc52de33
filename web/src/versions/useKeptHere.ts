import type { ArtefactKind, IdOfKind } from '@caderno/core/artefacts';
import type { ArtefactOfKind } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useArtefact } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { readLocally, type LocalDraft } from './localDraft.ts';

/** What this browser keeps of a person's text; undefined until it was looked for. */
export function useKeptHere(of: string): LocalDraft | null | undefined {
  const { project, person } = useFrame();
  // What is kept changes with every pause in typing: nothing of an earlier look is used.
  return useQuery({ queryKey: ['kept here', person.id, project, of], queryFn: () => readLocally({ project, person: person.id, of }), staleTime: Number.POSITIVE_INFINITY, gcTime: 0 }).data;
}

/** An artefact, and what this browser keeps of one's text of it. */
export type EditableArtefact<K extends ArtefactKind> = ArtefactOfKind<K> & { readonly keptHere: LocalDraft | null };

/** An artefact to be edited; undefined until all of it is there. */
export function useEditable<K extends ArtefactKind>(kind: K, id: IdOfKind[K]): { readonly data: EditableArtefact<K> | undefined; readonly error: unknown } {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, kind, id);
  const keptHere = useKeptHere(id);
  return useMemo(() => ({ data: data === undefined || keptHere === undefined ? undefined : { ...data, keptHere }, error }), [data, error, keptHere]);
}
