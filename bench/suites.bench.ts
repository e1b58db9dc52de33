import { highsMostSolver, highsSolver, isMost, isProved, mostShown, smallestCover, type Cover, type CoverProblem } from '@caderno/core/covering';
import { CoverageIndex, additions, askedMatrix, chosenCoverage, shownMatrix, type Choice } from '@caderno/core/coverage';
import { inTimeProblem, membersInOrder, smallerProblem, type ShowingMembers } from '@caderno/core/suites';
import loadHighs from 'highs';
import { LARGE, largeDesign, seeded } from './largeProject.ts';
import { p95, report, timed, type Figure } from './measure.ts';

const MEMBERS = 5_000;

/** A suite of very many members in the large project, and the smallest that shows the same. */
export async function suitesFigures(): Promise<Figure[]> {
  const design = largeDesign(4711);
  const random = seeded(12);
  const index = new CoverageIndex(design);
  const choice: Choice = { ids: design.cases.filter((_, i) => i % Math.floor(LARGE.cases / MEMBERS) === 0).slice(0, MEMBERS).map((c) => c.id), instead: { cases: [], library: [] } };
  chosenCoverage(index, choice);
  const changed = await p95(40, () => {
    const edited = design.cases[random(LARGE.cases)];
    if (edited === undefined) throw new Error('The large project has cases');
    index.apply({ kind: 'case', id: edited.id, case: { ...edited, content: { ...edited.content, rows: edited.content.rows.map((r) => ({ ...r, cells: { p: String(random(2000)) } })) } } });
    chosenCoverage(index, choice);
  });
  const missed = await timed(() => additions(index, choice, {}));
  const candidates = await timed(() => askedMatrix(index, {}));
  const highs = await loadHighs();
  const solver = highsSolver(highs);
  const { weights, shown } = shownMatrix(index, choice);
  const members = shown.map(({ id, counts, items: own }) => ({ of: id, instances: counts?.instances ?? 1, minutes: null, times: 1, kept: false, part: null, setUp: null, items: own }));
  const solve = (problem: CoverProblem) => {
    const begun = performance.now();
    const first: { ms: number | null } = { ms: null };
    const last: Cover = smallestCover(problem, solver, 60, () => void (first.ms ??= performance.now() - begun), () => performance.now());
    return { first: first.ms ?? Number.NaN, all: performance.now() - begun, over: last.cost / Math.max(1, last.bound) - 1, proved: isProved(last) };
  };
  const everything = askedMatrix(index, {});
  const whole = solve(smallerProblem({ weights: everything.weights, members: everything.shown.map(({ id, counts, items: own }) => ({ of: id, instances: counts?.instances ?? 1, minutes: null, times: 1, kept: false, part: null, setUp: null, items: own })), needs: [] }, 'cases'));
  const suite = solve(smallerProblem({ weights, members, needs: [] }, 'instances'));
  const showing: ShowingMembers = { weights, members: members.map((m, i) => ({ ...m, minutes: 1 + (i % 20) })), needs: [] };
  const ordered = await timed(() => membersInOrder(showing, { inParts: true, together: false }));
  const total = showing.members.reduce((sum, m) => sum + (m.minutes ?? 1) * m.instances, 0);
  const begun = performance.now();
  const most = mostShown(inTimeProblem(showing, total / 10, false), highsMostSolver(highs), 60, () => undefined);
  const inTime = performance.now() - begun;
  const said = most !== null && isMost(most) ? 'proved' : `at most ${(100 * ((most?.bound ?? 0) / Math.max(1, most?.shown ?? 0) - 1)).toFixed(1)} % more`;
  const small = solve(designLike(100, 400, 30));
  const large = solve(designLike(2_500, 20_000, 30));
  if (large.over > 0.02) throw new Error(`The smallest suite is known to within 2 %: expected at most 0.02 over its bound, got ${large.over}`);
  return [
    { what: `figures of a suite of ${MEMBERS} members after an edit of a case, p95`, ms: changed, budget: 50 },
    { what: 'what would show all that it misses', ms: missed, budget: 2_000 },
    { what: 'what each of 20 000 cases shows of everything', ms: candidates, budget: 2_000 },
    { what: 'the smallest suite for everything of the large project: the first answer', ms: whole.first, budget: 2_000 },
    { what: `the smallest suite for everything of the large project${whole.proved ? ', proved' : `, ${(whole.over * 100).toFixed(1)} % over its bound`}`, ms: whole.all, budget: 60_000 },
    { what: `the smallest suite of these members${suite.proved ? ', proved' : `, ${(suite.over * 100).toFixed(1)} % over its bound`}`, ms: suite.all, budget: 60_000 },
    { what: 'these members in the order that shows most risk soonest', ms: ordered, budget: 2_000 },
    { what: `what of them shows most in a tenth of their minutes, ${said}`, ms: inTime, budget: 60_000 },
    { what: `400 cases by 2 000 items${small.proved ? ', proved' : ', NOT proved'}`, ms: small.all, budget: 10_000 },
    { what: '20 000 by 50 000: the first answer', ms: large.first, budget: 2_000 },
    { what: `20 000 by 50 000${large.proved ? ', proved' : `, ${(large.over * 100).toFixed(1)} % over its bound`}`, ms: large.all, budget: 60_000 },
  ];
}

/** What cases show as a design has it: each covers one or two conditions, of 20 items each, near each other. */
function designLike(conditions: number, cases: number, costs: number): CoverProblem {
  const random = seeded(11);
  const candidates = Array.from({ length: cases }, () => {
    const home = random(conditions);
    const items = new Set<number>();
    for (let k = random(2); k >= 0; k -= 1) {
      const at = (home + random(6)) % conditions;
      for (let i = random(12); i >= 0; i -= 1) items.add(at * 20 + random(20));
    }
    return { cost: 1 + random(costs), items: [...items], needs: [], kept: false };
  });
  const place = new Map([...new Set(candidates.flatMap((c) => c.items))].map((item, i) => [item, i]));
  return { items: place.size, candidates: candidates.map((c) => ({ ...c, items: c.items.map((item) => place.get(item) ?? 0) })) };
}

if (process.argv[1]?.endsWith('suites.bench.ts')) process.exitCode = report(await suitesFigures()) ? 0 : 1;
