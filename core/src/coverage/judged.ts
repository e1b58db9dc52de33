import type { CoveringId } from '../artefacts/index.ts';
import { RISKS, type Risk } from '../basis/index.ts';
import { standingsOf, type CoveringCase } from './conditionCoverage.ts';
import type { ConditionEntry, CoverageIndex } from './coverageIndex.ts';
import { tallyOf, type ConditionTally } from './totals.ts';

/** Items of conditions of a risk. */
export interface RiskShare {
  /** To be shown: those left out are not among them. */
  readonly items: number;
  readonly shown: number;
  /** Not shown by what is chosen, but by something else. */
  readonly elsewhere: number;
}

export type Counted = NonNullable<ConditionEntry['counted']>;

/** What a condition comes to when only some of what covers it is chosen, and what each of these shows of it. */
export interface Judged {
  readonly covering: readonly CoveringCase[];
  readonly tally: ConditionTally;
  readonly shown: readonly { readonly id: CoveringId; readonly shows: number; readonly alone: number }[];
  readonly risk: Risk;
  readonly share: RiskShare;
}

/** What was judged last of a condition, with nothing chosen and with something: what is counted is made anew when anything of it changes, its requirements' risks too, and most are asked again with the same choice. */
const lastJudged = new WeakMap<Counted, { none: Judged | null; some: Judged | null }>();

/** What a condition comes to with only some of what covers it. */
export function judged(index: CoverageIndex, entry: ConditionEntry, counted: Counted, covering: readonly CoveringCase[]): Judged {
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

function shareOf(chosen: ConditionTally, whole: ConditionTally): RiskShare {
  let [items, shown, elsewhere] = [0, 0, 0];
  chosen.standings.forEach((standing, place) => {
    if (standing !== 'leftOut') items += 1;
    if (standing === 'shown') shown += 1;
    else if (whole.standings[place] === 'shown') elsewhere += 1;
  });
  return { items, shown, elsewhere };
}

/** Its own, or the highest of its requirements'. */
export function riskOf(index: CoverageIndex, { condition: { content } }: ConditionEntry): Risk {
  const risks = new Set(content.requirements.map((r) => index.requirements.get(r.id)?.requirement.risk));
  return content.risk ?? RISKS.find((risk) => risks.has(risk)) ?? 'low';
}
