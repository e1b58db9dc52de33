import type { CoveringId } from '../artefacts/index.ts';
import { bestOrder, shownSoFar, type MostProblem, type OrderCandidate, type OrderStage, type ShownSoFar } from '../covering/index.ts';
import { costOf, neededPlaces, type ShowingMember, type ShowingMembers } from './smaller.ts';
import { runsInAround } from './members.ts';
import type { SuiteEntry } from './suite.ts';

/** How a suite is put in order. */
export interface Ordering {
  /** Whether members stay in their parts. If not, those picked by hand come first, in one list without headings. */
  readonly inParts: boolean;
  /** Whether those with the same set-up stay together. */
  readonly together: boolean;
}

/** The members of a suite in the order in which most risk is shown soonest, behind what they depend on. What rules found stays where its part has it. */
export function membersInOrder(showing: ShowingMembers, { inParts, together }: Ordering): CoveringId[] {
  const order = bestOrder({ weights: showing.weights, candidates: candidatesOf(showing), stages: stagesOf(showing.members, inParts), together });
  return order.flatMap((place) => showing.members[place]?.of ?? []);
}

function stagesOf(members: readonly ShowingMember[], inParts: boolean): OrderStage[] {
  const places = members.map((_, place) => place);
  const kept = (place: number): boolean => members[place]?.kept === true;
  if (!inParts) return [{ places: places.filter((place) => !kept(place)), fixed: false }, { places: places.filter(kept), fixed: true }];
  const stages: { places: number[]; fixed: boolean }[] = [];
  for (const place of places) {
    const last = stages.at(-1);
    const before = members[place - 1];
    if (last !== undefined && before?.part === members[place]?.part && last.fixed === kept(place)) last.places.push(place);
    else stages.push({ places: [place], fixed: kept(place) });
  }
  return stages;
}

function candidatesOf(showing: ShowingMembers): OrderCandidate[] {
  const needed = neededPlaces(showing);
  return showing.members.map((m, place) => ({ cost: costOf(m, 'minutes'), items: m.items, needs: needed.get(place) ?? [], setUp: m.setUp }));
}

/** The entries of a suite with its members in an order. Who is not in it stays behind the others. Parts that a rule keeps stay, whatever becomes of the others. */
export function entriesInOrder(entries: readonly SuiteEntry[], order: readonly CoveringId[], { inParts }: Pick<Ordering, 'inParts'>): SuiteEntry[] {
  const rank = new Map(order.map((of, i) => [of, i]));
  const rankOf = (entry: SuiteEntry): number => (entry.kind === 'part' ? -1 : (rank.get(entry.of) ?? order.length));
  const sorted = (list: readonly SuiteEntry[]): SuiteEntry[] => list.toSorted((a, b) => rankOf(a) - rankOf(b));
  if (!inParts) {
    // Out of their parts they run where they ran.
    const loose = entries.map((e) => ({ ...e, runsIn: e.runsIn ?? runsInAround(entries, e.id) }));
    return [...sorted(loose.filter((e) => e.kind === 'member')), ...loose.filter((e) => e.kind === 'part' && e.rule !== null).map((e) => (e.kind === 'part' ? { ...e, depth: 1 } : e))];
  }
  // A heading comes first in its part.
  const parts: SuiteEntry[][] = [[]];
  for (const entry of entries) {
    if (entry.kind === 'part') parts.push([entry]);
    else parts.at(-1)?.push(entry);
  }
  return parts.flatMap(sorted);
}

/** What is shown after each member of an order, by the minutes it takes until then: in thousandths, and by what items count. */
export function riskCurve(showing: ShowingMembers, order: readonly CoveringId[]): ShownSoFar[] {
  const place = new Map(showing.members.map((m, i) => [m.of, i]));
  return shownSoFar({ weights: showing.weights, candidates: candidatesOf(showing) }, order.flatMap((of) => place.get(of) ?? []));
}

/** Which members show most risk in so many minutes, with what they depend on. `keepsFound`: what rules found stays in any case. */
export function inTimeProblem(showing: ShowingMembers, minutes: number, keepsFound: boolean): MostProblem {
  const candidates = candidatesOf(showing).map(({ cost, items, needs }, place) => ({ cost, items, needs, kept: keepsFound && showing.members[place]?.kept === true }));
  return { items: showing.weights.length, weights: showing.weights, candidates, limit: Math.round(minutes * 1_000) };
}
