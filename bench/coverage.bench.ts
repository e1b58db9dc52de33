import { CoverageIndex, coverageReport, listItems } from '@caderno/core/coverage';
import { LARGE, largeDesign, seeded } from './largeProject.ts';
import { p95, report, timed, type Figure } from './measure.ts';

/** Coverage of the large project in the core: from scratch, and after one edit. */
export async function coverageFigures(): Promise<Figure[]> {
  const design = largeDesign(4711);
  const random = seeded(12);
  let index = new CoverageIndex({ ...design, requirements: [], conditions: [], cases: [] });
  const scratch = await timed(() => {
    index = new CoverageIndex(design);
    coverageReport(index);
  });
  const edit = await p95(60, () => {
    const edited = design.cases[random(LARGE.cases)];
    if (edited === undefined) throw new Error('The large project has cases');
    const rows = edited.content.rows.map((r) => ({ ...r, cells: { p: String(random(2000)) } }));
    index.apply({ kind: 'case', id: edited.id, case: { ...edited, content: { ...edited.content, rows } } });
    coverageReport(index);
  });
  const condition = await p95(60, () => {
    const edited = design.conditions[random(LARGE.conditions)];
    if (edited === undefined) throw new Error('The large project has conditions');
    index.apply({ kind: 'condition', id: edited.id, condition: { ...edited, content: { ...edited.content, title: 'edited' } } });
    coverageReport(index);
  });
  const worst = await p95(30, () => listItems(index, { standings: ['gap', 'linked'] }, 50));
  return [
    { what: 'coverage of the large project from scratch, with its report', ms: scratch, budget: 1_000 },
    { what: 'the same after one edit of a case, p95', ms: edit, budget: 50 },
    { what: 'the same after one edit of a condition, p95', ms: condition, budget: 50 },
    { what: 'the 50 worst gaps, p95', ms: worst, budget: 50 },
  ];
}

if (process.argv[1]?.endsWith('coverage.bench.ts')) process.exitCode = report(await coverageFigures()) ? 0 : 1;
