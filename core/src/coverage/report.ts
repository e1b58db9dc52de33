import type { CaseId, ConditionId, RequirementId } from '../artefacts/index.ts';
import type { Risk } from '../basis/index.ts';
import { TECHNIQUES, TECHNIQUE_OF_ITEM, type CoverageItem, type Technique } from '../conditions/index.ts';
import type { CoverageIndex, ConditionTally } from './coverageIndex.ts';
import { sumTallies } from './coverageIndex.ts';
import type { DesignRequirement } from './design.ts';
import type { InstanceRef } from './evidence.ts';
import { NO_ITEMS, addCounts, type Standing, type StandingCounts } from './standing.ts';

/** A row of the wall. */
export interface RequirementCoverage {
  readonly id: RequirementId;
  readonly title: string;
  readonly module: string;
  readonly risk: Risk;
  readonly counts: StandingCounts;
  /** By condition number; the standings in the order of the condition's items. */
  readonly conditions: readonly { readonly id: ConditionId; readonly standings: readonly Standing[] }[];
}

export interface CoverageReport {
  /** Each item once, also when its condition serves several requirements. */
  readonly counts: StandingCounts;
  /** Each item as often as its risk weighs. */
  readonly weighted: StandingCounts;
  readonly byTechnique: Readonly<Record<Technique, StandingCounts>>;
  /** In outline order of the first requirement; an item counts in every module that has a requirement of it. */
  readonly byModule: readonly { readonly module: string; readonly counts: StandingCounts; readonly requirements: number }[];
  /** In outline order, withdrawn ones left out. */
  readonly requirements: readonly RequirementCoverage[];
  /** Requirements without a counted condition: not 100 %, but unanalysed. */
  readonly unanalysed: readonly RequirementId[];
  readonly cases: number;
  readonly instances: number;
  /** Summed estimate of the instances whose case has one. */
  readonly minutes: number;
}

/** One item in a list behind a number. */
export interface ListedItem {
  readonly condition: ConditionId;
  readonly conditionTitle: string;
  readonly requirements: readonly RequirementId[];
  readonly weight: number;
  readonly item: CoverageItem;
  readonly standing: Standing;
  /** At most {@link MOST_LISTED_INSTANCES}. */
  readonly shownBy: readonly InstanceRef[];
  readonly instances: number;
  readonly cases: readonly CaseId[];
}

export interface ItemFilter {
  readonly standings?: readonly Standing[] | undefined;
  readonly requirement?: RequirementId | undefined;
  readonly technique?: Technique | undefined;
  readonly module?: string | undefined;
}

export const MOST_LISTED_INSTANCES = 5;

/** The numbers of a project. */
export function coverageReport(index: CoverageIndex): CoverageReport {
  const byRequirement = conditionsByRequirement(index);
  const requirements = index.requirements.map((r) => requirementCoverage(index, r, byRequirement.get(r.id) ?? []));
  return {
    counts: sumTallies(index.tallies.values()),
    weighted: sumTallies(index.tallies.values(), true),
    byTechnique: sumByTechnique(index.tallies.values()),
    byModule: moduleCoverage(index, byRequirement),
    requirements,
    unanalysed: requirements.filter((r) => r.conditions.length === 0).map((r) => r.id),
    ...effort(index),
  };
}

/** Items for a list, worst first: by weight, then outline order of the requirement, condition and item number. */
export function listItems(index: CoverageIndex, filter: ItemFilter, limit: number): { readonly items: readonly ListedItem[]; readonly total: number } {
  const items: ListedItem[] = [];
  let total = 0;
  for (const id of worstFirst(index, filter)) {
    for (const item of index.coverages.get(id)?.items ?? []) {
      if (filter.standings !== undefined && !filter.standings.includes(item.standing)) continue;
      if (filter.technique !== undefined && TECHNIQUE_OF_ITEM[item.item.kind] !== filter.technique) continue;
      total += 1;
      if (items.length < limit) items.push(listedItem(index, id, item));
    }
  }
  return { items, total };
}

function listedItem(index: CoverageIndex, id: ConditionId, { item, standing, shownBy }: { item: CoverageItem; standing: Standing; shownBy: readonly InstanceRef[] }): ListedItem {
  const content = index.conditions.get(id)?.content;
  return {
    condition: id,
    conditionTitle: content?.title ?? '',
    requirements: content?.requirements.map((r) => r.id) ?? [],
    weight: index.tallies.get(id)?.weight ?? 1,
    item,
    standing,
    shownBy: shownBy.slice(0, MOST_LISTED_INSTANCES),
    instances: shownBy.length,
    cases: index.coverages.get(id)?.cases ?? [],
  };
}

function worstFirst(index: CoverageIndex, filter: ItemFilter): ConditionId[] {
  const place = new Map(index.requirements.map((r, i) => [r.id, { order: i, module: r.module }]));
  const wanted = [...index.coverages.keys()].flatMap((id) => {
    const own = index.conditions.get(id)?.content.requirements.flatMap((r) => place.get(r.id) ?? []) ?? [];
    const inModule = filter.module === undefined || own.some((p) => p.module === filter.module);
    const inRequirement = filter.requirement === undefined || index.conditions.get(id)?.content.requirements.some((r) => r.id === filter.requirement);
    if (!inModule || !inRequirement) return [];
    return [{ id, weight: index.tallies.get(id)?.weight ?? 1, order: Math.min(...own.map((p) => p.order)), number: Number(id.slice(2)) }];
  });
  return wanted.sort((a, b) => b.weight - a.weight || a.order - b.order || a.number - b.number).map((w) => w.id);
}

function conditionsByRequirement(index: CoverageIndex): Map<RequirementId, ConditionId[]> {
  const byRequirement = new Map<RequirementId, ConditionId[]>();
  for (const id of [...index.tallies.keys()].sort((a, b) => Number(a.slice(2)) - Number(b.slice(2)))) {
    for (const link of index.conditions.get(id)?.content.requirements ?? []) {
      const ids = byRequirement.get(link.id);
      if (ids === undefined) byRequirement.set(link.id, [id]);
      else ids.push(id);
    }
  }
  return byRequirement;
}

function requirementCoverage(index: CoverageIndex, requirement: DesignRequirement, ids: readonly ConditionId[]): RequirementCoverage {
  const tallies = talliesOf(index, ids);
  return {
    id: requirement.id,
    title: requirement.title,
    module: requirement.module,
    risk: requirement.risk,
    counts: sumTallies(tallies),
    conditions: ids.map((id) => ({ id, standings: index.tallies.get(id)?.standings ?? [] })),
  };
}

function talliesOf(index: CoverageIndex, ids: Iterable<ConditionId>): ConditionTally[] {
  return [...ids].flatMap((id) => index.tallies.get(id) ?? []);
}

function sumByTechnique(tallies: Iterable<ConditionTally>): Record<Technique, StandingCounts> {
  const sums: Record<Technique, StandingCounts> = { partitions: NO_ITEMS, boundaries: NO_ITEMS, plain: NO_ITEMS };
  for (const t of tallies) for (const technique of TECHNIQUES) sums[technique] = addCounts(sums[technique], t.byTechnique[technique]);
  return sums;
}

function moduleCoverage(index: CoverageIndex, byRequirement: ReadonlyMap<RequirementId, readonly ConditionId[]>): CoverageReport['byModule'] {
  const modules = new Map<string, { conditions: Set<ConditionId>; requirements: number }>();
  for (const requirement of index.requirements) {
    const entry = modules.get(requirement.module) ?? { conditions: new Set<ConditionId>(), requirements: 0 };
    for (const id of byRequirement.get(requirement.id) ?? []) entry.conditions.add(id);
    modules.set(requirement.module, { ...entry, requirements: entry.requirements + 1 });
  }
  return [...modules].map(([module, { conditions, requirements }]) => ({ module, requirements, counts: sumTallies(talliesOf(index, conditions)) }));
}

function effort(index: CoverageIndex): { cases: number; instances: number; minutes: number } {
  let [cases, instances, minutes] = [0, 0, 0];
  for (const { state, content } of index.cases.values()) {
    if (state === 'withdrawn') continue;
    const own = Math.max(1, content.rows.length);
    cases += 1;
    instances += own;
    minutes += own * (content.estimate ?? 0);
  }
  return { cases, instances, minutes };
}

/** What a case comes to: it shows items, it only claims to cover, or it covers nothing. */
export type CaseMark = 'shows' | 'linked' | 'nothing';

/** The mark of every counted case. */
export function caseMarks(index: CoverageIndex): Map<CaseId, CaseMark> {
  const showing = new Set<CaseId>();
  for (const coverage of index.coverages.values()) {
    for (const item of coverage.items) for (const instance of item.shownBy) showing.add(instance.case);
  }
  const marks = new Map<CaseId, CaseMark>();
  for (const { id, state, content } of index.cases.values()) {
    if (state !== 'withdrawn') marks.set(id, showing.has(id) ? 'shows' : content.covers.length > 0 ? 'linked' : 'nothing');
  }
  return marks;
}
