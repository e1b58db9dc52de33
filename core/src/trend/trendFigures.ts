import type { RequirementId, SuiteId } from '../artefacts/index.ts';
import type { Risk } from '../basis/index.ts';
import type { Technique } from '../conditions/index.ts';
import type { ScenarioEffort } from '../scenarios/index.ts';
import { CountSum, NO_ITEMS, STANDINGS, chosenCoverage, coverageReport, itemsToShow, riskOf, type Choice, type CoverageIndex, type CoverageReport, type StandingCounts } from '../coverage/index.ts';

/** What a project comes to at a moment, without its single requirements. */
export interface TrendFigures {
  readonly counts: StandingCounts;
  /** Each item as often as its risk weighs. */
  readonly weighted: StandingCounts;
  /** An item is of the risk of its condition: its own, or the highest of its requirements'. */
  readonly byRisk: Readonly<Record<Risk, StandingCounts>>;
  readonly byTechnique: Readonly<Record<Technique, StandingCounts>>;
  /** An item counts in every module that has a requirement of it. */
  readonly byModule: readonly { readonly module: string; readonly counts: StandingCounts }[];
  /** Of suites that were not withdrawn: what their members of then showed. */
  readonly suites: readonly SuiteThen[];
  /** Counted requirements, and those of them without a condition. */
  readonly requirements: number;
  readonly unanalysed: number;
  /** Cases that are not withdrawn, how often they are executed, and how many minutes that takes. */
  readonly cases: number;
  readonly instances: number;
  readonly minutes: number;
  /** The same of scenarios of features that are not withdrawn. */
  readonly scenarios: ScenarioEffort;
}

/** A suite as it was at a moment. */
export interface SuiteThen {
  readonly id: SuiteId;
  readonly title: string;
  readonly counts: StandingCounts;
}

/** A suite of an index and what it chooses. */
export interface SuiteChoice {
  readonly id: SuiteId;
  readonly title: string;
  readonly choice: Choice;
}

/** What every counted requirement comes to, by its id. */
export type RequirementsThen = ReadonlyMap<RequirementId, { readonly title: string; readonly counts: StandingCounts }>;

/** The figures of an index at this moment; what suites choose and scenarios take is known to features and settings, not to an index. */
export function trendFigures(index: CoverageIndex, suites: readonly SuiteChoice[], scenarios: ScenarioEffort): TrendFigures {
  const { counts, weighted, byTechnique, byModule, requirements, unanalysed, cases, instances, minutes } = coverageReport(index);
  return {
    counts,
    weighted,
    byRisk: riskCounts(index),
    byTechnique,
    byModule: byModule.map((m) => ({ module: m.module, counts: m.counts })),
    suites: suites.map(({ id, title, choice }) => ({ id, title, counts: chosenCoverage(index, choice).counts })),
    requirements: requirements.length,
    unanalysed: unanalysed.length,
    cases,
    instances,
    minutes,
    scenarios,
  };
}

/** The requirements of an index at this moment. */
export function requirementsThen(report: Pick<CoverageReport, 'requirements'>): RequirementsThen {
  return new Map(report.requirements.map(({ id, title, counts }) => [id, { title, counts }]));
}

function riskCounts(index: CoverageIndex): TrendFigures['byRisk'] {
  const sums: Record<Risk, CountSum> = { high: new CountSum(), medium: new CountSum(), low: new CountSum() };
  for (const entry of index.entries.values()) if (entry.counted !== null) sums[riskOf(index, entry)].add(entry.counted.tally.counts);
  return { high: sums.high.counts, medium: sums.medium.counts, low: sums.low.counts };
}

/** A requirement that came to something else from one moment to the next; null: it was not counted then. */
export interface Bend {
  readonly id: RequirementId;
  readonly title: string;
  readonly before: StandingCounts | null;
  readonly after: StandingCounts | null;
}

/** The requirements that made a curve bend, those that lost or gained most shown items first, then most items to be shown, then by their numbers. */
export function bends(before: RequirementsThen, after: RequirementsThen): Bend[] {
  const ids = new Set([...before.keys(), ...after.keys()]);
  const all = [...ids].flatMap((id): Bend[] => {
    const [then, now] = [before.get(id), after.get(id)];
    const title = now?.title ?? then?.title ?? '';
    const bend: Bend = { id, title, before: then?.counts ?? null, after: now?.counts ?? null };
    return isBend(bend) ? [bend] : [];
  });
  return all.sort((a, b) => moved(b) - moved(a) || grown(b) - grown(a) || Number(a.id.slice(2)) - Number(b.id.slice(2)));
}

/** A requirement that is only there, or only gone, without an item moved nothing but itself: that is told, too. */
function isBend({ before, after }: Bend): boolean {
  if (before === null || after === null) return true;
  return STANDINGS.some((standing) => before[standing] !== after[standing]);
}

function grown({ before, after }: Bend): number {
  return Math.abs(itemsToShow(after ?? NO_ITEMS) - itemsToShow(before ?? NO_ITEMS));
}

function moved({ before, after }: Bend): number {
  return Math.abs((after?.shown ?? 0) - (before?.shown ?? 0));
}
