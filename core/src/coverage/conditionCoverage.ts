import type { CoveringId, ConditionId } from '../artefacts/index.ts';
import type { ConditionContent, CoverageItem, ItemKey, LeftOut, ModelJudge } from '../conditions/index.ts';
import { instanceRef, type Evidence, type InstanceRef } from './evidence.ts';
import { shownIn } from './shownList.ts';
import type { Standing } from './standing.ts';

export interface ItemCoverage {
  readonly item: CoverageItem;
  readonly standing: Standing;
  /** How many instances demonstrate it, through suspect links too; {@link shownBy} names them. */
  readonly instances: number;
  readonly leftOut: LeftOut | null;
}

export interface ConditionCoverage {
  readonly id: ConditionId;
  readonly items: readonly ItemCoverage[];
  /** The cases that claim to cover the condition, by number. */
  readonly cases: readonly CoveringId[];
  /** What each of these cases shows, in the same order. */
  readonly evidence: readonly Evidence[];
}

/** What one covering case brings. */
export interface CoveringCase {
  readonly id: CoveringId;
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
  readonly judge: ModelJudge;
  /** Whether it hangs on a requirement that changed in meaning since: then all is shown through a suspect link. */
  readonly suspect: boolean;
  /** Keys of the items an open question bears on; `all` when it bears on the whole condition. */
  readonly waiting: WaitingItems;
  /** By number. */
  readonly covering: readonly CoveringCase[];
}

/** The standing of every item, by place. */
export function standingsOf({ content, judge, suspect, waiting, covering }: Grounds): Standing[] {
  const leftOut = placesOf(judge, new Set(content.leftOut.map((l) => l.id)));
  const waits = waiting === 'all' ? null : placesOf(judge, waiting);
  const standings: Standing[] = [];
  for (let place = 0; place < judge.size; place += 1) {
    let demonstrated = false;
    let trusted = false;
    for (const { evidence, suspect: through } of covering) {
      if ((evidence.counts[place] ?? 0) === 0) continue;
      demonstrated = true;
      trusted ||= !suspect && !through;
    }
    standings.push(standingOf(leftOut.has(place), waits === null || waits.has(place), demonstrated, trusted, covering.length > 0));
  }
  return standings;
}

/** The items of a condition with their standings and all that shows them. */
export function conditionCoverage(grounds: Grounds): ConditionCoverage {
  const { id, content, judge, covering } = grounds;
  const standings = standingsOf(grounds);
  const leftOut = new Map(content.leftOut.map((l) => [l.id, l]));
  return {
    id,
    items: judge.items.map((item, place) => ({
      item,
      standing: standings[place] ?? 'gap',
      instances: covering.reduce((sum, c) => sum + (c.evidence.counts[place] ?? 0), 0),
      leftOut: leftOut.get(item.key) ?? null,
    })),
    cases: covering.map((c) => c.id),
    evidence: covering.map((c) => c.evidence),
  };
}

const NONE: ReadonlySet<number> = new Set();

function placesOf(judge: ModelJudge, keys: ReadonlySet<string>): ReadonlySet<number> {
  if (keys.size === 0) return NONE;
  return new Set(judge.items.flatMap((item, place) => (keys.has(item.key) ? [place] : [])));
}

function standingOf(leftOut: boolean, waiting: boolean, demonstrated: boolean, trusted: boolean, linked: boolean): Standing {
  if (leftOut) return 'leftOut';
  if (waiting) return 'waiting';
  if (demonstrated) return trusted ? 'shown' : 'suspect';
  return linked ? 'linked' : 'gap';
}

/** The first instances that demonstrate each item, by place: by case number, then row order. */
export function shownBy(coverage: Pick<ConditionCoverage, 'items' | 'evidence'>, most: number): readonly (readonly InstanceRef[])[] {
  const named: InstanceRef[][] = coverage.items.map(() => []);
  for (const evidence of coverage.evidence) {
    evidence.rows.forEach((row, instance) => {
      for (const place of shownIn(evidence.shown, instance)) {
        const refs = named[place];
        if (refs !== undefined && refs.length < most) refs.push(instanceRef(evidence.case, row));
      }
    });
  }
  return named;
}

/** The keys of the items that nothing demonstrates and that are not left out. */
export function itemsToMake(coverage: ConditionCoverage): ItemKey[] {
  return coverage.items.filter((i) => i.standing === 'gap' || i.standing === 'linked').map((i) => i.item.key);
}
