import { beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { baselineNumber } from '@caderno/core/baselines';
import { EMPTY_FEATURE, withText } from '@caderno/core/scenarios';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { condition, eachInProject, requirement, save, testCase, type Caller } from './harness.ts';

const the = eachInProject('report');
let analyst: Caller;
let reader: Caller;
const report = async (since?: number) => (await reader('readReport', { query: since === undefined ? {} : { since: baselineNumber(since) } })).data;
const put = async (id: string, change: object): Promise<void> => {
  const { summary, content } = (await analyst('readArtefact', { params: { id } as never })).data;
  await save(analyst, id, summary.version, { kind: summary.kind, content: { ...content, ...change } } as never, '', undefined, the.key);
};
const BILLS = withText({ ...EMPTY_FEATURE, path: 'bills.feature' }, 'Feature: Bills\n\n  @automated\n  Scenario: One\n    Given a bill\n\n  Scenario: Two\n    Given a bill\n', randomUUID);
const question = (title: string, about: object[], asked: string) => ({ kind: 'question', content: { ...EMPTY_QUESTION, title, asked, about: about as never } }) as const;

beforeEach(async () => {
  ({ analyst, reader } = the);
  const first = [
    requirement({ title: 'Readings', module: 'Meters', rating: { likelihood: 2, impact: 2 } }),
    requirement({ title: 'Bills', module: 'Bills' }),
    requirement({ title: 'Fees', module: 'Bills' }),
    condition(['R-1'], { title: 'A reading' }),
    condition(['R-2'], { title: 'A bill' }),
    testCase({ title: 'Read', estimate: 3, covers: [{ ...newCover('K-1', 1), expects: [stepId('a')] }], steps: [plainStep(stepId('a'), 'read it', 'it is taken')] }),
    { kind: 'feature', content: BILLS } as const,
    question('How much?', [{ kind: 'requirement', id: 'R-2', words: '', holds: true }], 'Rui M.'),
    question('Since when?', [{ kind: 'requirement', id: 'R-3', words: '', holds: true }], ''),
  ];
  for (const body of first) expect((await analyst('createArtefact', { body })).status).toBe(200);
});

test('where it stands now, worst first, who is waited for; answered questions and what was agreed to wait no longer', async () => {
  await analyst('askReview', { body: { title: 'The readings', note: '', due: '2026-12-24', ids: ['R-1', 'C-1'] as never, people: [the.people.reader] } });
  const now = await report();
  const { counts, requirements, unanalysed, cases } = now.figures;
  expect([counts.shown, counts.waiting, requirements, unanalysed, cases]).toEqual([1, 1, 3, 1, 1]);
  expect(now.figures.scenarios).toMatchObject({ scenarios: 2, instances: 2 });
  expect(now.worst).toEqual({ more: 0, first: [expect.objectContaining({ id: 'R-3', isAnalysed: false, risk: 'medium' }), expect.objectContaining({ id: 'R-2', isAnalysed: true, counts: expect.objectContaining({ waiting: 1 }) })] });
  expect(now.waiting).toMatchObject([
    { who: 'Rui M.', questions: [{ id: 'Q-1', title: 'How much?', holdsUp: 1 }], reviews: [] },
    { who: expect.stringMatching(/reader/i), questions: [], reviews: [{ number: 1, title: 'The readings', due: '2026-12-24', artefacts: 2 }] },
    { who: '', questions: [{ id: 'Q-2', holdsUp: 0 }] },
  ]);
  expect([now.since, now.unreadable, now.trend]).toEqual([null, 0, { points: [], left: 0 }]);
  await put('Q-1', { status: 'answered', answer: 'Five.', answeredBy: 'Rui M.', answeredAt: '2026-12-01T10:00:00.000Z' });
  await reader('answerReview', { params: { review: 1 } as never, body: { of: [{ id: 'R-1', version: 1 }, { id: 'C-1', version: 1 }] as never, agrees: true, note: '' } });
  expect((await report()).waiting).toMatchObject([{ who: '', questions: [{ id: 'Q-2' }] }]);
});

test('held against a baseline: its figures, what was added, went or means something else; one that is not there is refused', async () => {
  expect((await analyst('takeBaseline', { body: { name: 'Then', note: '', of: { everything: true } } })).status).toBe(200);
  await put('R-1', { text: 'A reading is a whole number.' });
  await put('R-2', { tags: ['moved'] });
  await analyst('setState', { params: { id: 'R-3' } as never, body: { state: 'withdrawn' } as never });
  await analyst('createArtefact', { body: requirement({ title: 'New' }) });
  const { since, figures } = await report(1);
  expect(since).toMatchObject({ number: 1, name: 'Then', part: '', figures: { unanalysed: 1, cases: 1, counts: { shown: 1 } }, kinds: [{ kind: 'requirement', added: 1, meant: 1, gone: 1 }] });
  expect(since?.requirements).toEqual({ more: 0, first: [{ id: 'R-1', title: 'Readings', became: 'changed' }, { id: 'R-3', title: 'Fees', became: 'gone' }, { id: 'R-4', title: 'New', became: 'added' }] });
  // The condition's requirement means something else: what is shown of it is suspect until somebody looked.
  expect([figures.counts.shown, figures.counts.suspect]).toEqual([0, 1]);
  expect((await reader('readReport', { query: { since: baselineNumber(2) } })).refusal.code).toBe('baseline_unknown');
});
