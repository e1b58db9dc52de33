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
  expect(kindsThatTake({ kind: 'depth', depth: 'core', belongs: true })).toEqual(['condition']);
  expect(kindsThatTake({ kind: 'derivedFrom', requirement: 'R-1', seenVersion: 1, insteadOf: null })).toEqual(['condition']);
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

test('a condition is derived from another requirement besides or instead; what it was anchored to there stays, and nothing is done twice', () => {
  const anchor = { quote: 'by card', start: 0, before: '', after: '' };
  const of = (...links: [`R-${number}`, number][]): KindAndContent => ({ kind: 'condition', content: { ...KINDS.condition.empty, requirements: links.map(([id, seenVersion]) => ({ id, seenVersion, anchor: id === 'R-2' ? anchor : null })) } });
  const links = (value: KindAndContent | null): unknown[] => (value?.kind === 'condition' ? value.content.requirements.map((l) => `${l.id} v${l.seenVersion}${l.anchor === null ? '' : ' anchored'}`) : []);
  const to = (requirement: `R-${number}`, insteadOf: `R-${number}` | null, value: KindAndContent) => editMany({ kind: 'derivedFrom', requirement, seenVersion: 7, insteadOf }, value, SCALE);
  expect(links(to('R-9', null, of(['R-1', 3])))).toEqual(['R-1 v3', 'R-9 v7']);
  expect(links(to('R-9', 'R-1', of(['R-1', 3], ['R-2', 4])))).toEqual(['R-2 v4 anchored', 'R-9 v7']);
  expect(links(to('R-2', 'R-1', of(['R-1', 3], ['R-2', 4])))).toEqual(['R-2 v4 anchored']);
  const already = of(['R-2', 4]);
  expect(to('R-2', null, already)).toBe(already);
  const deep = editMany({ kind: 'depth', depth: 'core', belongs: true }, already, SCALE)!;
  expect([deep.content, editMany({ kind: 'depth', depth: 'core', belongs: true }, deep, SCALE)]).toMatchObject([{ depths: ['core'] }, deep]);
  expect(editMany({ kind: 'depth', depth: 'core', belongs: false }, deep, SCALE)!.content).toMatchObject({ depths: [] });
});
