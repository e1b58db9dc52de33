import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { USUAL_PACE, type SendByMail } from '@caderno/contract';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { newRow, parameterId, plainStep, rowId, stepId } from '@caderno/core/cases';
import { handOffNumber } from '@caderno/core/handOffs';
import { EMPTY_SUITE, entryId } from '@caderno/core/suites';
import { Postbox } from '@caderno/standins/postbox';
import { MailFailed, sendDue } from '../src/mail/index.ts';
import { carryMails } from '../src/upkeep/index.ts';
import { makeDatabase, makeProject, startServer, testCase, until, type Caller, type TestServer } from './harness.ts';

/** A working morning. */
const START = new Date(2027, 1, 3, 9, 30);
const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

let postbox: Postbox;
let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let now = START;
let turn = 0;

beforeAll(async () => {
  postbox = new Postbox();
  const port = await postbox.listen(0);
  database = await makeDatabase();
  server = await startServer(database.url, { mail: { server: `smtp://127.0.0.1:${port}`, from: 'Caderno <caderno@notes.example>', address: 'https://notes.example', page: 'http://127.0.0.1:1' }, now: () => now });
});
afterAll(async () => {
  await server.close();
  await database.drop();
  await postbox.close();
});
beforeEach(async () => {
  now = new Date(START.getTime() + (turn += 1) * 10 * DAY);
  project = await makeProject(server.db, `mail-${turn}`);
});
afterEach(() => {
  postbox.mood.busy = false;
});

const as = (token: string | null): Caller => (name, input = {}, headers = {}) => server.as(token)(name, { ...input, params: Object.assign({ project: `mail-${turn}` }, input.params) as never }, headers);
const later = (ms: number): void => void (now = new Date(now.getTime() + ms));
const carry = (): Promise<void> => carryMails(server.parts);
const arrived = (address: string) => postbox.mails.filter((m) => m.to.includes(address));
const wordIn = (text: string): string => /#([\w-]{20,})/.exec(text)?.[1] ?? '';
const stored = async (): Promise<string> => JSON.stringify((await server.db.query('SELECT m.*, encode(sealed, \'escape\') AS shown_bytes FROM mail m'))[0]);
const send = (to: SendByMail['to'], of: SendByMail['of'] = { what: 'artefact', id: 'C-1' }, note = '', token = project.analyst) => as(token)('sendByMail', { body: { to, of, note } });
const goodPassword = 'a long way to the well';

test('invited by mail somebody makes their account, once; the word of the link stands nowhere in the clear, and nobody else gets in', async () => {
  const administrator = as(project.administrator);
  const email = `nadia-${turn}@notes.example`;
  expect((await administrator('invite', { body: { email: email.toUpperCase(), role: 'analyst' } })).data).toMatchObject({ joined: null, invitations: [{ email, role: 'analyst', mail: { state: 'waiting' } }] });
  const waiting = await stored();
  await carry();
  const [mail] = arrived(email);
  const word = wordIn(mail?.text ?? '');
  expect(mail?.text).toContain(`https://notes.example/invited#${word}`);
  expect(waiting).not.toContain(word);
  expect((await administrator('listInvitations')).data[0]?.mail?.state).toBe('sent');
  expect((await as(null)('openInvitation', { body: { token: word } })).data).toEqual({ project: `mail-${turn}`, email, role: 'analyst', by: `administrator of mail-${turn}` });

  const accept = (token: string, password = goodPassword) => as(null)('acceptInvitation', { body: { token, name: 'Nadia F.', password } });
  expect((await accept(word, 'aaaaaaaaaa')).refusal.code).toBe('password_weak');
  const both = await Promise.all([accept(word), accept(word)]);
  expect(both.map((b) => b.status).sort()).toEqual([200, 410]);
  expect(both.find((b) => b.status === 200)?.data).toMatchObject({ person: { name: 'Nadia F.', email }, projects: [{ key: `mail-${turn}`, role: 'analyst' }] });
  expect((await administrator('listInvitations')).data).toEqual([]);

  // Who has an account is in at once, and is not invited twice.
  await as(project.administrator)('removeMember', { params: { person: both.find((b) => b.status === 200)!.data.person!.id } as never });
  expect((await administrator('invite', { body: { email, role: 'reader' } })).data).toMatchObject({ joined: { email, role: 'reader' }, invitations: [] });
  expect((await administrator('invite', { body: { email, role: 'reader' } })).refusal.code).toBe('member_already');
  expect((await as(project.lead)('invite', { body: { email: 'x@notes.example', role: 'reader' } })).refusal.code).toBe('role_too_low');
});

test('an invitation that is withdrawn, asked anew or old opens nothing; one that is withdrawn in time is never sent', async () => {
  const invite = async (email: string) => (await as(project.administrator)('invite', { body: { email, role: 'reader' } })).data.invitations[0]!;
  const state = async (email: string) => (await as(null)('openInvitation', { body: { token: wordIn(arrived(email)[0]?.text ?? '') } })).status;
  const [withdrawn, old] = [`withdrawn-${turn}@notes.example`, `old-${turn}@notes.example`];
  const unsent = await invite(withdrawn);
  await as(project.administrator)('withdrawInvitation', { params: { invitation: unsent.id } as never });
  await carry();
  expect(arrived(withdrawn)).toEqual([]);
  const second = await invite(withdrawn);
  await carry();
  expect(await state(withdrawn)).toBe(200);
  await as(project.administrator)('withdrawInvitation', { params: { invitation: second.id } as never });
  expect(await state(withdrawn)).toBe(410);
  await invite(old);
  await carry();
  await server.db.query(`UPDATE invitation SET expires_at = now() - interval '1 minute' WHERE email = '${old}'`);
  expect(await state(old)).toBe(410);
  const first = wordIn(arrived(old)[0]?.text ?? '');
  await invite(old);
  await carry();
  expect([await state(old), (await as(null)('openInvitation', { body: { token: first } })).status]).toEqual([200, 410]);
});

/** Somebody with a password, through the front door. */
async function account(name: string): Promise<{ readonly email: string; readonly session: string }> {
  const email = `${name}-${turn}@notes.example`;
  await as(project.administrator)('invite', { body: { email, role: 'analyst' } });
  await carry();
  const body = JSON.stringify({ token: wordIn(arrived(email)[0]?.text ?? ''), name, password: goodPassword });
  const response = await server.fetch('/api/v1/invited', { method: 'POST', headers: { 'content-type': 'application/json' }, body });
  return { email, session: /caderno_session=([^;]+)/.exec(response.headers.get('set-cookie') ?? '')?.[1] ?? '' };
}

test('a forgotten password: whoever asks learns nothing, the mail sets it once, and nobody is flooded', async () => {
  const { email, session } = await account('olga');
  const forget = (address: string) => as(null)('forgetPassword', { body: { email: address } });
  const [known, unknown] = [await forget(email), await forget('nobody-knows@notes.example')];
  expect([known.status, known.data]).toEqual([unknown.status, unknown.data]);
  for (let i = 0; i < 4; i += 1) await forget(email);
  await carry();
  const mails = arrived(email).filter((m) => m.subject === 'A new password for Caderno');
  expect(mails).toHaveLength(3);
  expect(arrived('nobody-knows@notes.example')).toEqual([]);
  const reset = (text: string) => as(null)('resetPassword', { body: { token: wordIn(text), password: 'another way to the well' } });
  // The latest counts; those before ended with it.
  expect([(await reset(mails[1]!.text)).status, (await reset(mails[0]!.text)).status, (await reset(mails[0]!.text)).status]).toEqual([410, 200, 410]);
  expect((await as(session)('listSessions')).status).toBe(401);
  for (let i = 0; i < 12; i += 1) await forget(email);
  expect((await forget(email)).refusal.code).toBe('too_many_attempts');
  expect((await as(null)('signIn', { body: { email, password: 'another way to the well' } })).status).toBe(200);
});

test('another e-mail address is taken by a link that goes there, with one’s password, once', async () => {
  const { email, session } = await account('teresa');
  const wanted = `teresa-new-${turn}@notes.example`;
  const ask = (to: string, password = goodPassword) => as(session)('changeEmail', { body: { email: to, password } });
  expect([(await ask(wanted, 'not the password')).refusal.code, (await ask(email)).refusal.code, (await as(project.analyst)('changeEmail', { body: { email: wanted, password: goodPassword } })).refusal.code]).toEqual(['password_wrong', 'person_exists', 'demo_person']);
  await ask(wanted);
  await carry();
  expect((await as(session)('readSession')).data.person?.email).toBe(email);
  const token = wordIn(arrived(wanted)[0]?.text ?? '');
  expect((await as(null)('confirmEmail', { body: { token } })).data.person).toBeNull();
  expect((await as(session)('readSession')).data.person?.email).toBe(wanted);
  expect((await as(null)('confirmEmail', { body: { token } })).refusal.code).toBe('address_link_ended');
});

test('each is told of their own part of a hand-off: what they execute by hand, until when, and where it is; nothing of the others', async () => {
  const call = as(project.analyst);
  const steps = [plainStep(stepId('a'), 'give <it>', 'it is taken')];
  const PARAMETERS = [{ id: parameterId('p'), name: 'it', type: 'text', default: 'one', description: '' }] as const;
  // Three times a tenth of a minute is three tenths.
  const ROWS = ['a', 'b', 'c'].map((id) => newRow(rowId(id), id, { p: id }));
  for (const [title, more] of [['Read', { estimate: 4.1 }], ['Pay\r\nBcc: all@notes.example', { estimate: 0.1, parameters: PARAMETERS, rows: ROWS }], ['Robot', { execution: 'automated' }]] as const) await call('createArtefact', { body: testCase({ title, steps, ...more }) });
  const entries = (['C-1', 'C-2', 'C-3'] as const).map((of) => ({ kind: 'member' as const, id: entryId(of), of, pinned: null, runsIn: null }));
  await call('createArtefact', { body: { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries } } });
  const made = await call('makeHandOff', { body: { of: { suite: 'U-1' }, configurations: [], name: 'Round 7', note: 'Begin with the bills', due: '2031-01-31', leftOut: [], people: ['Rui M.'], dividing: 'evenly', chosen: [{ of: 'C-2', configuration: null, person: 'Outside' }, { of: 'C-3', configuration: null, person: 'Robot' }] } });
  expect(made.status).toBe(200);
  const out = `tester-${turn}@outside.example`;
  const tell = (person: string) => send([{ address: out }], { what: 'handOff', number: handOffNumber(1), person }, 'From Monday');
  expect((await tell('Rui M.')).status).toBe(200);
  await carry();
  const [mail] = arrived(out);
  expect(mail?.subject).toBe(`analyst of mail-${turn}: H-1 Round 7, the part of Rui M.`);
  expect(mail?.text.replaceAll('\r', '')).toContain(`From Monday\n\nH-1 Round 7, the part of Rui M.: 1 instance, 4.1 minutes, to be done by 2031-01-31\n\nBegin with the bills\n\n`);
  expect(mail?.text).toContain(`https://notes.example/mail-${turn}/hand-offs/1`);
  expect(mail?.text).toContain('C-1 Read, 4.1 minutes');
  expect(mail?.text).not.toMatch(/C-2|C-3/);
  await tell('Outside');
  await carry();
  expect(arrived(out).map((m) => m.text).filter((text) => /C-2 Pay\s+Bcc: all@notes\.example, 3 times, 0\.3 minutes/.test(text))).toHaveLength(1);
  expect(arrived('all@notes.example')).toEqual([]);
  // What runs by itself is told to nobody, and nobody is told of nothing.
  expect([(await tell('Robot')).refusal.code, (await tell('Nobody')).refusal.code]).toEqual(['hand_off_part_empty', 'hand_off_part_empty']);
});

test('a case, a question and a list go to people inside and outside, as text; readers send inside only', async () => {
  await as(project.analyst)('createArtefact', { body: testCase({ title: 'Give it\n<script>' }) });
  await as(project.analyst)('createArtefact', { body: { kind: 'question', content: { ...EMPTY_QUESTION, title: 'Which clock?', text: 'Ours, or <b>theirs</b>?\r\n.\r\nBcc: all@notes.example' } } });
  const out = `customer-${turn}@outside.example`;
  const inside = `reader@mail-${turn}.example`;
  expect((await send([{ person: project.people.reader }, { address: out.toUpperCase() }, { address: out }], undefined, 'Look at the <second> step')).data.map((m) => [m.to, m.state])).toEqual(expect.arrayContaining([[`reader of mail-${turn}`, 'waiting'], [out, 'waiting']]));
  await send([{ address: out }], { what: 'artefact', id: 'Q-1' });
  await send([{ address: out }], { what: 'list', kind: 'case', query: 'is:draft' });
  await carry();
  const [list, question, one] = arrived(out);
  expect(arrived(out)).toHaveLength(3);
  expect(arrived(inside)).toHaveLength(1);
  expect(one?.subject).toBe(`analyst of mail-${turn}: C-1 Give it <script>`);
  expect(one?.text).toContain(`Look at the <second> step\n\nC-1 Give it`);
  expect(one?.text).toContain(`https://notes.example/mail-${turn}/open/C-1`);
  expect(question?.text.replaceAll('\r', '')).toContain('Ours, or <b>theirs</b>?\n.\nBcc: all@notes.example');
  expect(list?.subject).toBe(`analyst of mail-${turn}: 1 case of “is:draft”`);
  expect(list?.text).toContain(`/list/case?query=is%3Adraft`);
  expect(arrived('all@notes.example')).toEqual([]);
  expect([(await send([{ address: out }], undefined, '', project.reader)).refusal.code, (await send([{ address: inside }], undefined, '', project.reader)).status]).toEqual(['mail_outside', 200]);
  expect([(await send([{ person: project.people.reader }], { what: 'artefact', id: 'C-9' })).refusal.code, (await send([{ person: '00000000-0000-4000-8000-000000000000' }])).refusal.code]).toEqual(['artefact_unknown', 'person_unknown']);
  const many = Array.from({ length: 50 }, (_, i) => ({ address: `m${i}@outside.example` }));
  for (let i = 0; i < 5; i += 1) await send(many);
  expect((await send(many)).refusal.code).toBe('too_many_mails');
  // To send 250 takes half a minute, and says nothing more.
  await server.db.query(`DELETE FROM mail WHERE state = 'waiting'`);
  expect((await as(project.lead)('listMails')).data).toEqual([]);
});

test('a mail server that is away for a day gets every mail in the end, once; what it never takes comes back to who sent it', async () => {
  await as(project.analyst)('createArtefact', { body: testCase({ title: 'Wait' }) });
  const out = `patient-${turn}@outside.example`;
  await send([{ address: out }, { address: `nobody@outside-${turn}.example` }]);
  postbox.mood.busy = true;
  await carry();
  const mails = async () => (await as(project.analyst)('listMails')).data;
  expect((await mails()).map((m) => [m.state, m.tries])).toEqual([['waiting', 1], ['waiting', 1]]);
  expect((await mails())[0]?.answer).toContain('Too busy');
  for (let hour = 0; hour < 26; hour += 1) {
    later(61 * MINUTE);
    await carry();
  }
  expect(new Set((await mails()).map((m) => m.state))).toEqual(new Set(['waiting']));
  postbox.mood.busy = false;
  later(61 * MINUTE);
  await Promise.all([carry(), carry(), carry()]);
  expect(arrived(out)).toHaveLength(1);
  const [refused] = (await mails()).filter((m) => m.state === 'refused');
  expect(refused?.answer).toContain('Nobody has this address');
  expect((await as(project.analyst)('readInbox', { query: { part: 'all' } })).data.entries[0]).toMatchObject({ reason: 'unsent', text: `nobody@outside-${turn}.example: analyst of mail-${turn}: C-1 Wait` });
  const inProject = (mail: string) => ({ params: { mail } as never });
  expect((await as(project.analyst)('sendMailAgain', { ...inProject(refused!.id), body: {} })).data.find((m) => m.id === refused!.id)?.state).toBe('waiting');
  expect((await as(project.analyst)('takeBackMail', inProject(refused!.id))).data.map((m) => m.state)).toEqual(['sent']);
  const [sent] = await mails();
  expect([(await as(project.analyst)('sendMailAgain', { ...inProject(sent!.id), body: {} })).refusal.code, (await as(project.lead)('takeBackMail', inProject(sent!.id))).refusal.code]).toEqual(['mail_unknown', 'mail_unknown']);
  expect(await stored()).not.toContain('"state":"sent","sealed"');

  postbox.mood.busy = true;
  await send([{ address: out }]);
  later(4 * DAY);
  await carry();
  expect((await mails())[0]).toMatchObject({ state: 'refused', nextAt: null });
});

test('while a mail server keeps silent nothing is held, and another server lets that mail be', async () => {
  await as(project.analyst)('createArtefact', { body: testCase({ title: 'Silence' }) });
  await send([{ address: `silent-${turn}@outside.example` }]);
  let answer: (error: Error) => void = () => undefined;
  let asked = 0;
  const silent = { send: () => new Promise<void>((_, reject) => ((asked += 1), (answer = reject))) };
  const sending = { db: server.db, box: server.parts.secrets, server: silent, now: () => now, onGivenUp: () => Promise.resolve() };
  const under = sendDue(sending);
  await until(() => (asked === 1 ? true : null));
  const [held] = await server.db.query(`SELECT 1 FROM pg_stat_activity WHERE datname = current_database() AND state = 'idle in transaction'`);
  expect(held).toEqual([]);
  await sendDue(sending);
  expect(asked).toBe(1);
  answer(new MailFailed('nothing was heard', 'none'));
  await under;
  expect((await as(project.analyst)('listMails')).data[0]).toMatchObject({ state: 'waiting', answer: 'nothing was heard', tries: 1 });
});

test('of what reaches people what they wait for is mailed: at once, in the morning or never, and not what they read meanwhile', async () => {
  const analyst = as(project.analyst);
  const mine = `lead@mail-${turn}.example`;
  await analyst('createArtefact', { body: testCase({ title: 'Talk' }) });
  const say = (text: string) => analyst('beginThread', { params: { id: 'C-1' } as never, body: { remark: randomUUID() as never, place: { path: '', words: null }, said: '', version: 1, text } });
  await say(`@lead of mail-${turn} look <img src=x onerror=alert(1)>`);
  await carry();
  expect(arrived(mine)).toEqual([]);
  later(3 * MINUTE);
  const other = await startServer(database.url, { mail: server.parts.mail, mailServer: server.parts.mailServer, secrets: server.parts.secrets, now: () => now });
  await Promise.all([carry(), carryMails(other.parts)]);
  await other.close();
  expect(arrived(mine)).toHaveLength(1);
  expect(arrived(mine)[0]).toMatchObject({ subject: `analyst of mail-${turn} named you on C-1 Talk`, text: expect.stringContaining('> @lead of') });
  expect(arrived(mine)[0]?.text).toContain('> ' + `@lead of mail-${turn} look <img src=x onerror=alert(1)>`);

  const [entry] = (await as(project.lead)('readInbox', { query: { part: 'all' } })).data.entries;
  await as(project.lead)('markInbox', { body: { of: { ids: [entry!.id] }, read: true } });
  await say(`@lead of mail-${turn} again`);
  await as(project.lead)('markInbox', { body: { of: { everything: true }, read: true } });
  later(3 * MINUTE);
  await carry();
  expect(arrived(mine)).toHaveLength(1);

  await as(project.lead)('saveInboxChoices', { body: { silent: [], mail: { ...USUAL_PACE, named: 'daily' } } });
  expect((await as(project.lead)('readInboxChoices')).data.mail).toEqual({ ...USUAL_PACE, named: 'daily' });
  await say(`@lead of mail-${turn} in the morning`);
  await say(`@lead of mail-${turn} and this`);
  now = new Date(now.getFullYear(), now.getMonth(), now.getDate() + 1, 5, 0);
  await carry();
  expect(arrived(mine)).toHaveLength(1);
  later(3 * 60 * MINUTE);
  await carry();
  expect(arrived(mine).map((m) => m.subject)[0]).toBe(`2 things for you in mail-${turn}`);
  await say(`@lead of mail-${turn} too late for today`);
  later(60 * MINUTE);
  await carry();
  expect(arrived(mine)).toHaveLength(2);
  await as(project.administrator)('removeMember', { params: { person: project.people.lead } as never });
  later(DAY);
  await carry();
  expect(arrived(mine)).toHaveLength(2);
});

test('a server without mail says so; its administrators see how mail stands and try it', async () => {
  const without = await startServer(database.url);
  const call = (token: string): Caller => (name, input = {}) => without.as(token)(name, { ...input, params: Object.assign({ project: `mail-${turn}` }, input.params) as never });
  expect((await call(project.analyst)('sendByMail', { body: { to: [{ address: 'a@b.example' }], of: { what: 'artefact', id: 'C-1' }, note: '' } })).refusal.code).toBe('mail_off');
  expect((await without.as(null)('readSession')).data.sendsMail).toBe(false);
  const { email, session } = await account('nuno');
  await server.db.query(`UPDATE person SET administrator = true WHERE email = '${email}'`);
  expect((await call(session)('sendTrialMail', { body: {} })).refusal.code).toBe('mail_off');
  expect((await call(session)('readServerState')).data.mail.server).toBeNull();
  await without.close();
  expect((await as(session)('sendTrialMail', { body: {} })).status).toBe(200);
  expect(arrived(email)[0]?.subject).toBe('Mail from Caderno arrives');
  postbox.mood.busy = true;
  expect((await as(session)('sendTrialMail', { body: {} })).refusal).toMatchObject({ code: 'mail_failed', answer: expect.stringContaining('Too busy') });
  expect((await as(session)('readServerState')).data.mail).toMatchObject({ server: expect.stringMatching(/^127\.0\.0\.1:/), from: 'Caderno <caderno@notes.example>' });
});
