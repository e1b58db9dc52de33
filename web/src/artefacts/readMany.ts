import type { ArtefactKind, IdOfKind } from '@caderno/core/artefacts';
import type { Artefact, ArtefactOfKind } from '@caderno/contract';
import { call } from '../api/index.ts';

/** How many are asked for at a time: the server answers a person so many at once. */
const AT_ONCE = 20;

/** Artefacts as they are saved: what somebody is typing in one of them stays a draft. */
export async function readMany<K extends ArtefactKind>(project: string, kind: K, ids: readonly IdOfKind[K][]): Promise<ArtefactOfKind<K>[]> {
  const read: ArtefactOfKind<K>[] = [];
  for (let from = 0; from < ids.length; from += AT_ONCE) {
    const artefacts = await Promise.all(ids.slice(from, from + AT_ONCE).map((id) => call('readArtefact', { params: { project, id } })));
    read.push(...artefacts.filter((a): a is Artefact & ArtefactOfKind<K> => a.kind === kind));
  }
  return read;
}
