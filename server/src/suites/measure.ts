import { artefactId, type CoveringId, type SuiteId } from '@caderno/core/artefacts';
import type { Additions, AskedItems, AskedMatrix, Choice, ChosenCoverage, MatrixCells, ShownMatrix } from '@caderno/core/coverage';
import type { SuiteChoice } from '@caderno/core/trend';
import { configurationsRun, suiteFigures, suiteMembers, thatRun, type Dependency, type FoundMember, type ShowingMember, type ShowingMembers, type SuiteContent, type SuiteFigures } from '@caderno/core/suites';
import type { SuiteLine } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { contentOrBroken } from '../artefacts/index.ts';
import type { ChoiceOf } from '../coverage/index.ts';
import { inSnapshot, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { liveSuites } from './liveSuites.ts';
import { dependenciesOf, knownMembers, type KnownMembers } from './memberFacts.ts';
import { rulesFind } from './rules.ts';
import { setUpsOf } from './setUps.ts';

/** Where a suite is measured. */
export interface Measuring {
  readonly db: Sequelize;
  readonly projectId: string;
  readonly now: number;
  /** What choices show, in their order: asked of the thread that has the project's coverage. */
  readonly chosen: (choices: readonly Choice[]) => Promise<readonly ChosenCoverage[]>;
  readonly cells: (choices: readonly ChoiceOf[]) => Promise<MatrixCells<SuiteId>>;
  readonly matrix: (choice: Choice) => Promise<ShownMatrix>;
  readonly asked: (asked: AskedItems) => Promise<AskedMatrix>;
  readonly additions: (choice: Choice, missed: AskedItems) => Promise<Additions>;
}

/** A suite as it is written at the moment. */
export type WrittenSuite = Pick<SuiteContent, 'entries' | 'configurations'>;

/** The members of a suite in its order, with what is known of them. */
export interface Found extends KnownMembers {
  readonly members: readonly FoundMember[];
  /** Without those that are gone from the settings: nothing is executed in them. */
  readonly configurations: SuiteContent['configurations'];
  readonly dependencies: readonly Dependency[];
}

/** What a suite comes to with these entries. */
export async function measureSuite({ db, projectId, now, chosen }: Measuring, suite: WrittenSuite): Promise<SuiteFigures> {
  const found = await inSnapshot(db, (work) => findMembers(work, projectId, suite, now));
  const [coverage] = await chosen([choiceOf(found)]);
  if (coverage === undefined) throw new Error('A choice is answered by what it shows: expected one answer, got none');
  return suiteFigures(found.members, found.configurations, found.facts, found.dependencies, coverage);
}

async function thoseThere(work: UnitOfWork, projectId: string, configurations: SuiteContent['configurations']): Promise<SuiteContent['configurations']> {
  if (configurations.length === 0) return configurations;
  const there = new Set((await readSettings(work, projectId)).settings.configurations.map((c) => c.id));
  return configurations.filter((id) => there.has(id));
}

/** What a smaller suite and its best order are worked out from: members that count, what each of them shows and begins with, and what they depend on. */
export async function readShowing({ db, projectId, now, matrix }: Measuring, suite: WrittenSuite): Promise<ShowingMembers> {
  const { setUps, ...found } = await inSnapshot(db, async (work) => {
    const known = await findMembers(work, projectId, suite, now);
    return { ...known, setUps: await setUpsOf(work, projectId, known.facts) };
  });
  const { weights, shown } = await matrix(choiceOf(found));
  const known = new Map(shown.map((s) => [s.id, s]));
  const members = thatRun(found.members, found.configurations).flatMap(({ of, part, entry, runsIn }): ShowingMember[] => {
    const facts = found.facts.get(of);
    return facts === undefined || facts.state === 'withdrawn' ? [] : [{ of, instances: known.get(of)?.counts?.instances ?? facts.instances, minutes: facts.minutes, times: configurationsRun(runsIn, found.configurations).length, kept: entry === null, part, setUp: setUps.get(of) ?? null, items: known.get(of)?.items ?? [] }];
  });
  return { weights, members, needs: found.dependencies };
}

/**
 * What the smallest suite that shows all items of those asked for is worked out from: whatever shows some of them, with what that depends on; and how many
 * of them nothing shows.
 */
export async function readCandidates({ db, projectId, asked }: Measuring, items: AskedItems): Promise<ShowingMembers & { readonly shownByNothing: number }> {
  const { weights, shown, shownByNothing } = await asked(items);
  const counted = new Map(shown.map((s) => [s.id, s]));
  return inSnapshot(db, async (work) => {
    const { ids, needs } = await withDependencies(work, projectId, [...counted.keys()]);
    const { facts } = await knownMembers(work, projectId, ids.map(memberOf));
    const setUps = await setUpsOf(work, projectId, facts);
    const members = ids.flatMap((of): ShowingMember[] => {
      const own = facts.get(of);
      if (own === undefined || own.state === 'withdrawn') return [];
      const { counts, items: showing } = counted.get(of) ?? { counts: null, items: [] };
      return [{ of, instances: counts?.instances ?? own.instances, minutes: own.minutes, times: 1, kept: false, part: null, setUp: setUps.get(of) ?? null, items: showing }];
    });
    return { weights, members, needs, shownByNothing };
  });
}

const memberOf = (of: CoveringId): FoundMember => ({ of, pinned: null, entry: null, part: null, runsIn: null });

/** Some cases and scenarios with all that they depend on, however far; nobody depends on themselves for ever, as each is asked once. */
async function withDependencies(work: UnitOfWork, projectId: string, of: readonly CoveringId[]): Promise<{ readonly ids: readonly CoveringId[]; readonly needs: readonly Dependency[] }> {
  const ids = new Set<CoveringId>(of);
  const needs: Dependency[] = [];
  for (let fresh: readonly CoveringId[] = of; fresh.length > 0; ) {
    const found = await dependenciesOf(work, projectId, fresh.map(memberOf));
    needs.push(...found);
    fresh = [...new Set(found.map((d) => d.on))].filter((on) => !ids.has(on));
    for (const id of fresh) ids.add(id);
  }
  return { ids: [...ids], needs };
}

/** What would show the items that a suite misses. */
export async function findAdditions({ db, projectId, now, additions }: Measuring, suite: WrittenSuite, missed: AskedItems): Promise<Additions> {
  const found = await inSnapshot(db, (work) => findMembers(work, projectId, suite, now));
  const there = new Set(found.members.map((m) => m.of));
  const { proposed, ...told } = await additions(choiceOf(found), missed);
  // Who is in it and runs nowhere need not come in once more, but run.
  return { ...told, proposed: proposed.filter(({ id }) => !there.has(id)) };
}

/** The members of a suite as they stand now; `known`: what rules of other suites were found to find. */
export async function findMembers(work: UnitOfWork, projectId: string, { entries, configurations }: WrittenSuite, now: number, known = new Map<string, CoveringId[]>()): Promise<Found> {
  const members = suiteMembers({ entries }, await rulesFind(work, projectId, entries, now, { only: null, known }));
  return { members, configurations: await thoseThere(work, projectId, configurations), dependencies: await dependenciesOf(work, projectId, members), ...(await knownMembers(work, projectId, members)) };
}

function choiceOf({ members, configurations, instead }: Found): Choice {
  return { ids: thatRun(members, configurations).map((m) => m.of), instead };
}

/** What every suite that is not withdrawn chooses; one that cannot be read is left out. */
export async function suiteChoices(work: UnitOfWork, projectId: string, now: number): Promise<SuiteChoice[]> {
  return (await findSuites(work, projectId, now)).map(({ id, title, found }) => ({ id, title, choice: choiceOf(found) }));
}

interface FoundSuite {
  readonly id: SuiteId;
  readonly title: string;
  readonly found: Found;
}

/** The members of every suite that is not withdrawn; one that cannot be read is left out. */
async function findSuites(work: UnitOfWork, projectId: string, now: number): Promise<FoundSuite[]> {
  const known = new Map<string, CoveringId[]>();
  const found: FoundSuite[] = [];
  for (const { number, schema, content } of await liveSuites(work, projectId)) {
    const read = contentOrBroken('suite', schema, content);
    if (read !== null) found.push({ id: artefactId('suite', number), title: read.title, found: await findMembers(work, projectId, read, now, known) });
  }
  return found;
}

/** What every suite shows of every condition. */
export async function readSuiteCells(where: Measuring): Promise<MatrixCells<SuiteId>> {
  const { db, projectId, now } = where;
  const suites = await inSnapshot(db, (work) => suiteChoices(work, projectId, now));
  return where.cells(suites.map(({ id, choice }) => ({ column: id, choice })));
}

/** What every suite comes to. */
export async function measureSuites(where: Measuring): Promise<SuiteLine[]> {
  const { db, projectId, now, chosen } = where;
  const suites = await inSnapshot(db, (work) => findSuites(work, projectId, now));
  const coverages = suites.length === 0 ? [] : await chosen(suites.map((s) => choiceOf(s.found)));
  return suites.flatMap(({ id, found }, i) => {
    const coverage = coverages[i];
    if (coverage === undefined) return [];
    const { members, cases, scenarios, instances, byHand, minutes, withoutMinutes, counts } = suiteFigures(found.members, found.configurations, found.facts, [], coverage);
    return [{ id, cases, scenarios, instances, byHand, minutes, withoutMinutes, counts, members: members.flatMap((m) => (m.facts === null || m.facts.state === 'withdrawn' ? [] : [m.of])) }];
  });
}
