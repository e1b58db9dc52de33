import type { ArtefactState, CaseId, CoveringId } from '../artefacts/index.ts';
import type { Execution } from '../cases/index.ts';
import type { ChosenCoverage } from '../coverage/index.ts';
import type { FoundMember } from './members.ts';
import { configurationsRun } from './runsIn.ts';
import type { SuiteContent } from './suite.ts';

/** What is known of a case or scenario besides its coverage. `instances`: as often as its own rows say, in one configuration. */
export interface MemberFacts {
  readonly state: ArtefactState;
  /** The version that is meant of it, or of its feature. */
  readonly version: number;
  /** The latest one. */
  readonly head: number;
  readonly execution: Execution;
  readonly instances: number;
  /** That one instance takes; null: nobody has said. */
  readonly minutes: number | null;
}

/** A member with all that a line shows of it; null: it is not there any more. */
export interface SuiteMemberFigures extends FoundMember {
  readonly facts: MemberFacts | null;
  /** In how many configurations it runs; 1 where the suite has none, 0: it counts nowhere. */
  readonly times: number;
  readonly shows: number;
  readonly alone: number;
}

/** A case that one of the members depends on. */
export interface Dependency {
  readonly of: CaseId;
  readonly on: CaseId;
}

/** A dependency that the suite does not keep: what it is on is not in the suite, or comes later in it. */
export interface BrokenDependency extends Dependency {
  readonly why: 'absent' | 'later';
}

/** The dependencies that an order of members does not keep. Among members that depend on each other in a circle some always come too late. */
export function brokenDependencies(members: readonly Pick<FoundMember, 'of'>[], dependencies: readonly Dependency[]): BrokenDependency[] {
  const place = new Map<CoveringId, number>(members.map((m, i) => [m.of, i]));
  return dependencies.flatMap((dependency): BrokenDependency[] => {
    const [at, on] = [place.get(dependency.of), place.get(dependency.on)];
    if (at === undefined || (on !== undefined && on < at)) return [];
    return [{ ...dependency, why: on === undefined ? 'absent' : 'later' }];
  });
}

/** What a suite comes to. */
export interface SuiteFigures extends Omit<ChosenCoverage, 'cases'> {
  readonly members: readonly SuiteMemberFigures[];
  readonly cases: number;
  readonly scenarios: number;
  /** In all its configurations. */
  readonly instances: number;
  readonly byHand: number;
  /** Of the instances whose minutes are known. */
  readonly minutes: number;
  /** Members of which nobody has said how long they take. */
  readonly withoutMinutes: number;
  /** Of its members that count. */
  readonly broken: readonly BrokenDependency[];
}

/** The figures of a suite, of what its members are and what they show. Withdrawn ones, those that run nowhere and those that are gone stay in the list and count nowhere. */
export function suiteFigures(members: readonly FoundMember[], configurations: SuiteContent['configurations'], facts: ReadonlyMap<CoveringId, MemberFacts>, dependencies: readonly Dependency[], { cases, ...coverage }: ChosenCoverage): SuiteFigures {
  const shown = new Map(cases.map((c) => [c.id, c]));
  const sum = { cases: 0, scenarios: 0, instances: 0, byHand: 0, minutes: 0, withoutMinutes: 0 };
  const lines = members.map((member): SuiteMemberFigures => {
    const [known, chosen] = [facts.get(member.of), shown.get(member.of)];
    const times = configurationsRun(member.runsIn, configurations).length;
    if (known === undefined) return { ...member, facts: null, times, shows: 0, alone: 0 };
    const instances = chosen?.counts?.instances ?? known.instances;
    if (known.state !== 'withdrawn' && times > 0) addTo(sum, member.of, { ...known, instances: instances * times });
    return { ...member, facts: { ...known, instances }, times, shows: chosen?.shows ?? 0, alone: chosen?.alone ?? 0 };
  });
  const counted = lines.filter(countsInSuite);
  return { ...coverage, members: lines, ...sum, broken: brokenDependencies(counted, dependencies) };
}

/** Whether a member counts in what its suite comes to: it is there, not withdrawn, and runs somewhere. */
export function countsInSuite({ facts, times }: Pick<SuiteMemberFigures, 'facts' | 'times'>): boolean {
  return facts !== null && facts.state !== 'withdrawn' && times > 0;
}

type Sum = Record<'cases' | 'scenarios' | 'instances' | 'byHand' | 'minutes' | 'withoutMinutes', number>;

function addTo(sum: Sum, id: CoveringId, { execution, instances, minutes }: MemberFacts): void {
  sum[id.startsWith('C') ? 'cases' : 'scenarios'] += 1;
  sum.instances = Math.min(sum.instances + instances, Number.MAX_SAFE_INTEGER);
  if (execution === 'byHand') sum.byHand += 1;
  if (minutes === null) sum.withoutMinutes += 1;
  else sum.minutes += instances * minutes;
}
