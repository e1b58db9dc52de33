import { beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { USUAL_PACE, type InboxPart, type InboxReason, type Role } from '@caderno/contract';
import { deliver } from '../src/inbox/index.ts';
import { condition, eachInProject, requirement, testCase, type Caller } from './harness.ts';

const the = eachInProject('inbox');
let analyst: Caller;
let lead: Caller;
let names: Record<Role, string>;

beforeEach(async () => {
  ({ analyst, lead } = the);
  const members = (await lead('listMembers')).data;
  names = Object.fromEntries(members.map((m) => [m.role, m.name])) as Record<Role, string>;
  await analyst('createArtefact', { body: requirement({ title: 'Readings' }) });
  await analyst('createArtefact', { body: condition(['R-1'], { title: 'A reading' }) });
  await analyst('createArtefact', { body: testCase({ title: 'Give it', owner: names.reader, covers: [newCover('K-1', 1)], steps: [plainStep(stepId('a'), 'give it', 'it is taken')] }) });
});

const save = async (id: string, change: object, call = lead) => {
  const { summary, content } = (await call('readArtefact', { params: { id } as never })).data;
  return call('saveArtefact', { params: { id } as never, body: { kind: summary.kind, content: { ...content, ...change }, note: '' } as never }, { 'if-match': `"${summary.version}"` });
};
const inbox = async (call: Caller, part: InboxPart = 'unread') => (await call('readInbox', { query: { part } })).data.entries;
const told = async (call: Caller, part: InboxPart = 'unread') => (await inbox(call, part)).map((e) => [e.reason, e.artefact?.id ?? null, e.by]);
const unread = async (call: Caller) => (await call('countInbox')).data.unread;
const remark = (call: Caller, id: string, text: string) => call('beginThread', { params: { id } as never, body: { remark: randomUUID() as never, place: { path: '', words: null }, said: '', version: 1, text } });

test('what one wrote or owns reaches one when somebody else changes it, as one until it is read, with both versions', async () => {
  await save('C-1', { title: 'Give it twice' });
  await save('C-1', { title: 'Give it thrice' });
  await save('C-1', { title: 'Give it often' }, analyst);
  expect(await inbox(analyst)).toMatchObject([{ reason: 'changed', by: names.lead, artefact: { id: 'C-1', title: 'Give it often', isThere: true }, fromVersion: 1, toVersion: 3, read: false, kept: false }]);
  expect(await inbox(the.reader)).toMatchObject([{ reason: 'changed', by: names.analyst, fromVersion: 1, toVersion: 4 }]);
  // The lead wrote in it by now, too.
  expect([await told(lead), await told(the.administrator)]).toEqual([[['changed', 'C-1', names.analyst]], []]);
  const [entry] = await inbox(analyst);
  expect((await analyst('markInbox', { body: { of: { ids: [entry!.id] }, read: true } })).data).toEqual({ unread: 0 });
  await save('C-1', { title: 'Give it once' });
  await lead('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } });
  expect((await inbox(analyst, 'all')).map((e) => [e.fromVersion, e.toVersion, e.state, e.read])).toEqual([[4, 5, 'agreed', false], [1, 3, null, true]]);
  expect(await inbox(analyst)).toHaveLength(1);
  // Of the same only the latest can be made unread.
  const all = (await inbox(analyst, 'all')).map((e) => e.id);
  await analyst('markInbox', { body: { of: { ids: all }, read: true } });
  expect([(await analyst('markInbox', { body: { of: { ids: all }, read: false } })).data, (await inbox(analyst)).map((e) => e.toVersion)]).toEqual([{ unread: 1 }, [5]]);
});

test('one follows what one chooses, and not what one chooses not to; who leaves the project hears nothing more', async () => {
  const following = async (call: Caller, id: string) => (await call('readFollowing', { params: { id } as never })).data;
  expect([await following(analyst, 'C-1'), await following(the.reader, 'C-1'), await following(the.administrator, 'C-1')]).toEqual([{ follows: true, why: 'wrote' }, { follows: true, why: 'owner' }, { follows: false, why: null }]);
  const follow = (call: Caller, follows: boolean | null) => call('follow', { params: { id: 'C-1' } as never, body: { follows } });
  expect((await follow(the.administrator, true)).data).toEqual({ follows: true, why: 'chosen' });
  expect((await follow(the.reader, false)).data).toEqual({ follows: false, why: null });
  await save('C-1', { title: 'Give it twice' });
  expect([await told(the.administrator), await told(the.reader)]).toEqual([[['changed', 'C-1', names.lead]], []]);
  expect((await follow(the.reader, null)).data).toEqual({ follows: true, why: 'owner' });
  await the.administrator('removeMember', { params: { person: the.people.reader } as never });
  await save('C-1', { title: 'Give it thrice' });
  await deliver(the.server.db, (await the.server.db.query(`SELECT id FROM project WHERE key = '${the.key}'`))[0].map((r) => (r as { id: string }).id)[0]!);
  expect((await the.server.db.query(`SELECT 1 FROM inbox_entry WHERE person_id = '${the.people.reader}'`))[0]).toHaveLength(0);
});

test('a remark reaches whom it names, who spoke in the thread, who follows what it is about, each once; taken back it says nothing', async () => {
  const begun = randomUUID();
  await lead('beginThread', { params: { id: 'C-1' } as never, body: { remark: begun as never, place: { path: '', words: null }, said: '', version: 1, text: `Why, @${names.administrator}?` } });
  expect([await told(the.administrator), await told(analyst), await told(the.reader), await told(lead)]).toEqual([[['named', 'C-1', names.lead]], [['remarked', 'C-1', names.lead]], [['remarked', 'C-1', names.lead]], []]);
  await the.administrator('answerRemark', { params: { remark: begun } as never, body: { remark: randomUUID() as never, text: 'Because.' } });
  expect([await told(lead), (await inbox(analyst)).map((e) => e.text)]).toEqual([[['answered', 'C-1', names.administrator]], ['Because.', `Why, @${names.administrator}?`]]);
  await lead('takeBackRemark', { params: { remark: begun } as never });
  expect((await inbox(the.administrator)).map((e) => e.text)).toEqual([null]);
});

test('questions asked, reviews asked and objected to, suspect links and commands on many reach whom they concern', async () => {
  await lead('createArtefact', { body: { kind: 'question', content: { ...EMPTY_QUESTION, title: 'How often?', asked: names.reader, about: [] } } as never });
  await save('Q-1', { text: 'A day?' });
  expect(await told(the.reader)).toEqual([['changed', 'Q-1', names.lead], ['asked', 'Q-1', names.lead]]);
  const asked = (await lead('askReview', { body: { title: 'Readings', note: '', due: null, people: [the.people.administrator], ids: ['C-1'] } as never })).data.review;
  expect((await inbox(the.administrator)).map((e) => [e.reason, e.review, e.by])).toEqual([['review', { number: asked.number, title: 'Readings' }, names.lead]]);
  await the.administrator('answerReview', { params: { review: asked.number } as never, body: { of: [{ id: 'C-1', version: 1 }], agrees: false, note: 'Too short' } });
  expect((await inbox(lead)).map((e) => [e.reason, e.text])).toEqual([['objected', 'Too short']]);
  await analyst('markInbox', { body: { of: { everything: true }, read: true } });
  await save('K-1', { title: 'Two readings', polarity: 'negative' });
  const after = await inbox(the.reader);
  expect(after.filter((e) => e.reason === 'suspect').map((e) => [e.artefact?.id, e.because])).toEqual([['C-1', 'K-1']]);
  await analyst('writeArtefacts', { body: { made: Array.from({ length: 25 }, (_, i) => testCase({ title: `Case ${i}`, owner: i < 20 ? names.analyst : '' })), changed: [], withdrawn: [], detail: '' } });
  // Whoever made many at once follows none of them for that.
  expect((await analyst('readFollowing', { params: { id: 'C-26' } as never })).data).toEqual({ follows: false, why: null });
  await lead('changeMany', { body: { of: { kind: 'case', query: '' }, done: { kind: 'edit', edit: { kind: 'tag', tag: 'pilot', belongs: true } }, detail: '26 cases got the tag pilot' } });
  expect((await inbox(analyst)).filter((e) => e.reason === 'changedMany').map((e) => [e.count, e.text, e.artefact])).toEqual([[21, '26 cases got the tag pilot', null]]);
});

test('what is kept stays, what is silenced does not come, pages lead on, and nobody marks what is another’s', async () => {
  for (let i = 2; i < 60; i += 1) await remark(lead, 'C-1', `Remark ${i}`);
  const [first, second] = await inbox(analyst);
  await analyst('markInbox', { body: { of: { ids: [first!.id] }, kept: true, read: true } });
  expect([(await inbox(analyst, 'kept')).map((e) => [e.id, e.read, e.kept]), await unread(analyst)]).toEqual([[[first!.id, true, true]], 57]);
  const page = (await analyst('readInbox', { query: { part: 'all' } })).data;
  const next = (await analyst('readInbox', { query: { part: 'all', before: page.entries.at(-1)!.id } })).data;
  expect([page.entries.length, page.more, next.entries.length, next.more]).toEqual([50, true, 8, false]);
  await the.reader('markInbox', { body: { of: { ids: [second!.id] }, read: true } });
  expect(await unread(analyst)).toBe(57);
  expect((await analyst('markInbox', { body: { of: { everything: true }, read: true } })).data.unread).toBe(0);
  await analyst('markInbox', { body: { of: { ids: [second!.id] }, read: false } });
  expect(await unread(analyst)).toBe(1);
  const silent: InboxReason[] = ['remarked', 'changed'];
  expect((await analyst('saveInboxChoices', { body: { silent, mail: USUAL_PACE } })).data.silent.toSorted()).toEqual(silent.toSorted());
  await remark(lead, 'C-1', 'Once more');
  await remark(lead, 'C-1', `And @${names.analyst}`);
  await save('C-1', { title: 'Give it twice' });
  expect((await told(analyst)).map(([reason]) => reason)).toEqual(['named', 'remarked']);
});

test('delivered by several servers at once, everything comes once', async () => {
  const project = (await the.server.db.query(`SELECT id FROM project WHERE key = '${the.key}'`))[0].map((r) => (r as { id: string }).id)[0]!;
  for (let i = 0; i < 6; i += 1) {
    await save('C-1', { title: `Title ${i}` });
    await Promise.all([deliver(the.server.db, project), deliver(the.server.db, project), inbox(analyst)]);
    await analyst('markInbox', { body: { of: { everything: true }, read: true } });
  }
  expect((await inbox(analyst, 'all')).map((e) => [e.fromVersion, e.toVersion])).toEqual([[6, 7], [5, 6], [4, 5], [3, 4], [2, 3], [1, 2]]);
});
