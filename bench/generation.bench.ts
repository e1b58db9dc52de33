import { Feasibility, combinationJudge, fieldId, readConstraint, type CombinationModel, type Strength } from '@caderno/core/conditions';
import { CombinationRows } from '@caderno/core/coverage';
import { RowSearch, seededRandom, type CoveringRow, type CoveringTask } from '@caderno/core/generation';
import { combinationItems } from '@caderno/core/conditions';

/** An input with the rows it has to come down to and the seconds that may take. */
interface Target {
  readonly input: string;
  readonly strength: 2 | 3;
  readonly rows: number;
  readonly seconds: number;
}

const TARGETS: readonly Target[] = [
  { input: '3^4', strength: 2, rows: 9, seconds: 0.5 },
  { input: '3^13', strength: 2, rows: 15, seconds: 0.5 },
  { input: '4^15 3^17 2^29', strength: 2, rows: 29, seconds: 10 },
  { input: '4^1 3^39 2^35', strength: 2, rows: 21, seconds: 10 },
  { input: '2^100', strength: 2, rows: 10, seconds: 10 },
  { input: '10^20', strength: 2, rows: 186, seconds: 10 },
  { input: '3^6', strength: 3, rows: 33, seconds: 10 },
  { input: '4^6', strength: 3, rows: 64, seconds: 10 },
  { input: '5^6', strength: 3, rows: 125, seconds: 10 },
];
const FIRST_ANSWER_MS = 1_000;
const STEPS = 1_000;

/** Rows for each target: the first complete answer, and how long until there are few enough. Answers whether all keep their budgets. */
export function reportGeneration(): boolean {
  const kept = TARGETS.map(measure);
  return [...kept, constrained()].every(Boolean);
}

function measure({ input, strength, rows, seconds }: Target): boolean {
  const task = taskOf(sizesOf(input), strength);
  const began = performance.now();
  const search = new RowSearch(task);
  const first = { rows: search.best.length, ms: performance.now() - began };
  while (search.best.length > rows && performance.now() - began < seconds * 1_000) search.improve(STEPS);
  const ms = performance.now() - began;
  const missing = missingTuples(search.best, task);
  const ok = search.best.length <= rows && ms <= seconds * 1_000 && first.ms <= FIRST_ANSWER_MS && missing === 0;
  print(ok, `${strength === 2 ? 'pairs' : '3-wise'} ${input}`, `first ${first.rows} rows in ${first.ms.toFixed(0)} ms; ${search.best.length} rows (at most ${rows}) in ${ms.toFixed(0)} ms (${seconds * 1_000}); ${missing} tuples missing`);
  return ok;
}

function print(ok: boolean, what: string, figures: string): void {
  console.log(`${ok ? 'ok  ' : 'OVER'} ${what.padEnd(32)} ${figures}`);
}

function sizesOf(input: string): number[] {
  return input.split(' ').flatMap((part) => {
    const [size = 0, count = 0] = part.split('^').map(Number);
    return Array<number>(count).fill(size);
  });
}

function taskOf(sizes: readonly number[], strength: 2 | 3): CoveringTask {
  const sets = sizes.flatMap((_, a) => sizes.flatMap((_b, b) => (b <= a ? [] : strength === 2 ? [[a, b]] : sizes.flatMap((_c, c) => (c <= b ? [] : [[a, b, c]])))));
  return { sizes, sets, wanted: () => true, forbidden: [], feasibility: null, seed: 1 };
}

/** Counted apart from the search: tuples of the task that no row holds. */
function missingTuples(rows: readonly CoveringRow[], { sizes, sets }: CoveringTask): number {
  return sets.reduce((sum, set) => sum + set.reduce((n, f) => n * (sizes[f] ?? 0), 1) - new Set(rows.map((row) => set.map((f) => row[f]).join(' '))).size, 0);
}

const CONSTRAINED_MS = 1_000;

/** Twenty factors of two to six values under twelve constraints of two and three factors: valid and complete. */
function constrained(): boolean {
  const model = constrainedModel(4711);
  const began = performance.now();
  const judge = combinationJudge(model);
  const keys = combinationItems(judge).map((i) => i.key);
  const search = new CombinationRows(model, new Set(keys));
  const { rows, unreachable } = search.made;
  const ms = performance.now() - began;
  const broken = rows.filter((row) => model.constraints.some((c) => !meets(model, c.text, row.values.map((v) => v.cell)))).length;
  const possible = new Feasibility(model.factors.map((f) => f.values.map(() => true)), judge.forbidden);
  const wrong = judge.infeasible.filter((t) => possible.possible(t.factors, t.values)).length;
  const ok = ms <= CONSTRAINED_MS && broken === 0 && unreachable.length === 0 && wrong === 0 && keys.length > 0;
  print(ok, 'pairs, 20 factors, 12 constraints', `${rows.length} rows in ${ms.toFixed(0)} ms (${CONSTRAINED_MS}); ${keys.length} pairs, ${judge.infeasible.length} infeasible; ${broken} rows break a constraint, ${unreachable.length} pairs missing`);
  return ok;
}

function constrainedModel(seed: number): CombinationModel {
  const random = seededRandom(seed);
  const strength: Strength = 'pairs';
  const factors = Array.from({ length: 20 }, (_, f) => ({ id: fieldId(`f${f}`), name: `f${f}`, values: Array.from({ length: 2 + (f % 5) }, (_v, v) => ({ id: `v${v}`, value: `v${v}`, aliases: [], valid: true, base: false, outcome: '' })) }));
  const term = (f: number): string => `f${f} = v${random(factors[f]?.values.length ?? 1)}`;
  const constraints = Array.from({ length: 12 }, (_, i) => {
    const [a = 0, b = 0, c = 0] = [...new Set(Array.from({ length: 30 }, () => random(20)))];
    return { id: `c${i}`, text: i % 2 === 0 ? `not (${term(a)} and ${term(b)})` : `if ${term(a)} and ${term(b)} then not ${term(c)}` };
  });
  return { kind: 'combination', factors, constraints, strength, groups: [], seed };
}

/** Judges a row by the words of a constraint, apart from the products the generator works with. */
function meets(model: CombinationModel, text: string, cells: readonly string[]): boolean {
  const read = readConstraint(text, model.factors);
  if (read.kind !== 'condition') throw new Error(`A constraint of the bench can be read: expected none to fail, got ${text}`);
  const holds = (c: typeof read.condition): boolean => {
    if (c.kind === 'is') return c.values.some((v) => model.factors[c.factor]?.values[v]?.value === cells[c.factor]);
    if (c.kind === 'not') return !holds(c.of);
    return c.kind === 'and' ? c.of.every(holds) : c.of.some(holds);
  };
  return holds(read.condition);
}

if (process.argv[1]?.endsWith('generation.bench.ts')) process.exitCode = reportGeneration() ? 0 : 1;
