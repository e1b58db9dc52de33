import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { CoveringId } from '../artefacts/index.ts';
import { stepId } from '../cases/index.ts';
import { ModelJudge, PLAIN_ITEM } from '../conditions/index.ts';
import { CELL_SIZE, CELL_STANDINGS, CoverageIndex, choiceCells, chosenCoverage, matrixCells, type Choice, type MatrixCells } from './index.ts';
import { change, K, byReading, condition, designOf, ranges, requirement, testCase } from './testDesign/index.ts';

const choose = (ids: readonly CoveringId[]): Choice => ({ ids, instead: { cases: [], library: [] } });

/** Cells by the names of what they stand for. */
function named({ conditions, columns, cells }: MatrixCells): Record<string, readonly number[]> {
  const made: Record<string, readonly number[]> = {};
  for (let at = 0; at < cells.length; at += CELL_SIZE) made[`${conditions[cells[at] ?? -1]} ${columns[cells[at + 1] ?? -1]}`] = cells.slice(at + 2, at + CELL_SIZE);
  expect(Object.keys(made)).toHaveLength(cells.length / CELL_SIZE);
  return made;
}

/** The slow way: what the coverage of a choice says of every condition that something of it covers. */
function judged(index: CoverageIndex, column: string, ids: readonly CoveringId[]): Record<string, readonly number[]> {
  const covered = new Set([...index.entries.values()].flatMap((e) => (e.counted?.grounds.covering.some((c) => ids.includes(c.id)) === true ? [e.id] : [])));
  const told = chosenCoverage(index, choose(ids)).requirements.flatMap((r) => r.conditions).filter((c) => covered.has(c.id));
  return Object.fromEntries(told.map(({ id, standings }) => [`${id} ${column}`, CELL_STANDINGS.map((s) => standings.filter((standing) => standing === s).length)]));
}

test('a cell says what its case would show alone, of a choice what it shows together, whatever was changed before', () => {
  const out = new ModelJudge(condition(1, [], { model: ranges }).content, 100).items[1]?.key ?? PLAIN_ITEM;
  const speaks = { expects: [stepId('s1')] };
  const start = designOf({ requirements: [requirement(1), requirement(2)], conditions: [condition(1, [1], { model: ranges, leftOut: [{ id: out, reason: '', by: '', at: '' }] }), condition(2, [2]), condition(4, [2, 1])], cases: [testCase(7, ['0', '-1'], [{ ...byReading }, { id: K(2), ...speaks }]), testCase(8, ['12a'], [byReading, { id: K(4), ...speaks }])] });
  const seen = new Set<string>();
  fc.assert(
    fc.property(fc.array(change, { maxLength: 10 }), (changes) => {
      const index = new CoverageIndex(start);
      for (const one of changes) {
        // Cells that were told before must not be told again when they changed.
        matrixCells(index);
        index.apply(one);
      }
      const ids = [...index.cases.values()].filter((c) => c.state !== 'withdrawn').map((c) => c.id);
      const cells = named(matrixCells(index));
      expect(cells).toEqual(Object.assign({}, ...ids.map((id) => judged(index, id, [id]))));
      expect(named(choiceCells(index, [{ column: 'all', choice: choose(ids) }, { column: 'none', choice: choose([]) }]))).toEqual(judged(index, 'all', ids));
      for (const counts of Object.values(cells)) CELL_STANDINGS.forEach((s, i) => (counts[i] ?? 0) > 0 && seen.add(s));
    }),
    { numRuns: 120 },
  );
  expect([...seen].sort()).toEqual([...CELL_STANDINGS].sort());
});
