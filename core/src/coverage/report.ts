import { isCaseId, type CoveringId, type ConditionId, type RequirementId } from '../artefacts/index.ts';
import { RISKS, type Risk } from '../basis/index.ts';
import type { CoverageItem, Technique } from '../conditions/index.ts';
import { conditionCoverage, shownBy } from './conditionCoverage.ts';
import type { ConditionEntry, CoverageIndex, RequirementEntry } from './coverageIndex.ts';
import type { InstanceRef } from './evidence.ts';
import { perTechnique, type ConditionTally, type Totals } from './totals.ts';
import { CountSum, countStandings, type Standing, type StandingCounts } from './standing.ts';

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
  /** In outline order, withdrawn ones and headings left out. */
  readonly requirements: readonly RequirementCoverage[];
  /** Requirements without a counted condition: not 100 %, but not analysed yet. Those of the highest risk first, then in outline order. */
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
  readonly cases: readonly CoveringId[];
}

export interface ItemFilter {
  readonly standings?: readonly Standing[] | undefined;
  readonly requirement?: RequirementId | undefined;
  readonly technique?: Technique | undefined;
  readonly module?: string | undefined;
}

export const MOST_LISTED_INSTANCES = 5;

/** How many cases there are and what executing them takes; scenarios are counted by their features. */
export type Effort = Pick<CoverageReport, 'cases' | 'instances' | 'minutes'>;

/** The numbers of a project. Rows in which nothing changed since the last report are not made again. */
export function coverageReport(index: CoverageIndex): CoverageReport {
  return assembleReport([...index.requirements.values()].map(rowOf), index.totals, effort(index));
}

/** The report of its rows, in outline order, and the sums over all conditions. */
export function assembleReport(requirements: readonly RequirementCoverage[], { all, weighted, byTechnique }: Totals, effort: Effort): CoverageReport {
  return {
    counts: all.counts,
    weighted: weighted.counts,
    byTechnique: perTechnique((technique) => byTechnique[technique].counts),
    byModule: moduleCoverage(requirements),
    requirements,
    unanalysed: RISKS.flatMap((risk) => requirements.filter((r) => r.risk === risk && r.conditions.length === 0).map((r) => r.id)),
    ...effort,
  };
}

/** The rows of the requirements that are not analysed yet, those of the highest risk first. */
export function unanalysedRows({ requirements, unanalysed }: CoverageReport): readonly RequirementCoverage[] {
  const rows = new Map(requirements.map((r) => [r.id, r]));
  return unanalysed.flatMap((id) => rows.get(id) ?? []);
}

function rowOf(entry: RequirementEntry): RequirementCoverage {
  const kept = entry as RequirementEntry<RequirementCoverage>;
  kept.row ??= newRow(entry);
  return kept.row;
}

function newRow({ requirement, conditions }: RequirementEntry): RequirementCoverage {
  return requirementRow(requirement, [...conditions].flatMap((c) => (c.counted === null ? [] : [{ id: c.id, tally: c.counted.tally }])));
}

/** The row of a requirement and its counted conditions, in any order. */
export function requirementRow({ id, title, module, risk }: Pick<RequirementCoverage, 'id' | 'title' | 'module' | 'risk'>, conditions: readonly { readonly id: ConditionId; readonly tally: ConditionTally }[]): RequirementCoverage {
  const sum = new CountSum();
  for (const { tally } of conditions) sum.add(tally.counts);
  const inOrder = conditions.toSorted((a, b) => numberOf(a.id) - numberOf(b.id));
  return { id, title, module, risk, counts: sum.counts, conditions: inOrder.map((c) => ({ id: c.id, standings: c.tally.standings })) };
}

/** In outline order of each module's first requirement; a condition of several requirements of one module counts once in it. */
function moduleCoverage(rows: readonly RequirementCoverage[]): CoverageReport['byModule'] {
  const modules = new Map<string, { readonly sum: CountSum; readonly seen: Set<ConditionId>; requirements: number }>();
  for (const { module, counts, conditions } of rows) {
    const entry = modules.get(module) ?? { sum: new CountSum(), seen: new Set(), requirements: 0 };
    entry.sum.add(counts);
    entry.requirements += 1;
    for (const { id, standings } of conditions) {
      if (entry.seen.has(id)) entry.sum.add(countStandings(standings), -1);
      entry.seen.add(id);
    }
    modules.set(module, entry);
  }
  return [...modules].map(([module, { sum, requirements }]) => ({ module, requirements, counts: sum.counts }));
}

function numberOf(id: string): number {
  return Number(id.slice(2));
}

/** Items for a list, worst first: by weight, then outline order of the requirement, condition and item number. */
export function listItems(index: CoverageIndex, filter: ItemFilter, limit: number): { readonly items: readonly ListedItem[]; readonly total: number } {
  const items: ListedItem[] = [];
  let total = 0;
  for (const { entry, counted } of worstFirst(index, filter)) {
    const { standings } = counted.tally;
    const { techniques } = entry.judge;
    const places: number[] = [];
    for (let place = 0; place < standings.length; place += 1) {
      if (!isListed(filter, standings[place], techniques[place])) continue;
      total += 1;
      if (items.length + places.length < limit) places.push(place);
    }
    if (places.length > 0) items.push(...listedItems(counted, places));
  }
  return { items, total };
}

function isListed(filter: ItemFilter, standing: Standing | undefined, technique: Technique | undefined): boolean {
  return (filter.standings === undefined || filter.standings.some((s) => s === standing)) && (filter.technique === undefined || technique === filter.technique);
}

type Counted = NonNullable<ConditionEntry['counted']>;

function listedItems({ grounds, tally }: Counted, places: readonly number[]): ListedItem[] {
  const coverage = conditionCoverage(grounds);
  const named = shownBy(coverage, MOST_LISTED_INSTANCES);
  return places.flatMap((place) => {
    const listed = coverage.items[place];
    if (listed === undefined) return [];
    const { item, standing, instances } = listed;
    return {
      condition: grounds.id,
      conditionTitle: grounds.content.title,
      requirements: grounds.content.requirements.map((r) => r.id),
      weight: tally.weight,
      item,
      standing,
      shownBy: named[place] ?? [],
      instances,
      cases: coverage.cases,
    };
  });
}

/** Conditions in the filter: the weightiest first, then in the order in which their first requirement stands in the outline. */
function worstFirst(index: CoverageIndex, filter: ItemFilter): { entry: ConditionEntry; counted: Counted }[] {
  const byWeight = new Map<number, Map<ConditionEntry, Counted>>();
  for (const { requirement, conditions } of index.requirements.values()) {
    if (filter.requirement !== undefined && requirement.id !== filter.requirement) continue;
    if (filter.module !== undefined && requirement.module !== filter.module) continue;
    for (const entry of [...conditions].sort((a, b) => numberOf(a.id) - numberOf(b.id))) {
      if (entry.counted === null) continue;
      const { weight } = entry.counted.tally;
      const group = byWeight.get(weight) ?? new Map<ConditionEntry, Counted>();
      byWeight.set(weight, group.set(entry, entry.counted));
    }
  }
  const groups = [...byWeight].sort(([a], [b]) => b - a).map(([, group]) => group);
  return groups.flatMap((group) => [...group].map(([entry, counted]) => ({ entry, counted })));
}

function effort(index: CoverageIndex): Effort {
  let [cases, instances, minutes] = [0, 0, 0];
  for (const testCase of index.cases.values()) {
    if (testCase.state === 'withdrawn' || !isCaseId(testCase.id)) continue;
    const own = index.countsOf(testCase).instances;
    cases += 1;
    instances = Math.min(instances + own, Number.MAX_SAFE_INTEGER);
    minutes += own * (testCase.content.estimate ?? 0);
  }
  return { cases, instances, minutes };
}

/** What a case comes to: it shows items, it only claims to cover, or it covers nothing. */
export type CaseMark = 'shows' | 'linked' | 'nothing';

/** The cases that show an item of any counted condition. */
export function showingCases(index: CoverageIndex): Set<CoveringId> {
  const showing = new Set<CoveringId>();
  for (const { counted } of index.entries.values()) {
    for (const { id, evidence } of counted?.grounds.covering ?? []) if (!showing.has(id) && evidence.counts.some((count) => count > 0)) showing.add(id);
  }
  return showing;
}

/** The mark of every counted case. */
export function caseMarks(index: CoverageIndex): Map<CoveringId, CaseMark> {
  const showing = showingCases(index);
  const marks = new Map<CoveringId, CaseMark>();
  for (const { id, state, content } of index.cases.values()) {
    if (state !== 'withdrawn') marks.set(id, showing.has(id) ? 'shows' : content.covers.length > 0 ? 'linked' : 'nothing');
  }
  return marks;
}
