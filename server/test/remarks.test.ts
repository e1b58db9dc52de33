import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { WHOLE, placeOn, remarkId, type RemarkPlace } from '@caderno/core/remarks';
import { asJson } from '@caderno/core/versions';
import { makeDatabase, makeProject, requirement, startServer, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let people: Awaited<ReturnType<typeof makeProject>>;
let [analyst, reader, lead]: Caller[] = [];
let key = '';
let turn = 0;

function inProject(session: string): Caller {
  const call = server.as(session);
  return (name, input = {}, headers = {}) => call(name, { ...input, params: Object.assign({}, input.params, { project: key }) }, headers);
}

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});
beforeEach(async () => {
  key = `remarks-${(turn += 1)}`;
  people = await makeProject(server.db, key);
  [analyst, reader, lead] = [people.analyst, people.reader, people.lead].map(inProject);
  await analyst!('createArtefact', { body: requirement() });
});

const newId = () => remarkId(randomUUID());
const begin = (call: Caller | undefined, text: string, place: RemarkPlace = WHOLE, remark = newId()) => call!('beginThread', { params: { id: 'R-1' } as never, body: { remark, place, said: '', version: 1, text } });
const threads = async (call = analyst) => (await call!('listRemarks', { params: { id: 'R-1' } as never })).data;
const of = (remark: string) => ({ params: { remark } as never });
const said = async () => (await threads()).map((t) => [t.settled === null, ...t.remarks.map((r) => r.text)]);

test('a remark is said once however often it is sent, answered, settled, opened by an answer, and never somebody else’s', async () => {
  const first = newId();
  const place = placeOn(asJson({ text: 'A reading is a whole number' }), 'text', { start: 2, end: 9 });
  for (let i = 0; i < 3; i += 1) expect((await begin(reader, 'Which one?', place, first)).status).toBe(200);
  expect(await threads()).toMatchObject([{ id: first, place, settled: null, remarks: [{ text: 'Which one?', editedAt: null, takenBackAt: null }] }]);
  const answer = newId();
  for (let i = 0; i < 2; i += 1) await analyst!('answerRemark', { ...of(first), body: { remark: answer, text: 'The last.' } });
  expect((await reader!('settleThread', { ...of(answer), body: { settled: true } })).refusal).toMatchObject({ code: 'role_too_low', needed: 'analyst' });
  await reader!('settleThread', { ...of(first), body: { settled: true } });
  expect([await said(), (await threads())[0]?.settled?.name]).toEqual([[[false, 'Which one?', 'The last.']], expect.any(String)]);
  await lead!('answerRemark', { ...of(answer), body: { remark: newId(), text: 'Not so.' } });
  expect(await said()).toEqual([[true, 'Which one?', 'The last.', 'Not so.']]);
  // The same id by another, or of another thread, is none.
  expect((await begin(lead, 'Mine', WHOLE, first)).refusal.code).toBe('remark_unknown');
  expect((await begin(reader, 'Elsewhere', WHOLE, answer)).refusal.code).toBe('remark_unknown');
});

test('one’s own is said otherwise and taken back, with a trace; others only by who leads', async () => {
  const first = newId();
  await begin(reader, 'Which one?', WHOLE, first);
  const reword = (call: Caller | undefined, text: string) => call!('rewordRemark', { ...of(first), body: { text } });
  expect([(await reword(analyst, 'x')).refusal.code, (await analyst!('takeBackRemark', of(first))).refusal.code]).toEqual(['remark_not_yours', 'remark_not_yours']);
  await reword(reader, 'Which reading?');
  await reword(reader, 'Which reading?');
  expect((await threads())[0]?.remarks[0]).toMatchObject({ text: 'Which reading?', editedAt: expect.any(String), earlier: [{ text: 'Which one?', until: expect.any(String) }] });
  await lead!('takeBackRemark', of(first));
  await lead!('takeBackRemark', of(first));
  expect((await threads())[0]?.remarks[0]).toMatchObject({ text: '', takenBackAt: expect.any(String), earlier: [] });
  expect((await reword(reader, 'Again')).refusal.code).toBe('remark_not_yours');
  const before = await server.db.query('SELECT text FROM remark_before ORDER BY until', { plain: false });
  expect(JSON.stringify(before[0])).toBe(JSON.stringify([{ text: 'Which one?' }, { text: 'Which reading?' }]));
});

test('open threads are told with what was said last, and whom they ask', async () => {
  const names = new Map((await analyst!('listMembers')).data.map((m) => [m.role, m.name]));
  const first = newId();
  await begin(lead, `@${names.get('analyst')}: which <script>alert(1)</script> one?`, WHOLE, first);
  const open = async (call: Caller | undefined) => (await call!('listOpenThreads')).data.map((t) => [t.artefact, t.answers, t.forMe, t.name]);
  expect([await open(analyst), await open(reader), await open(lead)]).toEqual([[['R-1', 0, true, names.get('lead')]], [['R-1', 0, false, names.get('lead')]], [['R-1', 0, false, names.get('lead')]]]);
  const answer = newId();
  await analyst!('answerRemark', { ...of(first), body: { remark: answer, text: 'The last.' } });
  expect([await open(analyst), await open(lead)]).toEqual([[['R-1', 1, false, names.get('analyst')]], [['R-1', 1, true, names.get('analyst')]]]);
  await analyst!('takeBackRemark', of(answer));
  expect(await open(analyst)).toEqual([['R-1', 0, true, names.get('lead')]]);
  await lead!('rewordRemark', { ...of(first), body: { text: 'Which one?' } });
  expect(await open(analyst)).toEqual([['R-1', 0, false, names.get('lead')]]);
  await lead!('settleThread', { ...of(first), body: { settled: true } });
  expect(await open(lead)).toEqual([]);
});

test('two who settle and answer at once both do: the answer is there, and whoever came last decides', async () => {
  const names = new Map((await analyst!('listMembers')).data.map((m) => [m.role, m.name]));
  for (let i = 0; i < 8; i += 1) {
    const first = newId();
    await begin(lead, `Round ${i}`, WHOLE, first);
    const calls = [() => lead!('settleThread', { ...of(first), body: { settled: true } }), () => analyst!('answerRemark', { ...of(first), body: { remark: newId(), text: 'Yes.' } })];
    await Promise.all((i % 2 === 0 ? calls : calls.toReversed()).map((call) => call()));
    const thread = (await threads()).find((t) => t.id === first);
    expect(thread?.remarks).toHaveLength(2);
    expect(thread?.settled === null || thread?.settled.name === names.get('lead')).toBe(true);
  }
});

test('one sent again while the first is under way, as over a bad connection, is there once', async () => {
  const remark = newId();
  const sent = await Promise.all(Array.from({ length: 8 }, () => begin(reader, 'At once', WHOLE, remark)));
  expect([sent.map((r) => r.status), await said()]).toEqual([sent.map(() => 200), [[true, 'At once']]]);
});

test('nobody of another project reads, answers or finds out that there is one', async () => {
  const first = newId();
  await begin(lead, 'Ours', WHOLE, first);
  const theirs = await makeProject(server.db, `${key}-other`);
  const call = server.as(theirs.lead);
  const elsewhere = { project: `${key}-other`, remark: first } as never;
  expect((await call('listRemarks', { params: { project: key, id: 'R-1' } as never })).status).toBe(404);
  expect((await call('answerRemark', { params: elsewhere, body: { remark: newId(), text: 'x' } })).refusal.code).toBe('remark_unknown');
  expect((await call('settleThread', { params: elsewhere, body: { settled: true } })).refusal.code).toBe('remark_unknown');
  expect((await call('takeBackRemark', { params: elsewhere })).refusal.code).toBe('remark_unknown');
});

test('an offered change is taken once, into the version that was seen, and settles its thread', async () => {
  const text = 'A reading is a whole number';
  await analyst!('saveArtefact', { params: { id: 'R-1' } as never, body: { ...requirement({ text }), note: '' } }, { 'if-match': '"1"' });
  const place = placeOn(asJson({ text }), 'text', { start: 2, end: 9 });
  const offer = async (words: string, at: RemarkPlace = place) => {
    const remark = newId();
    await reader!('beginThread', { params: { id: 'R-1' } as never, body: { remark, place: at, said: '', version: 2, text: 'Shorter.', offer: words } });
    return remark;
  };
  const take = (remark: string, version: number, call = analyst) => call!('takeOffer', { ...of(remark), body: { version } });
  const now = async () => (await analyst!('readArtefact', { params: { id: 'R-1' } as never })).data;
  const first = await offer('count');
  expect((await threads())[0]?.remarks[0]?.offer).toEqual({ text: 'count', taken: null });
  expect((await take(first, 2, reader)).refusal).toMatchObject({ code: 'role_too_low' });
  // Nobody takes what they have not seen.
  expect((await take(first, 1)).refusal.code).toBe('version_moved');
  await analyst!('keepDraft', { params: { id: 'R-1' } as never, body: { ...requirement({ text, title: 'Being written' }), base: 2, sequence: 1 } });
  const [one, two] = await Promise.all([take(first, 2), take(first, 2, lead)]);
  expect([one.status, two.status]).toEqual([200, 200]);
  expect(await now()).toMatchObject({ summary: { version: 3 }, content: { text: 'A count is a whole number' }, draft: { base: 2, content: { title: 'Being written' } } });
  expect((await threads())[0]).toMatchObject({ settled: { name: expect.any(String) as unknown }, remarks: [{ offer: { taken: { version: 3 } } }] });
  expect((await analyst!('listChanges', {})).data[0]).toMatchObject({ action: 'save', artefact: 'R-1', note: expect.stringMatching(/^Offered by /) as unknown });

  // The words are gone; nothing would be left of the title; it was taken back; nothing was offered.
  const gone = await offer('meter count');
  const empty = await offer(' ', { path: 'title', words: null });
  const back = await offer('x', { path: 'title', words: null });
  await reader!('takeBackRemark', of(back));
  const none = newId();
  await begin(reader, 'Why?', WHOLE, none);
  const codes = await Promise.all([gone, empty, back, none].map(async (remark) => (await take(remark, 3)).refusal.code));
  expect(codes).toEqual(['offer_gone', 'offer_unfit', 'offer_gone', 'offer_gone']);
  expect((await now()).summary.version).toBe(3);
});
