import { ARTEFACT_KINDS, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import type { Summary } from '@caderno/contract';

/** What lists show of all artefacts of a project. Never changed: what happens makes the next one. */
export interface Heads {
  readonly byId: ReadonlyMap<ArtefactId, Summary>;
  /** In the order in which lists show them: requirements by position, the others by module; then by number. */
  readonly lists: { readonly [K in ArtefactKind]: readonly HeadOf<K>[] };
}

export type HeadOf<K extends ArtefactKind> = Extract<Summary, { kind: K }>;

const EMPTY = Object.fromEntries(ARTEFACT_KINDS.map((kind) => [kind, []])) as unknown as Heads['lists'];

/** Beyond this many at once a list is sorted anew; putting each into its place would take longer. */
const MOST_INSERTED = 50;

const words = new Intl.Collator('en');

export function headsOf(heads: Iterable<Summary>): Heads {
  return headsAfter({ byId: new Map(), lists: EMPTY }, heads, []);
}

/** The heads after some are new or changed and others are gone. Lists in which nothing happened stay the same objects. */
export function headsAfter(before: Heads, changed: Iterable<Summary>, gone: readonly ArtefactId[]): Heads {
  const byId = new Map(before.byId);
  const touched = new Map<ArtefactKind, Set<ArtefactId>>();
  const touch = ({ kind, id }: Summary): void => void touched.set(kind, (touched.get(kind) ?? new Set()).add(id));
  for (const head of changed) {
    byId.set(head.id, head);
    touch(head);
  }
  for (const id of gone) {
    const head = byId.get(id);
    if (head === undefined) continue;
    byId.delete(id);
    touch(head);
  }
  const lists = { ...before.lists };
  for (const [kind, ids] of touched) Object.assign(lists, { [kind]: listAfter(lists[kind], ids, byId) });
  return { byId, lists };
}

function listAfter(list: readonly Summary[], ids: ReadonlySet<ArtefactId>, byId: ReadonlyMap<ArtefactId, Summary>): Summary[] {
  const next = list.filter((head) => !ids.has(head.id));
  const added = [...ids].flatMap((id) => byId.get(id) ?? []);
  if (added.length > MOST_INSERTED) return [...next, ...added].sort(inOrder);
  for (const head of added) next.splice(placeOf(next, head), 0, head);
  return next;
}

/** Where a head belongs in a sorted list. */
function placeOf(list: readonly Summary[], head: Summary): number {
  let [from, to] = [0, list.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    const there = list[middle];
    if (there !== undefined && inOrder(there, head) < 0) from = middle + 1;
    else to = middle;
  }
  return from;
}

function inOrder(a: Summary, b: Summary): number {
  const first = a.kind === 'requirement' && b.kind === 'requirement' ? a.position - b.position : words.compare(a.module, b.module);
  return first || numberOf(a) - numberOf(b);
}

function numberOf({ id }: Summary): number {
  return Number(id.slice(2));
}
