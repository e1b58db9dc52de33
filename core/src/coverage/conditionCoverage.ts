import type { CaseId, ConditionId } from '../artefacts/index.ts';
import { coverageItems, type ConditionContent, type CoverageItem, type ItemKey, type LeftOut } from '../conditions/index.ts';
import type { Evidence, InstanceRef } from './evidence.ts';
import type { Standing } from './standing.ts';

export interface ItemCoverage {
  readonly item: CoverageItem;
  readonly standing: Standing;
  /** Every instance that demonstrates it, by case number, then row order; through suspect links too. */
  readonly shownBy: readonly InstanceRef[];
  readonly leftOut: LeftOut | null;
}

export interface ConditionCoverage {
  readonly id: ConditionId;
  readonly items: readonly ItemCoverage[];
  /** The cases that claim to cover the condition, by number. */
  readonly cases: readonly CaseId[];
}

/** What one covering case brings. */
export interface CoveringCase {
  readonly id: CaseId;
  /** Whether the condition changed in meaning since the case was linked to it. */
  readonly suspect: boolean;
  readonly evidence: Evidence;
}

/** The items that wait for an answer. */
export type WaitingItems = 'all' | ReadonlySet<string>;

/** What the standings of a condition's items follow from. */
export interface Grounds {
  readonly id: ConditionId;
  readonly content: ConditionContent;
  /** How many items it has. */
  readonly size: number;
  /** Whether it hangs on a requirement that changed in meaning since: then all is shown through a suspect link. */
  readonly suspect: boolean;
  /** Keys of the items an open question bears on; `all` when it bears on the whole condition. */
  readonly waiting: WaitingItems;
  /** By number. */
  readonly covering: readonly CoveringCase[];
}

/** The standing of every item, by place. */
export function standingsOf({ content, size, suspect, waiting, covering }: Grounds): Standing[] {
  const leftOut = placesOf(content, new Set(content.leftOut.map((l) => l.id)));
  const waits = waiting === 'all' ? null : placesOf(content, waiting);
  const standings: Standing[] = [];
  for (let place = 0; place < size; place += 1) {
    let demonstrated = false;
    let trusted = false;
    for (const { evidence, suspect: through } of covering) {
      if (evidence[place] === undefined) continue;
      demonstrated = true;
      trusted ||= !suspect && !through;
    }
    standings.push(standingOf(leftOut.has(place), waits === null || waits.has(place), demonstrated, trusted, covering.length > 0));
  }
  return standings;
}

/** The items of a condition with their standings and all that shows them. */
export function conditionCoverage(grounds: Grounds): ConditionCoverage {
  const { id, content, covering } = grounds;
  const standings = standingsOf(grounds);
  const leftOut = new Map(content.leftOut.map((l) => [l.id, l]));
  return {
    id,
    items: coverageItems(content).map((item, place) => ({
      item,
      standing: standings[place] ?? 'gap',
      shownBy: covering.flatMap((c) => c.evidence[place] ?? []),
      leftOut: leftOut.get(item.key) ?? null,
    })),
    cases: covering.map((c) => c.id),
  };
}

const NONE: ReadonlySet<number> = new Set();

function placesOf(content: ConditionContent, keys: ReadonlySet<string>): ReadonlySet<number> {
  if (keys.size === 0) return NONE;
  return new Set(coverageItems(content).flatMap((item, place) => (keys.has(item.key) ? [place] : [])));
}

function standingOf(leftOut: boolean, waiting: boolean, demonstrated: boolean, trusted: boolean, linked: boolean): Standing {
  if (leftOut) return 'leftOut';
  if (waiting) return 'waiting';
  if (demonstrated) return trusted ? 'shown' : 'suspect';
  return linked ? 'linked' : 'gap';
}

/** The keys of the items that nothing demonstrates and that are not left out. */
export function itemsToMake(coverage: ConditionCoverage): ItemKey[] {
  return coverage.items.filter((i) => i.standing === 'gap' || i.standing === 'linked').map((i) => i.item.key);
}
