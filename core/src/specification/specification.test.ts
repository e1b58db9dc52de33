import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ArtefactKind, IdOfKind, RequirementId } from '../artefacts/index.ts';
import { EMPTY_REQUIREMENT } from '../basis/index.ts';
import { EMPTY_CASE, newCover } from '../cases/index.ts';
import { EMPTY_CONDITION } from '../conditions/index.ts';
import type { ContentOfKind } from '../kinds/index.ts';
import { EMPTY_FEATURE, partId } from '../scenarios/index.ts';
import { specification, type SpecifiedArtefact } from './index.ts';

const one = <K extends ArtefactKind>(kind: K, id: IdOfKind[K], content: ContentOfKind[K], parent: RequirementId | null = null, position = 0) => ({ kind, id, content, parent, position, version: 1, state: 'draft' }) as unknown as SpecifiedArtefact;
const requirement = (n: number, parent: RequirementId | null = null, position = n) => one('requirement', `R-${n}`, { ...EMPTY_REQUIREMENT, title: `R${n}` }, parent, position);
const condition = (n: number, of: readonly number[]) => one('condition', `K-${n}`, { ...EMPTY_CONDITION, title: `K${n}`, requirements: of.map((r) => ({ id: `R-${r}` as const, seenVersion: 1, anchor: null })) });
const testCase = (n: number, module: string, covers: readonly number[]) => one('case', `C-${n}`, { ...EMPTY_CASE, title: `C${n}`, module, covers: covers.map((k) => newCover(`K-${k}`, 1)) });

test('the outline with its conditions, each told once; who covers them; what belongs nowhere stands at the end', () => {
  const feature = one('feature', 'F-1', { ...EMPTY_FEATURE, path: 'b.feature', parts: [{ id: partId('p'), kind: 'scenario', number: 1, lines: [], covers: [newCover('K-2', 1)] }] as never });
  const earlier = one('feature', 'F-2', { ...EMPTY_FEATURE, path: 'a.feature' });
  const read = specification([testCase(2, 'Bills', [2, 2]), testCase(10, '', [1]), testCase(9, '', []), condition(2, [2, 3]), condition(1, [3]), condition(7, [99]), feature, earlier, requirement(3), requirement(2, 'R-3', 5), requirement(4, 'R-3', 1), one('question', 'Q-1', {} as never)]);
  expect(read.requirements.map((r) => [r.id, r.depth, r.conditions.map((c) => c.id), r.toldElsewhere, r.coveredBy])).toEqual([
    ['R-3', 0, ['K-1', 'K-2'], [], ['C-2', 'C-10', 'F-1']],
    ['R-4', 1, [], [], []],
    ['R-2', 1, [], ['K-2'], ['C-2', 'F-1']],
  ]);
  expect(read.conditions.map((c) => c.id)).toEqual(['K-7']);
  expect(read.cases.map(({ module, cases }) => [module, cases.map((c) => c.id)])).toEqual([['Bills', ['C-2']], ['', ['C-9', 'C-10']]]);
  expect(read.features.map((f) => f.id)).toEqual(['F-2', 'F-1']);
});

test('whatever there is stands in it exactly once, in whatever order it came', () => {
  const drawn = fc.array(fc.tuple(fc.nat(5), fc.array(fc.integer({ min: 1, max: 6 }), { maxLength: 3 })), { maxLength: 8 });
  fc.assert(
    fc.property(drawn, drawn, fc.infiniteStream(fc.nat()), (parents, links, shuffle) => {
      // Each stands below an earlier one, or at the top.
      const requirements = parents.map(([up], i) => requirement(i + 1, up === 0 || up > i ? null : `R-${up}`));
      const all = [...requirements, ...links.map(([, of], i) => condition(i + 1, of)), ...links.map(([, of], i) => testCase(i + 1, `M${of.length}`, of))];
      const mixed = all.map((a) => [shuffle.next().value, a] as const).sort(([a], [b]) => a - b).map(([, a]) => a);
      const read = specification(mixed);
      const told = [...read.requirements.map((r) => r.id), ...read.requirements.flatMap((r) => r.conditions.map((c) => c.id)), ...read.conditions.map((c) => c.id), ...read.cases.flatMap((m) => m.cases.map((c) => c.id))];
      expect(told.toSorted()).toEqual(all.map((a) => a.id).toSorted());
      expect(read).toEqual(specification(all));
    }),
  );
});
