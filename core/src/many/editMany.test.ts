import { expect, test } from '@jest/globals';
import { ARTEFACT_KINDS } from '../artefacts/index.ts';
import type { RiskScale } from '../basis/index.ts';
import { EMPTY_CASE, plainStep, stepId, type Step } from '../cases/index.ts';
import { KINDS, type KindAndContent } from '../kinds/index.ts';
import { editMany, type ManyEdit } from './editMany.ts';

const SCALE = { likelihood: ['rare', 'now and then', 'often'], impact: ['small', 'large'] } as unknown as RiskScale;
const EVERY = ARTEFACT_KINDS.map((kind) => ({ kind, content: KINDS[kind].empty }) as KindAndContent);
const kindsThatTake = (edit: ManyEdit): string[] => EVERY.filter((v) => editMany(edit, v, SCALE) !== null).map((v) => v.kind);

test('each edit knows the kinds that have what it sets, and changes nothing else of them', () => {
  expect(kindsThatTake({ kind: 'module', module: 'm' })).toEqual(['requirement', 'case', 'shared', 'dataSet']);
  expect(kindsThatTake({ kind: 'priority', priority: 'high' })).toEqual(['requirement', 'case']);
  expect(kindsThatTake({ kind: 'risk', risk: 'high' })).toEqual(['requirement']);
  expect(kindsThatTake({ kind: 'type', type: 'userStory' })).toEqual(['requirement']);
  expect(kindsThatTake({ kind: 'pins', of: 'S-1', version: 2 })).toEqual(['case', 'shared']);
  for (const value of EVERY) {
    const moved = editMany({ kind: 'module', module: 'm' }, value, SCALE);
    if (moved !== null) expect(moved).toEqual({ kind: value.kind, content: { ...value.content, module: 'm' } });
  }
});

test('a rating begins in the middle of the scales and keeps its other part; a risk of one’s own takes it away', () => {
  const rate = (part: 'likelihood' | 'impact', step: number, value: KindAndContent) => editMany({ kind: 'rating', part, step }, value, SCALE)!;
  const rated = rate('impact', 0, EVERY[0]!);
  expect(rated.content).toMatchObject({ rating: { likelihood: 1, impact: 0 } });
  expect(rate('likelihood', 2, rated).content).toMatchObject({ rating: { likelihood: 2, impact: 0 } });
  expect(editMany({ kind: 'risk', risk: 'low' }, rated, SCALE)!.content).toMatchObject({ risk: 'low', rating: null });
});

test('pins move on to a version, never back, in steps and in the rows that are run; where there is none the content is the very same', () => {
  const use = (pinned: number | null, shared: 'S-1' | 'S-2' = 'S-1'): Step => ({ kind: 'shared', id: stepId(`${shared}${pinned}`), shared, pinned, arguments: [] });
  const pins = (value: KindAndContent, of: 'S-1' | 'D-1' = 'S-1') => editMany({ kind: 'pins', of, version: 4 }, value, SCALE)!;
  const steps = [use(2), use(null), use(5), use(2, 'S-2'), plainStep(stepId('p'), 'x')];
  const moved = pins({ kind: 'case', content: { ...EMPTY_CASE, steps } });
  expect((moved.content as typeof EMPTY_CASE).steps.map((s) => ('pinned' in s ? s.pinned : '-'))).toEqual([4, null, 5, 2, '-']);
  const rows: KindAndContent = { kind: 'case', content: { ...EMPTY_CASE, data: { set: 'D-1', pinned: 3 } as never } };
  expect(pins(rows, 'D-1').content).toMatchObject({ data: { set: 'D-1', pinned: 4 } });
  expect(pins(rows)).toBe(rows);
  expect(pins(moved)).toBe(moved);
});
