import type { ConditionId, CoveringId, RequirementId } from '../artefacts/index.ts';
import { RISKS, type Risk } from '../basis/index.ts';
import type { CaseCounts } from './caseCounts.ts';
import { standingsOf, type CoveringCase, type Grounds } from './conditionCoverage.ts';
import type { ConditionEntry, CoverageIndex } from './coverageIndex.ts';
import type { DesignCase, DesignLibrary } from './design.ts';
import { perTechnique, tallyOf, Totals, type ConditionTally } from './totals.ts';
import { requirementRow, type CoverageReport, type RequirementCoverage } from './report.ts';

/** Some of a project's cases and scenarios, without the others. */
export interface Choice {
  /** Each once. */
  readonly ids: readonly CoveringId[];
  /** Those of them that are meant in another content than the latest, with what that uses besides. */
  readonly instead: { readonly cases: readonly DesignCase[]; readonly library: DesignLibrary };
}

/** What a chosen case or scenario comes to among the chosen ones. */
export interface ChosenCase {
  readonly id: CoveringId;
  /** Null: nothing is known of it here, as of a scenario that covers nothing. */
  readonly counts: CaseCounts | null;
  /** Items that it shows. */
  readonly shows: number;
  /** Of these, items that no other of the chosen ones shows. */
  readonly alone: number;
}

/** Items of conditions of a risk. */
export interface RiskShare {
  /** To be shown: those left out are not among them. */
  readonly items: number;
  readonly shown: number;
  /** Not shown by what is chosen, but by something else. */
  readonly elsewhere: number;
}

/** What a choice shows of the whole project. An item that only others show or claim is a gap. */
export interface ChosenCoverage extends Pick<CoverageReport, 'counts' | 'weighted' | 'byTechnique'> {
  readonly byRisk: Readonly<Record<Risk, RiskShare>>;
  /** Of those with a condition that something chosen covers, in outline order. */
  readonly requirements: readonly RequirementCoverage[];
  /** In the order in which they were named. */
  readonly cases: readonly ChosenCase[];
}

/** What chosen cases and scenarios show, each at the version at which it is meant; withdrawn ones show nothing. */
export function chosenCoverage(index: CoverageIndex, choice: Choice): ChosenCoverage {
  const chosen = new Chosen(index, choice);
  const totals = new Totals();
  const byRisk = { high: { ...NO_SHARE }, medium: { ...NO_SHARE }, low: { ...NO_SHARE } };
  const own = new Map(choice.ids.map((id) => [id, { shows: 0, alone: 0 }]));
  const tallies = new Map<ConditionId, ConditionTally>();
  for (const entry of index.entries.values()) {
    if (entry.counted === null) continue;
    const covering = chosen.covering(entry, entry.counted.grounds);
    const { tally, shown, risk, share } = judged(index, entry, entry.counted, covering);
    totals.add(tally);
    addShare(byRisk[risk], share);
    if (covering.length === 0) continue;
    tallies.set(entry.id, tally);
    for (const { id, shows, alone } of shown) {
      const sum = own.get(id);
      if (sum === undefined) continue;
      sum.shows += shows;
      sum.alone += alone;
    }
  }
  return {
    counts: totals.all.counts,
    weighted: totals.weighted.counts,
    byTechnique: perTechnique((technique) => totals.byTechnique[technique].counts),
    byRisk,
    requirements: touchedRequirements(index, tallies),
    cases: choice.ids.map((id) => ({ id, counts: chosen.countsOf(id), ...(own.get(id) ?? { shows: 0, alone: 0 }) })),
  };
}

/** Looks up what is chosen of all that covers a condition. */
export class Chosen {
  readonly #index: CoverageIndex;
  readonly #ids: ReadonlySet<CoveringId>;
  /** What shows in the place of what the index holds. */
  readonly #instead: ReadonlyMap<CoveringId, ReturnType<CoverageIndex['evidenceOf']> | null>;
  readonly #insteadAt = new Map<ConditionEntry, CoveringCase[]>();

  constructor(index: CoverageIndex, { ids, instead }: Choice) {
    this.#index = index;
    this.#ids = new Set(ids);
    this.#instead = new Map(instead.cases.map((c) => [c.id, c.state === 'withdrawn' ? null : index.evidenceOf(c, instead.library)]));
    for (const read of this.#instead.values()) {
      for (const [entry, covering] of read?.covering ?? []) this.#insteadAt.set(entry, [...(this.#insteadAt.get(entry) ?? []), covering]);
    }
  }

  has(id: CoveringId): boolean {
    return this.#ids.has(id);
  }

  covering(entry: ConditionEntry, { covering }: Pick<Grounds, 'covering'>): readonly CoveringCase[] {
    const instead = this.#insteadAt.get(entry);
    const latest = covering.filter(({ id }) => this.#ids.has(id) && !this.#instead.has(id));
    return instead === undefined ? latest : [...latest, ...instead];
  }

  countsOf(id: CoveringId): CaseCounts | null {
    const instead = this.#instead.get(id);
    if (instead !== undefined) return instead?.counts ?? null;
    const latest = this.#index.cases.get(id);
    return latest === undefined || latest.state === 'withdrawn' ? null : this.#index.countsOf(latest);
  }
}

type Counted = NonNullable<ConditionEntry['counted']>;

/** What a condition comes to when only some of what covers it is chosen, and what each of these shows of it. */
interface Judged {
  readonly covering: readonly CoveringCase[];
  readonly tally: ConditionTally;
  readonly shown: readonly Omit<ChosenCase, 'counts'>[];
  readonly risk: Risk;
  readonly share: RiskShare;
}

/** What was judged last of a condition, with nothing chosen and with something: what is counted is made anew when anything of it changes, its requirements' risks too, and most are asked again with the same choice. */
const lastJudged = new WeakMap<Counted, { none: Judged | null; some: Judged | null }>();

function judged(index: CoverageIndex, entry: ConditionEntry, counted: Counted, covering: readonly CoveringCase[]): Judged {
  const last = lastJudged.get(counted) ?? { none: null, some: null };
  lastJudged.set(counted, last);
  const kind = covering.length === 0 ? 'none' : 'some';
  const known = last[kind];
  if (known !== null && known.covering.length === covering.length && covering.every((c, i) => c === known.covering[i])) return known;
  const tally = tallyOf(standingsOf({ ...counted.grounds, covering }), entry.judge.techniques, counted.tally.weight);
  const made: Judged = { covering, tally, shown: shownBy(covering, tally), risk: riskOf(index, entry), share: shareOf(tally, counted.tally) };
  last[kind] = made;
  return made;
}

/** What each of the chosen ones shows of a condition, and what it shows alone. Only items that count as shown. */
function shownBy(covering: readonly CoveringCase[], { standings }: ConditionTally): Judged['shown'] {
  const sums = covering.map(({ id }) => ({ id, shows: 0, alone: 0 }));
  standings.forEach((standing, place) => {
    if (standing !== 'shown') return;
    const showing = sums.filter((_, i) => (covering[i]?.evidence.counts[place] ?? 0) > 0);
    for (const sum of showing) sum.shows += 1;
    if (showing.length === 1 && showing[0] !== undefined) showing[0].alone += 1;
  });
  return sums;
}

const NO_SHARE: RiskShare = { items: 0, shown: 0, elsewhere: 0 };
type Adding<S> = { -readonly [K in keyof S]: S[K] };

function shareOf(chosen: ConditionTally, whole: ConditionTally): RiskShare {
  const share: Adding<RiskShare> = { ...NO_SHARE };
  chosen.standings.forEach((standing, place) => {
    if (standing !== 'leftOut') share.items += 1;
    if (standing === 'shown') share.shown += 1;
    else if (whole.standings[place] === 'shown') share.elsewhere += 1;
  });
  return share;
}

function addShare(sum: Adding<RiskShare>, { items, shown, elsewhere }: RiskShare): void {
  sum.items += items;
  sum.shown += shown;
  sum.elsewhere += elsewhere;
}

/** Its own, or the highest of its requirements'. */
export function riskOf(index: CoverageIndex, { condition: { content } }: ConditionEntry): Risk {
  const risks = new Set(content.requirements.map((r) => index.requirements.get(r.id)?.requirement.risk));
  return content.risk ?? RISKS.find((risk) => risks.has(risk)) ?? 'low';
}

function touchedRequirements(index: CoverageIndex, tallies: ReadonlyMap<ConditionId, ConditionTally>): RequirementCoverage[] {
  const touched = new Set<RequirementId>();
  for (const id of tallies.keys()) for (const link of index.entries.get(id)?.condition.content.requirements ?? []) touched.add(link.id);
  return [...index.requirements.values()].flatMap(({ requirement, conditions }) => {
    if (!touched.has(requirement.id)) return [];
    const counted = [...conditions].flatMap((entry) => (entry.counted === null ? [] : [{ id: entry.id, tally: tallies.get(entry.id) ?? judged(index, entry, entry.counted, []).tally }]));
    return [requirementRow(requirement, counted)];
  });
}
