import type { Configuration } from '../shared/index.ts';

/** In which configurations of its suite something runs; null: in those of the part it stands in, at last in all. */
export type RunsIn = readonly Configuration['id'][] | null;

/** Those of some configurations in which it runs, in their order. Where there are none it runs once, in none (null). */
export function configurationsRun(runsIn: RunsIn, configurations: readonly Configuration['id'][]): (Configuration['id'] | null)[] {
  if (configurations.length === 0) return [null];
  return configurations.filter((id) => runsIn === null || runsIn.includes(id));
}

/** Those of some members that run at all: who runs in none of the configurations there are counts nowhere, as somebody withdrawn does. */
export function thatRun<T extends { readonly runsIn: RunsIn }>(members: readonly T[], configurations: readonly Configuration['id'][]): T[] {
  return members.filter((m) => configurationsRun(m.runsIn, configurations).length > 0);
}

/** What something says of itself, and what is around it does. */
export interface RunsInPlace {
  readonly own: RunsIn;
  readonly around: RunsIn;
}

/** What it says with one of the configurations ticked or not: nothing (null) again as soon as it is what is around it says. */
export function withConfiguration({ own, around }: RunsInPlace, id: Configuration['id'], isTicked: boolean, configurations: readonly Configuration['id'][]): RunsIn {
  const runs = own ?? around;
  const next = configurations.filter((c) => (c === id ? isTicked : runs === null || runs.includes(c)));
  const usual = configurations.filter((c) => around === null || around.includes(c));
  return next.length === usual.length && next.every((c, i) => c === usual[i]) ? null : next;
}
