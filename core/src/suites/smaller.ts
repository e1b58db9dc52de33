import type { CaseId, CoveringId } from '../artefacts/index.ts';
import type { CoverProblem } from '../covering/index.ts';
import type { MemberFacts } from './figures.ts';
import type { EntryId } from './suite.ts';

/** What is to be as little as possible. */
export const SMALLER_BY = ['cases', 'instances', 'minutes'] as const;
export type SmallerBy = (typeof SMALLER_BY)[number];

/** A member with the items it shows, by numbers of their own. */
export interface ShowingMember extends Pick<MemberFacts, 'instances' | 'minutes'> {
  readonly of: CoveringId;
  /** In how many configurations it runs. */
  readonly times: number;
  /** Whether it stays in any case: a rule found it. */
  readonly kept: boolean;
  /** The part it stands in; null: before the first. */
  readonly part: EntryId | null;
  /** What has to be there before it begins: its preconditions, or the feature of a scenario. Null: nothing is said. */
  readonly setUp: string | null;
  readonly items: readonly number[];
}

/** What a smaller suite, its best order and what fits in some minutes are worked out from. */
export interface ShowingMembers {
  /** What each item counts, by the risk of its condition. */
  readonly weights: readonly number[];
  readonly members: readonly ShowingMember[];
  /** Which of the members depend on which. */
  readonly needs: readonly { readonly of: CaseId; readonly on: CaseId }[];
}

/** Minutes count in thousandths, so that costs are whole. */
const PARTS_OF_A_MINUTE = 1_000;

/** The smallest suite that shows the same as a problem of covering. A member of which nobody said its minutes counts as one minute an instance. */
export function smallerProblem({ weights, members, needs }: ShowingMembers, by: SmallerBy): CoverProblem {
  const needed = neededPlaces({ members, needs });
  return { items: weights.length, candidates: members.map((m, i) => ({ cost: costOf(m, by), items: m.items, needs: needed.get(i) ?? [], kept: m.kept })) };
}

/** Of each member, by its place, the places of those it depends on. */
export function neededPlaces({ members, needs }: Pick<ShowingMembers, 'members' | 'needs'>): Map<number, number[]> {
  const place = new Map<CoveringId, number>(members.map((m, i) => [m.of, i]));
  const needed = new Map<number, number[]>();
  for (const { of, on } of needs) {
    const [one, other] = [place.get(of), place.get(on)];
    if (one !== undefined && other !== undefined) needed.set(one, [...(needed.get(one) ?? []), other]);
  }
  return needed;
}

/** What a member costs, minutes in thousandths; at least 1: nothing is for nothing, or it would be kept for nothing. */
export function costOf({ instances, minutes, times }: ShowingMember, by: SmallerBy): number {
  switch (by) {
    case 'cases':
      return 1;
    case 'instances':
      return Math.max(1, instances * times);
    case 'minutes':
      return Math.max(1, Math.round((minutes ?? 1) * instances * times * PARTS_OF_A_MINUTE));
  }
}

/** What a cost means to people: minutes, or a number. */
export function costWord(cost: number, by: SmallerBy): number {
  return by === 'minutes' ? cost / PARTS_OF_A_MINUTE : cost;
}

/** A member that is left out, and who of those that stay shows what it shows. */
export interface LeftMember {
  readonly of: CoveringId;
  readonly items: number;
  /** Few: each shows some of it that those before do not. */
  readonly shownBy: readonly CoveringId[];
}

/** Who is left out by a choice of members, with the reason. */
export function leftOut({ members }: Pick<ShowingMembers, 'members'>, chosen: readonly number[]): LeftMember[] {
  const stays = new Set(chosen);
  const shownBy = new Map<number, number[]>();
  for (const place of chosen) for (const item of members[place]?.items ?? []) shownBy.set(item, [...(shownBy.get(item) ?? []), place]);
  return members.flatMap(({ of, items }, place) => (stays.has(place) ? [] : [{ of, items: items.length, shownBy: fewShowing(items, shownBy).flatMap((p) => members[p]?.of ?? []) }]));
}

/** Of those that show some of the items, those that show most of what the others before do not. */
function fewShowing(items: readonly number[], shownBy: ReadonlyMap<number, readonly number[]>): number[] {
  const missing = new Set(items);
  const few: number[] = [];
  while (missing.size > 0) {
    const counts = new Map<number, number>();
    for (const item of missing) for (const place of shownBy.get(item) ?? []) counts.set(place, (counts.get(place) ?? 0) + 1);
    const best = [...counts].reduce<readonly [number, number] | null>((most, one) => (most === null || one[1] > most[1] ? one : most), null);
    if (best === null) break;
    few.push(best[0]);
    for (const item of [...missing]) if (shownBy.get(item)?.includes(best[0]) === true) missing.delete(item);
  }
  return few;
}
