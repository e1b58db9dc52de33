import type { CoveringId, RequirementId } from '../artefacts/index.ts';
import type { Risk } from '../basis/index.ts';
import type { CaseCounts } from './caseCounts.ts';
import { Chosen, type Choice } from './chosen.ts';
import type { ConditionEntry, CoverageIndex } from './coverageIndex.ts';
import { judged, type Counted, type Judged, type RiskShare } from './judged.ts';
import { requirementRow, type CoverageReport, type RequirementCoverage } from './report.ts';
import { perTechnique, Totals } from './totals.ts';

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

/** What a choice shows of the whole project. An item that only others show or claim is a gap. */
export interface ChosenCoverage extends Pick<CoverageReport, 'counts' | 'weighted' | 'byTechnique'> {
  readonly byRisk: Readonly<Record<Risk, RiskShare>>;
  /** Of those with a condition that something chosen covers, in outline order. */
  readonly requirements: readonly RequirementCoverage[];
  /** In the order in which they were named. */
  readonly cases: readonly ChosenCase[];
}

/** What chosen cases and scenarios show, each at the version at which it is meant; withdrawn ones show nothing. After a change of the project only what changed is counted again. */
export function chosenCoverage(index: CoverageIndex, choice: Choice): ChosenCoverage {
  // What is read of earlier versions is new each time.
  if (choice.instead.cases.length > 0) return new ChoiceSums(index, choice).coverage();
  const kept = keptOf(index);
  const at = kept.findIndex((sums) => sums.isOf(choice.ids));
  const sums = kept[at] ?? new ChoiceSums(index, choice);
  if (at >= 0) kept.splice(at, 1);
  kept.unshift(sums);
  kept.length = Math.min(kept.length, MOST_KEPT);
  return sums.coverage();
}

/** As many suites as people have open at once in a project; each keeps a few numbers for every condition. */
const MOST_KEPT = 6;
const keptByIndex = new WeakMap<CoverageIndex, ChoiceSums[]>();

function keptOf(index: CoverageIndex): ChoiceSums[] {
  const kept = keptByIndex.get(index) ?? [];
  keptByIndex.set(index, kept);
  return kept;
}

/** What was counted of a condition, and to which requirements it counted. */
interface CountedCondition {
  readonly counted: Counted;
  readonly judged: Judged;
  readonly requirements: readonly RequirementId[];
}

/** The sums of a choice, kept by taking away and adding what changed of conditions since they were asked for. */
class ChoiceSums {
  readonly #index: CoverageIndex;
  readonly #ids: readonly CoveringId[];
  readonly #chosen: Chosen;
  readonly #totals = new Totals();
  readonly #byRisk: Record<Risk, Adding<RiskShare>> = { high: { ...NO_SHARE }, medium: { ...NO_SHARE }, low: { ...NO_SHARE } };
  readonly #own: ReadonlyMap<CoveringId, Adding<Pick<ChosenCase, 'shows' | 'alone'>>>;
  /** How many conditions that something chosen covers count to a requirement. */
  readonly #touched = new Map<RequirementId, number>();
  readonly #conditions = new Map<ConditionEntry, CountedCondition>();

  constructor(index: CoverageIndex, choice: Choice) {
    this.#index = index;
    // Its own: whoever asked may go on with theirs.
    this.#ids = [...choice.ids];
    this.#chosen = new Chosen(index, choice);
    this.#own = new Map(choice.ids.map((id) => [id, { shows: 0, alone: 0 }]));
  }

  isOf(ids: readonly CoveringId[]): boolean {
    return ids.length === this.#ids.length && ids.every((id, i) => id === this.#ids[i]);
  }

  coverage(): ChosenCoverage {
    this.#bringUp();
    return {
      counts: this.#totals.all.counts,
      weighted: this.#totals.weighted.counts,
      byTechnique: perTechnique((technique) => this.#totals.byTechnique[technique].counts),
      byRisk: { high: { ...this.#byRisk.high }, medium: { ...this.#byRisk.medium }, low: { ...this.#byRisk.low } },
      requirements: this.#touchedRequirements(),
      cases: this.#ids.map((id) => ({ id, counts: this.#chosen.countsOf(id), shows: this.#own.get(id)?.shows ?? 0, alone: this.#own.get(id)?.alone ?? 0 })),
    };
  }

  #bringUp(): void {
    let there = 0;
    for (const entry of this.#index.entries.values()) {
      if (entry.counted !== null) there += 1;
      if (this.#conditions.get(entry)?.counted !== (entry.counted ?? undefined)) this.#countAgain(entry);
    }
    if (there < this.#conditions.size) for (const entry of [...this.#conditions.keys()]) if (this.#index.entries.get(entry.id) !== entry) this.#takeAway(entry);
  }

  #countAgain(entry: ConditionEntry): void {
    this.#takeAway(entry);
    if (entry.counted === null) return;
    const made: CountedCondition = { counted: entry.counted, judged: judged(this.#index, entry, entry.counted, this.#chosen.covering(entry, entry.counted.grounds)), requirements: entry.condition.content.requirements.map((r) => r.id) };
    this.#conditions.set(entry, made);
    this.#totals.add(made.judged.tally);
    this.#change(made, 1);
  }

  #takeAway(entry: ConditionEntry): void {
    const known = this.#conditions.get(entry);
    if (known === undefined) return;
    this.#conditions.delete(entry);
    this.#totals.takeAway(known.judged.tally);
    this.#change(known, -1);
  }

  #change({ judged: { covering, risk, share, shown }, requirements }: CountedCondition, sign: 1 | -1): void {
    const sum = this.#byRisk[risk];
    sum.items += sign * share.items;
    sum.shown += sign * share.shown;
    sum.elsewhere += sign * share.elsewhere;
    if (covering.length === 0) return;
    for (const { id, shows, alone } of shown) {
      const own = this.#own.get(id);
      if (own === undefined) continue;
      own.shows += sign * shows;
      own.alone += sign * alone;
    }
    for (const id of requirements) this.#touched.set(id, (this.#touched.get(id) ?? 0) + sign);
  }

  #touchedRequirements(): RequirementCoverage[] {
    return [...this.#index.requirements.values()].flatMap(({ requirement, conditions }) => {
      if ((this.#touched.get(requirement.id) ?? 0) === 0) return [];
      return [requirementRow(requirement, [...conditions].flatMap((entry) => this.#tallied(entry)))];
    });
  }

  #tallied(entry: ConditionEntry): { readonly id: ConditionEntry['id']; readonly tally: Judged['tally'] }[] {
    const known = this.#conditions.get(entry);
    return known === undefined ? [] : [{ id: entry.id, tally: known.judged.tally }];
  }
}

const NO_SHARE: RiskShare = { items: 0, shown: 0, elsewhere: 0 };
type Adding<S> = { -readonly [K in keyof S]: S[K] };
