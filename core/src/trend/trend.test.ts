import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { artefactId } from '../artefacts/index.ts';
import { RISKS } from '../basis/index.ts';
import { stepId } from '../cases/index.ts';
import { after, change, C, R, byReading, condition, designOf, ranges, requirement, testCase } from '../coverage/testDesign/index.ts';
import { CoverageIndex, STANDINGS, coverageReport, type Design } from '../coverage/index.ts';
import { bends, measuresOf, nextToCount, requirementLine, requirementsThen, trendFigures, trendLines, type TrendFigures } from './index.ts';

const base: Design = designOf({
  requirements: [requirement(1, { title: 'Valid reading', module: 'Readings', risk: 'high' }), requirement(2, { title: 'Leak', module: 'Bills', risk: 'low' }), requirement(3, { module: 'Bills' })],
  conditions: [condition(1, [1], { model: ranges }), condition(2, [1, 2])],
  cases: [testCase(1, ['0', '12a'], [byReading])],
});
const shown = { ...base, cases: [...base.cases, testCase(2, [], [{ id: 'K-2', expects: [stepId('s1')] }])] };
const NO_SCENARIOS = { scenarios: 0, byHand: 0, instances: 0, minutes: 0 };
const figuresOf = (design: Design, suites: Parameters<typeof trendFigures>[1] = [], scenarios = NO_SCENARIOS): TrendFigures => trendFigures(new CoverageIndex(design), suites, scenarios);
const thenOf = (design: Design) => requirementsThen(coverageReport(new CoverageIndex(design)));

test('whatever is designed, the risks together are the whole, and a suite of everything shows what the project shows', () => {
  fc.assert(
    fc.property(fc.array(change, { maxLength: 12 }), (changes) => {
      const index = new CoverageIndex(changes.reduce(after, base));
      const everything = { id: artefactId('suite', 1), title: 'All', choice: { ids: [...index.cases.keys()], instead: { cases: [], library: [] } } };
      const figures = trendFigures(index, [everything], NO_SCENARIOS);
      for (const standing of STANDINGS) expect(RISKS.reduce((sum, risk) => sum + figures.byRisk[risk][standing], 0)).toBe(figures.counts[standing]);
      expect(figures.suites[0]?.counts.shown).toBe(figures.counts.shown);
    }),
    { numRuns: 60 },
  );
});

test('figures say how much of the basis is analysed, and what a choice of it shows', () => {
  const figures = figuresOf(shown, [{ id: 'U-1', title: 'Release', choice: { ids: [C(2)], instead: { cases: [], library: [] } } }]);
  expect([figures.requirements, figures.unanalysed, figures.cases, figures.instances]).toEqual([3, 1, 2, 3]);
  expect(figures.suites).toEqual([{ id: 'U-1', title: 'Release', counts: { ...figures.counts, shown: 1, linked: 0, gap: 10 } }]);
  expect(figures.byModule.map((m) => [m.module, m.counts.shown])).toEqual([['Readings', figures.counts.shown], ['Bills', 1]]);
});

test('what made a curve bend: requirements that came to something else, that came, and that went; the widest bend first', () => {
  const later = { ...shown, requirements: [...shown.requirements.slice(0, 2), requirement(4)], cases: [testCase(2, [], [{ id: 'K-2', expects: [stepId('s1')] }])] };
  expect(bends(thenOf(base), thenOf(base))).toEqual([]);
  expect(bends(thenOf(base), thenOf(shown)).map(({ id, before, after: now }) => [id, before?.shown, now?.shown])).toEqual([[R(1), 3, 4], [R(2), 0, 1]]);
  expect(bends(thenOf(shown), thenOf(later)).map(({ id, before, after: now }) => [id, before?.shown, now?.shown])).toEqual([[R(1), 4, 1], [R(3), 0, undefined], [R(4), undefined, 0]]);
  const [first] = bends(thenOf(base), thenOf(shown));
  expect(first?.title).toBe('Valid reading');
});

test('lines: parts that never have anything have none; where a part was not there, or had nothing to show, there is no value', () => {
  const [empty, one, two] = [figuresOf(designOf({})), figuresOf(base), figuresOf(shown)];
  const points = [empty, one, two];
  expect(trendLines(points, 'whole', 'cases')).toEqual([{ key: '', values: [0, 1, 2] }]);
  // Instances and minutes are those of cases and of scenarios, whichever a project is made of.
  const scenarios = figuresOf(shown, [], { scenarios: 4, byHand: 1, instances: 10, minutes: 25 });
  expect((['scenarios', 'instances', 'minutes'] as const).map((m) => trendLines([two, scenarios], 'whole', m)[0]?.values)).toEqual([[0, 4], [3, 13], [0, 25]]);
  expect(trendLines(points, 'whole', 'share')[0]?.values).toEqual([null, 300 / 11, 400 / 11]);
  expect(trendLines(points, 'risk', 'notShown')).toEqual([{ key: 'high', values: [0, 8, 7] }]);
  expect(trendLines(points, 'module', 'share')).toEqual([{ key: 'Readings', values: [null, 300 / 11, 400 / 11] }, { key: 'Bills', values: [null, 0, 100] }]);
  expect(trendLines(points, 'suite', 'share')).toEqual([]);
  expect(trendLines(points, 'technique', 'items').reduce((sum, l) => sum + (l.values.at(-1) ?? 0), 0)).toBe(11);
  expect(requirementLine('R-2', [null, one.counts], 'shown').values).toEqual([null, 3]);
});

test('of parts nothing is told that only the whole has', () => {
  expect(measuresOf('whole')).toContain('minutes');
  expect(measuresOf('module')).toEqual(['share', 'shown', 'linked', 'notShown', 'items']);
});

test('however many are counted, each moment comes once, and the longest stretch of which nothing is known is halved', () => {
  fc.assert(
    fc.property(fc.array(fc.boolean(), { maxLength: 40 }), (begun) => {
      const counted = [...begun];
      for (let left = counted.filter((c) => !c).length; left > 0; left -= 1) {
        const next = nextToCount(counted);
        expect(next === null ? undefined : counted[next]).toBe(false);
        counted[next ?? -1] = true;
      }
      expect(nextToCount(counted)).toBeNull();
    }),
  );
  const order: number[] = [];
  const counted = Array.from({ length: 9 }, () => false);
  for (let next = nextToCount(counted); next !== null; next = nextToCount(counted)) {
    order.push(next);
    counted[next] = true;
  }
  expect(order.slice(0, 5)).toEqual([8, 0, 4, 2, 6]);
});
