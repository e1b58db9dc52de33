import { ARTEFACT_KINDS, parseArtefactId, type ArtefactId } from '../artefacts/index.ts';
import type { Frozen } from './baseline.ts';

/** What became of an artefact from one moment to another. */
export type FrozenChange =
  | { readonly kind: 'added'; readonly to: Frozen }
  /** `meant`: it means something else; otherwise only its place, its owner or its tags changed. */
  | { readonly kind: 'changed'; readonly from: Frozen; readonly to: Frozen; readonly meant: boolean }
  /** The very same version that stands otherwise, as agreed. */
  | { readonly kind: 'state'; readonly from: Frozen; readonly to: Frozen }
  | { readonly kind: 'gone'; readonly from: Frozen };

/**
 * What changed from one moment to another, in the order of ids. What is withdrawn is not there: it is gone, or was added.
 * Compared the other way round it is the same backwards.
 */
export function compareFrozen(before: readonly Frozen[], after: readonly Frozen[]): FrozenChange[] {
  const was = active(before);
  const is = active(after);
  const ids = new Set([...was.keys(), ...is.keys()]);
  // What changed is little beside what is there: only that is put in order.
  return [...ids].flatMap((id) => changeOf(was.get(id), is.get(id)) ?? []).sort((a, b) => byId(changedItem(a).id, changedItem(b).id));
}

function changeOf(from: Frozen | undefined, to: Frozen | undefined): FrozenChange | null {
  if (from === undefined) return to === undefined ? null : { kind: 'added', to };
  if (to === undefined) return { kind: 'gone', from };
  if (from.version !== to.version) return { kind: 'changed', from, to, meant: isMeant(from, to) };
  return from.state === to.state ? null : { kind: 'state', from, to };
}

function active(items: readonly Frozen[]): Map<ArtefactId, Frozen> {
  return new Map(items.flatMap((item) => (item.state === 'withdrawn' ? [] : [[item.id, item] as const])));
}

/** Whether two versions of an artefact mean something else: the meaning of the later of the two began after the earlier one. */
export function isMeant(from: Pick<Frozen, 'version' | 'meaningSince'>, to: Pick<Frozen, 'version' | 'meaningSince'>): boolean {
  const [earlier, later] = from.version < to.version ? [from, to] : [to, from];
  return later.meaningSince > earlier.version;
}

/** Kinds in working order, then numbers. */
export function byId(a: ArtefactId, b: ArtefactId): number {
  const [x, y] = [parseArtefactId(a), parseArtefactId(b)];
  if (x === null || y === null) return 0;
  return ARTEFACT_KINDS.indexOf(x.kind) - ARTEFACT_KINDS.indexOf(y.kind) || x.number - y.number;
}

/** The artefact a change is about, as it is after it, or was where it is gone. */
export function changedItem(change: FrozenChange): Frozen {
  return change.kind === 'gone' ? change.from : change.to;
}
