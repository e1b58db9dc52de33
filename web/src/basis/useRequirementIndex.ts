import type { ArtefactId, RequirementId } from '@caderno/core/artefacts';
import { orderOutline } from '@caderno/core/basis';
import type { RequirementSummary } from '@caderno/contract';
import { useMemo } from 'react';
import { useListed, type ListedHead } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useListing, type Listing } from '../listing/index.ts';
import { useSelection } from '../look/index.ts';

/** The requirements as the left page shows them. */
export interface RequirementIndex {
  readonly listing: Listing<'requirement'>;
  /** The requirements of the outline; null: they are grouped or sorted, and stand in a list. */
  readonly outline: readonly RequirementSummary[] | null;
  /** What was looked for; null: nothing was, all are there. */
  readonly found: ReadonlySet<RequirementId> | null;
  /** In the order in which they are seen. */
  readonly ids: readonly RequirementId[];
}

/** As an outline until they are grouped or sorted. `weak`: only those with weak words, by how many; null: all. */
export function useRequirementIndex(requirements: readonly RequirementSummary[] | undefined, weak: Readonly<Record<string, number>> | null): RequirementIndex {
  const listing = useListing('requirement', 'outline');
  // What is withdrawn is seen in the outline, and can be brought back from there.
  const all = useListed(useFrame().project, 'requirement', 'state:any').data;
  const { view, list } = listing;
  const isOutline = view.group === null && view.sort === null;
  const found = useMemo(() => (view.query === '' && weak === null ? null : new Set(list?.flatMap((l) => (weak === null || weak[l.id] !== undefined ? [l.head.id] : [])))), [list, view.query, weak]);
  const shown = useMemo(() => (found === null ? (requirements ?? []) : withThoseAbove(requirements ?? [], found)), [found, requirements]);
  const outlineIds = useMemo(() => orderOutline(shown).map((e) => e.place.id), [shown]);
  const selectable = useMemo<ArtefactId[]>(() => (found === null ? outlineIds : outlineIds.filter((id) => found.has(id))), [found, outlineIds]);
  const selection = useSelection(selectable);
  const chosen = useMemo(() => {
    const byId = new Map<ArtefactId, ListedHead<'requirement'>>(all?.map((listed) => [listed.id, listed]));
    return selection.chosen.flatMap((id) => byId.get(id) ?? []);
  }, [all, selection.chosen]);
  const listIds = useMemo(() => [...new Set(listing.lines.flatMap((line) => (line.kind === 'artefact' ? [line.listed.head.id] : [])))], [listing.lines]);
  if (!isOutline) return { listing, outline: null, found, ids: listIds };
  return { listing: { ...listing, ids: selectable, selection, chosen }, outline: shown, found, ids: outlineIds };
}

/** What was found, with the requirements above it so that its place is seen. */
function withThoseAbove(requirements: readonly RequirementSummary[], found: ReadonlySet<RequirementId>): readonly RequirementSummary[] {
  const byId = new Map(requirements.map((r) => [r.id, r]));
  const kept = new Set<RequirementId>();
  for (const id of found) for (let at = byId.get(id); at !== undefined && !kept.has(at.id); at = at.parent === null ? undefined : byId.get(at.parent)) kept.add(at.id);
  return requirements.filter((r) => kept.has(r.id));
}
