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

/**
 * The standing of every item of a condition. `suspect`: whether the condition itself hangs on a requirement that
 * changed in meaning since; then all that is shown is shown through a suspect link.
 */
export function conditionCoverage(id: ConditionId, content: ConditionContent, suspect: boolean, covering: readonly CoveringCase[]): ConditionCoverage {
  const sorted = [...covering].sort((a, b) => Number(a.id.slice(2)) - Number(b.id.slice(2)));
  const leftOut = new Map(content.leftOut.map((l) => [l.id, l]));
  return {
    id,
    items: coverageItems(content).map((item) => itemCoverage(item, leftOut.get(item.key) ?? null, suspect, sorted)),
    cases: sorted.map((c) => c.id),
  };
}

function itemCoverage(item: CoverageItem, leftOut: LeftOut | null, suspect: boolean, covering: readonly CoveringCase[]): ItemCoverage {
  const showing = covering.filter((c) => c.evidence.has(item.key));
  const shownBy = showing.flatMap((c) => c.evidence.get(item.key) ?? []);
  const trusted = !suspect && showing.some((c) => !c.suspect);
  return { item, standing: standingOf(leftOut !== null, showing.length > 0, trusted, covering.length > 0), shownBy, leftOut };
}

function standingOf(leftOut: boolean, demonstrated: boolean, trusted: boolean, linked: boolean): Standing {
  if (leftOut) return 'leftOut';
  if (demonstrated) return trusted ? 'shown' : 'suspect';
  return linked ? 'linked' : 'gap';
}

/** The keys of the items that nothing demonstrates and that are not left out. */
export function itemsToMake(coverage: ConditionCoverage): ItemKey[] {
  return coverage.items.filter((i) => i.standing === 'gap' || i.standing === 'linked').map((i) => i.item.key);
}
