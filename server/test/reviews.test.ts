import { beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { reviewNumber } from '@caderno/core/reviews';
import { newCover } from '@caderno/core/cases';
import { DEFAULT_SETTINGS, type Review } from '@caderno/contract';
import fc from 'fast-check';
import { condition, eachInProject, makeProject, requirement, testCase, type Caller } from './harness.ts';

const the = eachInProject('reviews');
let analyst: Caller;
let reader: Caller;
let lead: Caller;
let ids: typeof the.people;

beforeEach(async () => {
  ({ analyst, reader, lead, people: ids } = the);
  await analyst('createArtefact', { body: requirement() });
});

const TERMS = { title: 'The readings', note: '', due: '2026-12-24' };
const ask = (of: string[], people: string[], call = analyst) => call('askReview', { body: { ...TERMS, ids: of as never, people } });
const ofReview = (review = 1) => ({ params: { review: reviewNumber(review) } as never });
const say = (call: Caller, agrees: boolean, version: number, id = 'R-1', note = '') => call('answerReview', { ...ofReview(), body: { of: [{ id: id as never, version }], agrees, note } });
const read = async () => (await analyst('readReview', ofReview())).data;
const head = async (id = 'R-1') => (await analyst('readArtefact', { params: { id } as never })).data.summary;
const save = async (change: object, call = analyst, id = 'R-1') => {
  const { summary, content } = (await call('readArtefact', { params: { id } as never })).data;
  return call('saveArtefact', { params: { id } as never, body: { kind: summary.kind, content: { ...content, ...change }, note: '' } as never }, { 'if-match': `"${summary.version}"` });
};
const setState = (state: string, id = 'R-1') => analyst('setState', { params: { id } as never, body: { state } as never });
const agreement = async (change: object, call = lead) => {
  const { version, settings } = (await call('readSettings')).data;
  return call('saveSettings', { body: { ...settings, agreement: { ...DEFAULT_SETTINGS.agreement, ...change } } }, { 'if-match': `"${version}"` });
};
const standing = (review: Review, id = 'R-1') => review.items.find((i) => i.id === id)?.standing;

test('asked, objected to, mended, asked again, agreed: the states follow, and the journal says so and undoes nothing of it', async () => {
  const { data } = await ask(['R-1'], [ids.reader, ids.analyst]);
  expect([data.left, data.review, (await head()).state]).toMatchObject([[], { number: 1, by: expect.any(String), endedAt: null, due: '2026-12-24', asked: [{ person: ids.reader, may: true, waiting: 1 }, { person: ids.analyst }], items: [{ id: 'R-1', version: 1, since: null, standing: 'waiting', authors: [ids.analyst] }] }, 'inReview']);
  // Who wrote it may agree, but that does not count.
  expect(standing((await say(analyst, true, 1)).data)).toBe('waiting');
  expect(standing((await say(reader, false, 1, 'R-1', 'Which reading?')).data)).toBe('objected');
  expect((await head()).state).toBe('draft');
  expect((await analyst('askAgain', { ...ofReview(), body: { ids: ['R-1'] as never } })).refusal.code).toBe('review_of_nothing');
  await save({ text: 'The last reading is a whole number.' });
  expect([standing(await read()), (await head()).state]).toEqual(['objected', 'draft']);
  await analyst('askAgain', { ...ofReview(), body: { ids: ['R-1'] as never } });
  expect((await read()).items).toMatchObject([{ version: 2, standing: 'waiting', answers: [{ agrees: true, version: 1 }, { agrees: false, note: 'Which reading?' }] }]);
  expect((await say(reader, true, 1)).refusal).toMatchObject({ code: 'review_moved', id: 'R-1', version: 2 });
  const done = (await say(reader, true, 2)).data;
  expect([done.endedAt, done.endedBy, (await head()).state]).toEqual([expect.any(String), null, 'agreed']);
  expect((await say(reader, false, 2)).refusal.code).toBe('review_ended');
  const journal = (await analyst('listChanges', { query: {} })).data;
  expect(journal.filter((c) => c.action === 'review').map((c) => c.detail)).toEqual(['1 agreed', '1 again', '1 objected', '1 asked']);
  expect((await analyst('undoChange', { params: { change: journal[0]!.id } as never, body: {} })).refusal.code).toBe('undo_of_review');
});

test('a save during the review asks anew for what changed in meaning only, also where it was agreed already', async () => {
  await analyst('createArtefact', { body: requirement({ title: 'Late fees' }) });
  await ask(['R-1', 'R-2'], [ids.reader]);
  await say(reader, true, 1);
  expect((await head()).state).toBe('agreed');
  await save({ priority: 'low' });
  expect([(await head()).state, standing(await read())]).toEqual(['agreed', 'agreed']);
  await save({ text: 'Another text' });
  expect([(await head()).state, (await read()).items[0]]).toMatchObject(['inReview', { version: 3, since: 1, standing: 'waiting' }]);
  await save({ priority: 'low' }, analyst, 'R-2');
  expect((await read()).items[1]).toMatchObject({ version: 1, head: 2, standing: 'waiting' });
  // What differs in no meaning is agreed in the version that was looked at.
  await say(reader, true, 1, 'R-2');
  await say(reader, true, 3);
  expect((await read()).endedAt).not.toBeNull();
  expect(await the.server.db.query('SELECT number, agreed_version, head FROM artefact WHERE project_id = (SELECT id FROM project WHERE key = $1) ORDER BY number', { bind: [the.key], plain: false }).then(([rows]) => rows)).toEqual([{ number: 1, agreed_version: 3, head: 3 }, { number: 2, agreed_version: 1, head: 2 }]);
});

test('an objection taken back after the mend asks for what it has become; one to what was agreed takes the agreement back', async () => {
  await analyst('createArtefact', { body: requirement({ title: 'Late fees' }) });
  await ask(['R-1', 'R-2'], [ids.reader, ids.lead]);
  await say(reader, true, 1);
  expect((await head()).state).toBe('agreed');
  await say(lead, false, 1);
  expect([(await head()).state, standing(await read())]).toEqual(['draft', 'objected']);
  await save({ text: 'Mended' });
  await say(lead, true, 1);
  expect([(await head()).state, (await read()).items[0]]).toMatchObject(['inReview', { version: 2, standing: 'waiting' }]);
  await agreement({ needed: 'all' });
  await say(reader, true, 2);
  expect(standing(await read())).toBe('waiting');
  // Who asks for less has what is there settled at once.
  expect((await agreement({ needed: 1 }, analyst)).refusal.code).toBe('role_too_low');
  await agreement({ needed: 1 });
  expect([standing(await read()), (await head()).state]).toEqual(['agreed', 'agreed']);
});

test('who leaves the project or loses the role no longer counts; who was never asked cannot answer', async () => {
  await ask(['R-1'], [ids.reader]);
  expect((await say(lead, true, 1)).refusal.code).toBe('review_not_asked');
  await agreement({ role: 'analyst' });
  expect([standing((await say(reader, true, 1)).data), (await read()).asked[0]]).toMatchObject(['waiting', { may: false }]);
  expect((await ask(['R-1'], [randomUUID()])).refusal.code).toBe('person_unknown');
  await analyst('changeReview', { ...ofReview(), body: { ...TERMS, due: null, people: [ids.reader, ids.lead] } });
  await say(reader, false, 1);
  await say(lead, true, 1);
  expect(standing(await read())).toBe('objected');
  const removed = await the.administrator('removeMember', { params: { person: ids.reader } as never });
  expect([removed.status, standing(await read()), (await head()).state]).toEqual([200, 'agreed', 'agreed']);
});

test('what cannot be asked for is told, the rest is asked; nothing is asked that nobody could agree to', async () => {
  await analyst('createArtefact', { body: requirement({ title: 'Late fees' }) });
  await analyst('createArtefact', { body: requirement({ title: 'Withdrawn' }) });
  await setState('withdrawn', 'R-3');
  await setState('agreed', 'R-2');
  expect((await ask(['R-1'], [ids.analyst])).refusal).toMatchObject({ code: 'reviewers_too_few', id: 'R-1', needed: 1, authors: false });
  expect((await head()).state).toBe('draft');
  const { data } = await ask(['R-1', 'R-2', 'R-3', 'R-9'], [ids.reader]);
  expect(data.left).toEqual(expect.arrayContaining([{ id: 'R-2', reason: 'agreedAlready' }, { id: 'R-3', reason: 'withdrawn' }, { id: 'R-9', reason: 'absent' }]));
  expect((await ask(['R-1'], [ids.reader])).refusal.code).toBe('review_of_nothing');
  // The same command once more is answered with what the first one did.
  await save({ text: 'Mended' }, analyst, 'R-2');
  const command = { 'command-id': randomUUID() };
  const again = () => analyst('askReview', { body: { ...TERMS, ids: ['R-2'] as never, people: [ids.reader] } }, command);
  expect([(await again()).data.review.number, (await again()).data.review.number, (await analyst('listReviews')).data.map((r) => [r.number, r.ids, r.counts.waiting])]).toEqual([2, 2, [[2, ['R-2'], 1], [1, ['R-1'], 1]]]);
});

test('a state set by hand takes out of the review, which ends when nothing is left; agreeing by hand is a thing of the project', async () => {
  await analyst('createArtefact', { body: requirement({ title: 'Late fees' }) });
  await ask(['R-1', 'R-2'], [ids.reader]);
  await setState('draft');
  expect([standing(await read()), (await read()).endedAt, (await setState('inReview')).refusal.code]).toEqual(['left', null, 'state_by_review']);
  await analyst('askAgain', { ...ofReview(), body: { ids: ['R-1'] as never } });
  expect(standing(await read())).toBe('waiting');
  await setState('draft');
  const byHand = (await analyst('listChanges', { query: {} })).data[0]!;
  await analyst('undoChange', { params: { change: byHand.id } as never, body: {} });
  expect((await head()).state).toBe('draft');
  await say(reader, true, 1, 'R-2');
  expect((await read()).endedAt).not.toBeNull();
  await agreement({ byHand: false });
  expect((await setState('agreed')).refusal).toMatchObject({ code: 'state_by_review', state: 'agreed' });
  expect((await analyst('changeMany', { body: { of: { ids: ['R-1'] as never }, done: { kind: 'state', state: 'agreed' }, detail: '' } })).refusal.code).toBe('state_by_review');
  await ask(['R-1'], [ids.reader]);
  const ended = (await analyst('endReview', { params: { review: reviewNumber(2) } as never, body: {} })).data;
  expect([ended.endedBy, standing(ended), (await head()).state]).toEqual([expect.any(String), 'left', 'draft']);
});

test('undoing an agreement by hand makes it as if it had not been, and never agrees to what was written since', async () => {
  await setState('agreed');
  const agreed = (await analyst('listChanges', { query: {} })).data[0]!;
  await analyst('undoChange', { params: { change: agreed.id } as never, body: {} });
  const stored = async () => (await the.server.db.query('SELECT state, agreed_version FROM artefact WHERE project_id = (SELECT id FROM project WHERE key = $1)', { bind: [the.key] }))[0];
  expect(await stored()).toEqual([{ state: 'draft', agreed_version: null }]);
  await setState('agreed');
  await setState('draft');
  const draft = (await analyst('listChanges', { query: {} })).data[0]!;
  await save({ text: 'Written since' });
  await analyst('undoChange', { params: { change: draft.id } as never, body: {} });
  expect(await stored()).toEqual([{ state: 'draft', agreed_version: 1 }]);
});

test('what hangs on a requirement: below it, derived from it, covering that, and what it uses', async () => {
  await analyst('createArtefact', { body: { ...requirement({ title: 'Below' }), parent: 'R-1' as never } });
  await analyst('createArtefact', { body: condition(['R-2']) });
  await analyst('createArtefact', { body: condition([]) });
  await analyst('createArtefact', { body: testCase({ covers: [newCover('K-1', 1)] }) });
  expect((await analyst('readHanging', { params: { id: 'R-1' } as never })).data).toEqual(['R-1', 'R-2', 'K-1', 'C-1']);
});

test('under any order of saves, answers and questions anew, no version is agreed that enough people did not agree to', async () => {
  const act = fc.constantFrom('save', 'tags', 'readerAgrees', 'readerObjects', 'leadAgrees', 'leadObjects', 'again', 'late');
  await agreement({ needed: 2 });
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 1, maxLength: 10 }), async (acts) => {
      const made = (await analyst('createArtefact', { body: requirement() })).data.summary.id;
      const number = (await ask([made], [ids.reader, ids.lead])).data.review.number;
      const agreed = new Map<number, Set<string>>();
      const answer = async (call: Caller, who: string, agrees: boolean, version: number): Promise<void> => {
        const { status } = await call('answerReview', { ...ofReview(number), body: { of: [{ id: made, version }], agrees, note: '' } });
        if (status !== 200) return;
        const people = agreed.get(version) ?? new Set();
        agreed.set(version, people);
        if (agrees) people.add(who);
        else people.delete(who);
      };
      for (const [i, a] of acts.entries()) {
        const { version = 1 } = (await analyst('readReview', ofReview(number))).data.items[0] ?? {};
        if (a === 'save') await save({ text: `Text ${i}` }, analyst, made);
        else if (a === 'tags') await save({ source: `Page ${i}` }, analyst, made);
        else if (a === 'readerAgrees' || a === 'readerObjects') await answer(reader, 'reader', a === 'readerAgrees', version);
        else if (a === 'leadAgrees' || a === 'leadObjects') await answer(lead, 'lead', a === 'leadAgrees', version);
        else if (a === 'late') await answer(lead, 'lead', true, Math.max(1, version - 1));
        else await analyst('askAgain', { ...ofReview(number), body: { ids: [made] } });
        const [stored] = (await the.server.db.query(`SELECT a.state, a.agreed_version AS agreed, a.meaning_since AS since FROM artefact a WHERE a.project_id = (SELECT id FROM project WHERE key = $1) AND kind = 'requirement' AND number = $2`, { bind: [the.key, Number(made.slice(2))] }))[0] as { state: string; agreed: number | null; since: number }[];
        if (stored!.agreed !== null) expect([a, agreed.get(stored!.agreed)?.size]).toEqual([a, 2]);
        if (stored!.state === 'agreed') expect(stored!.agreed).toBeGreaterThanOrEqual(stored!.since);
      }
    }),
    { numRuns: 25 },
  );
}, 120_000);

test('who agrees while somebody saves agrees to what they saw, or is told; the other’s words are asked for', async () => {
  for (let i = 0; i < 6; i += 1) {
    const id = (await analyst('createArtefact', { body: requirement() })).data.summary.id;
    const { number } = (await ask([id], [ids.reader])).data.review;
    const [answered, saved] = await Promise.all([reader('answerReview', { ...ofReview(number), body: { of: [{ id, version: 1 }], agrees: true, note: '' } }), save({ text: `Written at once ${i}` }, analyst, id)]);
    expect(saved.status).toBe(200);
    const [stored] = (await the.server.db.query('SELECT state, agreed_version FROM artefact WHERE project_id = (SELECT id FROM project WHERE key = $1) AND number = $2', { bind: [the.key, Number(id.slice(2))] }))[0] as { state: string; agreed_version: number | null }[];
    // Agreed first, the review ended and the save made a draft; saved first, the answer was of another version.
    expect(stored).toEqual(answered.status === 200 ? { state: 'draft', agreed_version: 1 } : { state: 'inReview', agreed_version: null });
    if (answered.status !== 200) expect(answered.refusal).toMatchObject({ code: 'review_moved', version: 2 });
  }
});

test('nobody of another project reads a review, answers in it or finds out that there is one', async () => {
  await ask(['R-1'], [ids.reader]);
  const call = the.server.as((await makeProject(the.server.db, `${the.key}-other`)).lead);
  expect((await call('readReview', { params: { project: the.key, review: reviewNumber(1) } })).status).toBe(404);
  expect((await call('answerReview', { params: { project: `${the.key}-other`, review: reviewNumber(1) }, body: { of: [{ id: 'R-1', version: 1 }], agrees: true, note: '' } })).refusal.code).toBe('review_unknown');
  expect((await say(reader, true, 1)).data.items[0]?.answers).toHaveLength(1);
});
