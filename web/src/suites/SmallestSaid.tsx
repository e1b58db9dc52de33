import { isProved, type Cover } from '@caderno/core/covering';
import { SMALLER_BY, costWord, type ShowingMembers, type SmallerBy } from '@caderno/core/suites';
import { countOf, durationOf, locale } from '../look/index.ts';
import type { WorkedOut } from './useWorkedOut.ts';

const BY_WORD: Record<SmallerBy, string> = { cases: 'fewest members', instances: 'fewest instances', minutes: 'least minutes' };
/** What is to be as little as possible, to choose from. */
export const BY = SMALLER_BY.map((value) => ({ value, name: BY_WORD[value] }));

interface Props {
  readonly smallest: WorkedOut<Cover>;
  readonly showing: ShowingMembers;
  readonly by: SmallerBy;
  /** What they show. */
  readonly what: string;
}

/** What was found, and how sure that is. */
export function SmallestSaid({ smallest: { found: cover, state }, showing, by, what }: Props) {
  if (state === 'failed') return <p role="alert" className="rounded-field bg-ochre-wash px-3 py-1.5 text-sm text-ochre-ink">The smallest suite could not be worked out here. Nothing was changed; try it again.</p>;
  if (cover === undefined) return <p role="status" className="text-sm text-ink2">Working it out …</p>;
  return (
    <p role="status" className="text-sm">
      <b className="font-semibold">{foundWords(cover, showing, by, what)}</b> {proofWords(cover, state, by)}
    </p>
  );
}

function foundWords({ chosen, cost }: Cover, { members }: ShowingMembers, by: SmallerBy, what: string): string {
  const all = by === 'cases' ? members.length : members.reduce((sum, m) => sum + m.instances * (by === 'minutes' ? (m.minutes ?? 1) : 1), 0);
  const of = `${amount(costWord(cost, by), by)} of ${amount(all, by)}`;
  return by === 'cases' ? `${chosen.length.toLocaleString(locale())} of ${countOf(all, 'member')} show ${what}.` : `${of} show ${what}, with ${countOf(chosen.length, 'member')}.`;
}

function proofWords(cover: Cover, state: WorkedOut<Cover>['state'], by: SmallerBy): string {
  if (isProved(cover)) return 'Proved: no smaller choice does.';
  const least = amount(costWord(cover.bound, by), by);
  return state === 'working' ? `At least ${least} are needed.` : `At least ${least} are needed; whether that is enough was not proved.`;
}

function amount(value: number, by: SmallerBy): string {
  switch (by) {
    case 'cases':
      return countOf(value, 'member');
    case 'instances':
      return countOf(value, 'instance');
    case 'minutes':
      return durationOf(value);
  }
}
