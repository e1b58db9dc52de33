import { artefactId, type CaseId, type ConditionId, type RequirementId } from '@caderno/core/artefacts';
import { EMPTY_CASE, newCover, newRow, parameterId, rowId, type CaseContent } from '@caderno/core/cases';
import { EMPTY_CONDITION, coverageItems, eventId, fieldId, stateId, statePaths, tableProblems, transitionId, type CombinationModel, type DecisionTableModel, type StateTransitionsModel } from '@caderno/core/conditions';
import { CoverageIndex, coverageReport, type DesignCase } from '@caderno/core/coverage';
import { DEFAULT_RISK_SCALE } from '@caderno/core/basis';
import { seededRandom } from '@caderno/core/generation';
import { p95, report, timed, type Figure } from './measure.ts';

/** The models at the sizes the design asks for: paths, a table judged, and a condition of many items and rows. */
export async function modelFigures(): Promise<Figure[]> {
  return [...(await pathFigures()), ...(await tableFigures()), ...(await coverageFigures())];
}

async function pathFigures(): Promise<Figure[]> {
  const model = machine(60, 400);
  const wanted = new Set(coverageItems({ title: '', polarity: 'both', model }).map((i) => i.key));
  let paths = 0;
  let unreachable = 0;
  const ms = await timed(() => {
    const made = statePaths(model, wanted);
    paths = made.paths.length;
    unreachable = made.unreachable.length;
  });
  if (unreachable > 0 || paths === 0) throw new Error(`Every pair of transitions is on a path: expected none missing, got ${unreachable} of ${wanted.size}`);
  return [{ what: `1-switch paths: 60 states, 400 transitions (${wanted.size} pairs, ${paths} path)`, ms, budget: 2_000 }];
}

/** A ring, so that everything can be reached, and transitions by chance. */
function machine(states: number, transitions: number): StateTransitionsModel {
  const random = seededRandom(7);
  const arrow = (i: number): [number, number] => (i < states ? [i, (i + 1) % states] : [random(states), random(states)]);
  return {
    kind: 'stateTransitions',
    states: Array.from({ length: states }, (_, i) => ({ id: stateId(`s${i}`), name: `S${i}`, initial: i === 0, final: false, place: null })),
    events: Array.from({ length: transitions }, (_, i) => ({ id: eventId(`e${i}`), name: `e${i}` })),
    transitions: Array.from({ length: transitions }, (_, i) => {
      const [from, to] = arrow(i);
      return { id: transitionId(`t${i}`), from: stateId(`s${from}`), event: eventId(`e${i}`), to: stateId(`s${to}`), guard: '', action: '' };
    }),
    level: 'switch1',
    invalidPairs: false,
  };
}

async function tableFigures(): Promise<Figure[]> {
  const judged = async (rules: number): Promise<number> => p95(20, () => tableProblems(table(12, rules)));
  return [
    { what: 'decision table of 12 yes/no conditions and 200 rules judged, p95', ms: await judged(200), budget: 100 },
    { what: 'decision table of 10 000 rules judged (own budget)', ms: await timed(() => tableProblems(table(12, 10_000))), budget: 2_000 },
  ];
}

function table(conditions: number, rules: number): DecisionTableModel {
  const random = seededRandom(11);
  const values = ['y', 'n'].map((id) => ({ id, value: id, aliases: [] }));
  const ids = Array.from({ length: conditions }, (_, c) => fieldId(`c${c}`));
  return {
    kind: 'decisionTable',
    conditions: ids.map((id) => ({ id, name: id, values })),
    actions: [{ id: 'a', name: 'a' }],
    rules: Array.from({ length: rules }, (_, r) => ({ id: `r${r}`, impossible: r % 50 === 49, entries: Object.fromEntries(ids.flatMap((id) => (random(3) === 0 ? [] : [[id, [random(2) === 0 ? 'y' : 'n']]]))), actions: { a: String(random(3)) } })),
  };
}

const FACTORS = 15;
const VALUES = 7;
const ROWS = 10_000;

/** A combination of 5 145 pairs, covered by one case of ten thousand rows. */
async function coverageFigures(): Promise<Figure[]> {
  const random = seededRandom(3);
  const factors = Array.from({ length: FACTORS }, (_, f) => ({ id: fieldId(`f${f}`), name: `f${f}`, values: Array.from({ length: VALUES }, (_v, v) => ({ id: `v${v}`, value: `value ${v}`, aliases: [], valid: true, base: false, outcome: '' })) }));
  const model: CombinationModel = { kind: 'combination', factors, constraints: [], strength: 'pairs', groups: [], seed: 1 };
  const [r, k, c]: [RequirementId, ConditionId, CaseId] = [artefactId('requirement', 1), artefactId('condition', 1), artefactId('case', 1)];
  const content: CaseContent = {
    ...EMPTY_CASE,
    title: 'Many rows',
    parameters: factors.map((f) => ({ id: parameterId(f.id), name: f.name, type: 'text' as const, default: '', description: '' })),
    rows: Array.from({ length: ROWS }, (_, i) => newRow(rowId(`r${i}`), `row ${i}`, Object.fromEntries(factors.map((f) => [f.id, `value ${random(VALUES)}`])))),
    covers: [{ ...newCover(k, 1), fields: factors.map((f) => ({ id: f.id, parameter: parameterId(f.id) })) }],
  };
  const testCase = (edited: CaseContent): DesignCase => ({ id: c, state: 'draft', version: 1, content: edited });
  const design = {
    requirements: [{ id: r, title: 'R', module: 'm', risk: 'high' as const, state: 'draft' as const, type: 'rule' as const, meaningSince: 1 }],
    conditions: [{ id: k, state: 'draft' as const, version: 1, meaningSince: 1, content: { ...EMPTY_CONDITION, title: 'K', requirements: [{ id: r, seenVersion: 1, anchor: null }], model } }],
    cases: [testCase(content)],
    questions: [],
    library: [], constants: [],
    riskWeights: DEFAULT_RISK_SCALE.weights,
    mostItems: 20_000,
  };
  let index = new CoverageIndex(design);
  const scratch = await p95(5, () => {
    index = new CoverageIndex(design);
    coverageReport(index);
  });
  const { counts } = coverageReport(index);
  const typed = await p95(40, (i) => {
    index.apply({ kind: 'case', id: c, case: testCase({ ...content, rows: content.rows.map((row, at) => (at === 5_000 ? { ...row, cells: { ...row.cells, f3: `value ${i % VALUES}` } } : row)) }) });
    coverageReport(index);
  });
  if (counts.shown === 0) throw new Error('The measured rows show something: expected items to be shown, got none');
  return [
    { what: `coverage of ${counts.shown + counts.linked} items by ${ROWS} rows from scratch, p95`, ms: scratch, budget: 200 },
    { what: 'the same after a typed cell, p95', ms: typed, budget: 10 },
  ];
}

if (process.argv[1]?.endsWith('models.bench.ts')) process.exitCode = report(await modelFigures()) ? 0 : 1;
