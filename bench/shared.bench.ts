import { artefactId, type CaseId } from '@caderno/core/artefacts';
import { EMPTY_CASE, newRow, parameterId, rowId, stepId, plainStep, type CaseContent, type Step } from '@caderno/core/cases';
import { countExpanded, instancesOf, openCase, openedText, usersOf, type UseEdge, type Used } from '@caderno/core/shared';
import { seeded } from './largeProject.ts';
import { p95, report, timed, type Figure } from './measure.ts';

/** Opening a case through calls, counting what cannot be opened, and who uses what in a large project. */
export async function sharedFigures(): Promise<Figure[]> {
  return [...(await expansionFigures()), ...(await countFigures()), ...(await reachFigures())];
}

const LEVELS = 4;

/** Each level calls the one below with every row of it; 10 rows, then 10, then 20, then 50: 100 000 instances. */
async function expansionFigures(): Promise<Figure[]> {
  const [content, library] = nested([50, 20, 10, 10]);
  let [instances, letters] = [0, 0];
  const before = process.memoryUsage().heapUsed;
  let most = 0;
  const ms = await timed(() => {
    const opened = openCase(content, library);
    if (opened.kind !== 'opened') throw new Error(`The measured case can be opened: ${opened.kind}`);
    for (const { number } of instancesOf(opened)) {
      instances += 1;
      for (const line of opened.steps) if (line.kind === 'step') letters += openedText(line.scope.open(line.step.action)).length + openedText(line.scope.open(line.step.expected)).length;
      if (number % 10_000n === 0n) most = Math.max(most, process.memoryUsage().heapUsed - before);
    }
  });
  if (instances !== 100_000 || letters === 0) throw new Error(`All instances are opened: expected 100000, got ${instances}`);
  return [
    { what: `100 000 instances opened through ${LEVELS} levels of calls (${letters.toLocaleString()} letters)`, ms, budget: 2_000 },
    { what: 'memory beyond what was there', ms: most / 1e6, budget: 300, unit: 'MB' },
  ];
}

/** A case that calls a case that calls …, each with so many rows and three steps of its own, every row run. */
function nested(rows: readonly number[]): [CaseContent, ReadonlyMap<string, Used>] {
  const contentOf = (level: number): CaseContent => {
    const call: Step[] = level === 0 ? [] : [{ kind: 'call', id: stepId('call'), case: idOf(level - 1), pinned: null, rows: { kind: 'every' }, arguments: [{ id: `from ${level - 1}`, value: `<x${level}> of <y${level}>` }] }];
    return {
      ...EMPTY_CASE,
      title: `level ${level}`,
      parameters: [`x${level}`, `y${level}`, `from ${level}`].map((name) => ({ id: parameterId(name), name, type: 'text' as const, default: 'usual', description: '' })),
      rows: Array.from({ length: rows[level] ?? 1 }, (_, i) => newRow(rowId(`r${i}`), `row ${i}`, { [`x${level}`]: `value ${i}`, [`y${level}`]: `other ${i}` })),
      steps: [...[1, 2, 3].map((n): Step => plainStep(stepId(`s${n}`), `enter <x${level}> and <from ${level}>`, `it says <y${level}>`)), ...call],
    };
  };
  const idOf = (level: number): CaseId => artefactId('case', level + 1);
  const top = rows.length - 1;
  return [contentOf(top), new Map(rows.slice(0, top).map((_, level) => [idOf(level), { kind: 'case', id: idOf(level), version: 1, withdrawn: false, content: contentOf(level) }]))];
}

async function countFigures(): Promise<Figure[]> {
  const [content, library] = nested(Array.from({ length: 50 }, () => 1_000));
  let instances = 0n;
  const ms = await p95(50, () => (instances = countExpanded(content, library).instances));
  if (instances !== 1_000n ** 50n) throw new Error('The product of fifty levels is counted exactly');
  return [{ what: '10^150 instances of fifty levels counted, p95', ms, budget: 10 }];
}

const CASES = 20_000;
const SHARED = 2_000;

/** Twenty thousand cases that each use three shared steps, which use each other three deep. */
async function reachFigures(): Promise<Figure[]> {
  const random = seeded(21);
  const s = (n: number) => artefactId('shared', n + 1);
  const edges: UseEdge[] = [
    ...Array.from({ length: CASES }, (_, i) => [0, 1, 2].map((): UseEdge => ({ from: artefactId('case', i + 1), to: s(random(SHARED)), pinned: random(10) === 0 ? 1 : null }))).flat(),
    ...Array.from({ length: SHARED }, (_, i): UseEdge[] => (i < 20 ? [] : [{ from: s(i), to: s(random(Math.ceil(i / 10))), pinned: null }])).flat(),
  ];
  let reached = 0;
  const ms = await p95(30, () => (reached = usersOf(edges, s(0)).length));
  if (reached < 1_000) throw new Error(`The measured steps are used by many: expected over 1000, got ${reached}`);
  return [{ what: `used by, and reach, among ${CASES} cases (${reached} users), p95`, ms, budget: 100 }];
}

if (process.argv[1]?.endsWith('shared.bench.ts')) process.exitCode = report(await sharedFigures()) ? 0 : 1;
