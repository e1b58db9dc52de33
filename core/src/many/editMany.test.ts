import { expect, test } from '@jest/globals';
import { ARTEFACT_KINDS } from '../artefacts/index.ts';
import type { RiskScale } from '../basis/index.ts';
import { EMPTY_CASE, newCover, plainStep, stepId, type Step } from '../cases/index.ts';
import { KINDS, type KindAndContent } from '../kinds/index.ts';
import { EMPTY_FEATURE, textOf, withText } from '../scenarios/index.ts';
import { ownFieldId } from '../fields/index.ts';
import { testField } from '../fields/testField/index.ts';
import { editMany, type EditingProject, type ManyEdit } from './editMany.ts';

const SCALE = { likelihood: ['rare', 'now and then', 'often'], impact: ['small', 'large'] } as unknown as RiskScale;
const FIELD = testField('Runs on', 'choices', { choices: ['Kiosk', 'Phone'], of: ['case', 'condition'] });
const PROJECT: EditingProject = { riskScale: SCALE, fields: [FIELD, testField('Old', 'text', { removed: true })], valueKinds: [] };
const EVERY = ARTEFACT_KINDS.map((kind) => ({ kind, content: KINDS[kind].empty }) as KindAndContent);
const kindsThatTake = (edit: ManyEdit): string[] => EVERY.filter((v) => editMany(edit, v, PROJECT) !== null).map((v) => v.kind);

test('each edit knows the kinds that have what it sets, and changes nothing else of them', () => {
  expect(kindsThatTake({ kind: 'title', title: 't' })).toEqual(ARTEFACT_KINDS);
  for (const value of EVERY.filter((v) => v.kind !== 'feature')) expect(editMany({ kind: 'title', title: 't' }, value, PROJECT)).toEqual({ kind: value.kind, content: { ...value.content, title: 't' } });
  expect(editMany({ kind: 'title', title: '' }, EVERY[0]!, PROJECT)).toBe(EVERY[0]);
  expect(kindsThatTake({ kind: 'module', module: 'm' })).toEqual(['requirement', 'case', 'shared', 'dataSet', 'feature', 'suite']);
  expect(kindsThatTake({ kind: 'priority', priority: 'high' })).toEqual(['requirement', 'case']);
  expect(kindsThatTake({ kind: 'owner', owner: 'Rui M.' })).toEqual(['case', 'question', 'feature', 'suite']);
  expect(kindsThatTake({ kind: 'tag', tag: 'smoke', belongs: true })).toEqual(['case', 'shared', 'dataSet', 'feature', 'suite']);
  for (const edit of [{ kind: 'minutes', minutes: 3 }, { kind: 'caseKind', caseKind: 'charter' }, { kind: 'execution', execution: 'automated' }, { kind: 'covers', condition: 'K-1', seenVersion: 2, belongs: true }] as const) expect(kindsThatTake(edit)).toEqual(['case']);
  expect(kindsThatTake({ kind: 'risk', risk: 'high' })).toEqual(['requirement']);
  expect(kindsThatTake({ kind: 'type', type: 'userStory' })).toEqual(['requirement']);
  expect(kindsThatTake({ kind: 'depth', depth: 'core', belongs: true })).toEqual(['condition']);
  expect(kindsThatTake({ kind: 'derivedFrom', requirement: 'R-1', seenVersion: 1, insteadOf: null })).toEqual(['condition']);
  expect(kindsThatTake({ kind: 'pins', of: 'S-1', version: 2 })).toEqual(['case', 'shared', 'suite']);
  for (const value of EVERY) {
    const moved = editMany({ kind: 'module', module: 'm' }, value, PROJECT);
    if (moved !== null) expect(moved).toEqual({ kind: value.kind, content: { ...value.content, module: 'm' } });
  }
});

test('a feature is called otherwise in its text, whose title it is', () => {
  const feature = (text: string): Extract<KindAndContent, { kind: 'feature' }> => ({ kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: 'bills/bill.feature' }, text, () => `i${Math.random()}`) });
  const named = (value: Extract<KindAndContent, { kind: 'feature' }>) => editMany({ kind: 'title', title: ' Paying: late ' }, value, PROJECT) as typeof value;
  const made = named(feature('\uFEFF@a\r\n  Feature: Bill\r\n  Feature: no more\r\n'));
  expect([made.content.title, textOf(made.content)]).toEqual(['Paying: late', '\uFEFF@a\r\n  Feature: Paying: late\r\n  Feature: no more\r\n']);
  expect(named(made)).toBe(made);
  const nameless = feature('no feature yet');
  expect([nameless.content.title, named(nameless)]).toEqual(['bill', nameless]);
});

test('a feature is written for a requirement once, as somebody saw it, and no longer', () => {
  const feature: KindAndContent = { kind: 'feature', content: { ...EMPTY_FEATURE, path: 'a.feature' } };
  const edit = (value: KindAndContent, seenVersion: number, belongs: boolean) => editMany({ kind: 'writtenFor', requirement: 'R-2', seenVersion, belongs, tags: '' }, value, PROJECT)!;
  const linked = edit(feature, 3, true);
  expect(linked.content).toMatchObject({ requirements: [{ id: 'R-2', seenVersion: 3 }] });
  expect(edit(linked, 5, true)).toBe(linked);
  expect(edit(linked, 5, false)).toEqual(feature);
  expect(kindsThatTake({ kind: 'writtenFor', requirement: 'R-2', seenVersion: 1, belongs: true, tags: '' })).toEqual(['feature']);
});

test('a rating begins in the middle of the scales and keeps its other part; a risk of one’s own takes it away', () => {
  const rate = (part: 'likelihood' | 'impact', step: number, value: KindAndContent) => editMany({ kind: 'rating', part, step }, value, PROJECT)!;
  const rated = rate('impact', 0, EVERY[0]!);
  expect(rated.content).toMatchObject({ rating: { likelihood: 1, impact: 0 } });
  expect(rate('likelihood', 2, rated).content).toMatchObject({ rating: { likelihood: 2, impact: 0 } });
  expect(editMany({ kind: 'risk', risk: 'low' }, rated, PROJECT)!.content).toMatchObject({ risk: 'low', rating: null });
});

test('pins move on to a version, never back, in steps and in the rows that are run; where there is none the content is the very same', () => {
  const use = (pinned: number | null, shared: 'S-1' | 'S-2' = 'S-1'): Step => ({ kind: 'shared', id: stepId(`${shared}${pinned}`), shared, pinned, arguments: [] });
  const pins = (value: KindAndContent, of: 'S-1' | 'D-1' = 'S-1') => editMany({ kind: 'pins', of, version: 4 }, value, PROJECT)!;
  const steps = [use(2), use(null), use(5), use(2, 'S-2'), plainStep(stepId('p'), 'x')];
  const moved = pins({ kind: 'case', content: { ...EMPTY_CASE, steps } });
  expect((moved.content as typeof EMPTY_CASE).steps.map((s) => ('pinned' in s ? s.pinned : '-'))).toEqual([4, null, 5, 2, '-']);
  const rows: KindAndContent = { kind: 'case', content: { ...EMPTY_CASE, data: { set: 'D-1', pinned: 3 } as never } };
  expect(pins(rows, 'D-1').content).toMatchObject({ data: { set: 'D-1', pinned: 4 } });
  expect(pins(rows)).toBe(rows);
  expect(pins(moved)).toBe(moved);
});

test('uses of something are pinned to a version or follow, whatever they did before; those of others stay', () => {
  const use = (pinned: number | null, shared: 'S-1' | 'S-2'): Step => ({ kind: 'shared', id: stepId(`${shared}${pinned}`), shared, pinned, arguments: [] });
  const value: KindAndContent = { kind: 'case', content: { ...EMPTY_CASE, steps: [use(2, 'S-1'), use(null, 'S-1'), use(2, 'S-2')], data: { set: 'D-1', pinned: 3, columns: [] } } };
  const pins = (v: KindAndContent | null): unknown[] => (v?.kind === 'case' ? [...v.content.steps.map((s) => ('pinned' in s ? s.pinned : '-')), v.content.data?.pinned] : []);
  const pinned = editMany({ kind: 'uses', of: 'S-1', pinned: 1 }, value, PROJECT);
  expect([pins(pinned), pins(editMany({ kind: 'uses', of: 'S-1', pinned: null }, pinned!, PROJECT)), pins(editMany({ kind: 'uses', of: 'D-1', pinned: null }, value, PROJECT))]).toEqual([[1, 1, 2, 3], [null, null, 2, 3], [2, null, 2, null]]);
  expect([pins(editMany({ kind: 'uses', of: 'S-1', pinned: 'agreed' }, value, PROJECT)), pins(editMany({ kind: 'uses', of: 'D-1', pinned: 'agreed' }, value, PROJECT))]).toEqual([['agreed', 'agreed', 2, 3], [2, null, 2, 'agreed']]);
  expect(editMany({ kind: 'uses', of: 'S-1', pinned: 1 }, pinned!, PROJECT)).toBe(pinned);
  expect(kindsThatTake({ kind: 'uses', of: 'S-1', pinned: null })).toEqual(['case', 'shared', 'suite']);
});

test('a condition is derived from another requirement besides or instead; what it was anchored to there stays, and nothing is done twice', () => {
  const anchor = { quote: 'by card', start: 0, before: '', after: '' };
  const of = (...links: [`R-${number}`, number][]): KindAndContent => ({ kind: 'condition', content: { ...KINDS.condition.empty, requirements: links.map(([id, seenVersion]) => ({ id, seenVersion, anchor: id === 'R-2' ? anchor : null })) } });
  const links = (value: KindAndContent | null): unknown[] => (value?.kind === 'condition' ? value.content.requirements.map((l) => `${l.id} v${l.seenVersion}${l.anchor === null ? '' : ' anchored'}`) : []);
  const to = (requirement: `R-${number}`, insteadOf: `R-${number}` | null, value: KindAndContent) => editMany({ kind: 'derivedFrom', requirement, seenVersion: 7, insteadOf }, value, PROJECT);
  expect(links(to('R-9', null, of(['R-1', 3])))).toEqual(['R-1 v3', 'R-9 v7']);
  expect(links(to('R-9', 'R-1', of(['R-1', 3], ['R-2', 4])))).toEqual(['R-2 v4 anchored', 'R-9 v7']);
  expect(links(to('R-2', 'R-1', of(['R-1', 3], ['R-2', 4])))).toEqual(['R-2 v4 anchored']);
  const already = of(['R-2', 4]);
  expect(to('R-2', null, already)).toBe(already);
  const deep = editMany({ kind: 'depth', depth: 'core', belongs: true }, already, PROJECT)!;
  expect([deep.content, editMany({ kind: 'depth', depth: 'core', belongs: true }, deep, PROJECT)]).toMatchObject([{ depths: ['core'] }, deep]);
  expect(editMany({ kind: 'depth', depth: 'core', belongs: false }, deep, PROJECT)!.content).toMatchObject({ depths: [] });
});

test('tags, minutes, kinds and links of cases: set where they are not, and the content is the very same where they are', () => {
  const cover = { ...newCover('K-1', 2), fields: [{ id: 'f' }] } as never;
  const written: KindAndContent = { kind: 'case', content: { ...EMPTY_CASE, tags: ['Smoke'], estimate: 3, covers: [cover] } };
  const after = (edit: ManyEdit, value: KindAndContent = written) => editMany(edit, value, PROJECT)!;
  expect(after({ kind: 'tag', tag: 'night', belongs: true }).content).toMatchObject({ tags: ['Smoke', 'night'] });
  expect(after({ kind: 'tag', tag: 'smoke', belongs: false }).content).toMatchObject({ tags: [] });
  expect(after({ kind: 'covers', condition: 'K-2', seenVersion: 5, belongs: true }).content).toMatchObject({ covers: [cover, { id: 'K-2', seenVersion: 5 }] });
  expect(after({ kind: 'covers', condition: 'K-1', seenVersion: 5, belongs: false }).content).toMatchObject({ covers: [] });
  expect(after({ kind: 'minutes', minutes: null }).content).toMatchObject({ estimate: null });
  expect(after({ kind: 'owner', owner: 'Olga S.' }, { kind: 'question', content: KINDS.question.empty }).content).toMatchObject({ asked: 'Olga S.' });
  for (const edit of [
    { kind: 'tag', tag: 'SMOKE', belongs: true }, { kind: 'tag', tag: 'day', belongs: false }, { kind: 'minutes', minutes: 3 }, { kind: 'caseKind', caseKind: 'procedure' },
    { kind: 'execution', execution: 'byHand' }, { kind: 'covers', condition: 'K-1', seenVersion: 9, belongs: true }, { kind: 'covers', condition: 'K-3', seenVersion: 1, belongs: false },
  ] as const) expect(after(edit)).toBe(written);
});

test('a field of the project’s own is set in the kinds that have it, and emptied; one that is removed in none', () => {
  expect([kindsThatTake({ kind: 'own', field: FIELD.id, value: ['kiosk'] }), kindsThatTake({ kind: 'own', field: ownFieldId('old'), value: 'x' })]).toEqual([['condition', 'case'], []]);
  const empty: KindAndContent = { kind: 'case', content: { ...EMPTY_CASE, own: { other: 'kept' } } };
  const set = editMany({ kind: 'own', field: FIELD.id, value: ['kiosk'] }, empty, PROJECT)!;
  expect(set.content.own).toEqual({ other: 'kept', 'runs-on': ['kiosk'] });
  expect(editMany({ kind: 'own', field: FIELD.id, value: ['kiosk'] }, set, PROJECT)).toBe(set);
  for (const nothing of [null, []]) expect(editMany({ kind: 'own', field: FIELD.id, value: nothing }, set, PROJECT)!.content.own).toEqual({ other: 'kept' });
});

test('tags are renamed and joined, or taken away; who has none of them stays the very same', () => {
  const tagged = (...tags: string[]): KindAndContent => ({ kind: 'case', content: { ...EMPTY_CASE, tags } });
  const after = (from: string[], to: string | null, value: KindAndContent) => editMany({ kind: 'tags', from, to }, value, PROJECT)!;
  expect([after(['Smoke', 'sanity'], 'smoke test', tagged('a', 'smoke', 'SANITY', 'b')).content, after(['a'], null, tagged('a', 'b')).content, after(['b'], 'A', tagged('a', 'b')).content, after(['smoke'], 'Smoke', tagged('smoke')).content]).toMatchObject([{ tags: ['a', 'smoke test', 'b'] }, { tags: ['b'] }, { tags: ['a'] }, { tags: ['Smoke'] }]);
  const other = tagged('x');
  expect([after(['a'], 'b', other), after(['x'], 'x', other)].every((v) => v === other)).toBe(true);
  expect(kindsThatTake({ kind: 'tags', from: ['a'], to: 'b' })).toEqual(['case', 'shared', 'dataSet', 'feature', 'suite']);
});
