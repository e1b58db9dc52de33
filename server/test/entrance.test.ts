import { describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { Writable } from 'node:stream';
import { setTimeout as sleep } from 'node:timers/promises';
import { API_ROOT, EVENTS_PATH, type Refusal } from '@caderno/contract';
import { createLog, Proxies } from '../src/http/index.ts';
import { makeSetUpWord } from '../src/people/index.ts';
import { readSettings } from '../src/settings.ts';
import { PASSWORD, withAccounts } from './accounts.ts';
import { makeDatabase, makeProject, requirement, startServer, type TestServer } from './harness.ts';

const NEXT = 'weirs above the valley';

const { the, send, enter, person, member } = withAccounts();
const refusal = async (response: Response): Promise<Refusal> => (await response.json()) as Refusal;

describe('the first administrator', () => {
  test('needs the word that was printed, once, and a password that nobody guesses', async () => {
    const empty = await makeDatabase();
    const fresh = await startServer(empty.url, { demoSignIn: 'whileAlone' });
    expect((await fresh.as(null)('readSession')).data).toMatchObject({ needsSetup: true, demoPeople: [] });
    const setUp = (word: string, password = PASSWORD) => fresh.as(null)('setUp', { body: { name: 'X', email: 'x@p.example', password, word } });
    expect((await setUp('')).status).toBe(400);
    expect((await setUp('abcd-abcd-abcd')).refusal.code).toBe('set_up_word_wrong');
    const word = (await makeSetUpWord(fresh.db)) ?? '';
    expect((await setUp(word, '1234567890')).refusal.code).toBe('password_weak');
    expect((await Promise.all([setUp(word), setUp(word.toUpperCase())])).map((r) => r.status).sort()).toEqual([200, 409]);
    expect([await makeSetUpWord(fresh.db), (await setUp(word)).refusal.code]).toEqual([null, 'set_up_already']);
    await fresh.close();
    await empty.drop();
  });
});

describe('the demo’s people and real ones', () => {
  test('exclude each other, unless the server was started so', async () => {
    const own = await makeDatabase();
    const alone = await startServer(own.url, { demoSignIn: 'whileAlone' });
    const demo = await makeProject(alone.db);
    const click = (at: TestServer) => at.as(null)('signIn', { body: { demoPerson: demo.people.analyst } });
    expect((await click(alone)).status).toBe(200);
    // The first account would close the demo to whoever makes it.
    const add = { body: { name: 'Real', email: 'real@p.example', password: PASSWORD, role: 'analyst' as const } };
    expect((await alone.as(demo.administrator)('addMember', add)).refusal.code).toBe('demo_alone');
    const open = await startServer(own.url, { demoSignIn: 'always' });
    expect((await open.as(demo.administrator)('addMember', add)).status).toBe(200);
    expect((await open.as(null)('readSession')).data).toMatchObject({ openToAll: true });
    expect((await click(open)).status).toBe(200);
    // Started without: no click, and sessions that were clicked open before are over.
    expect((await click(alone)).refusal.code).toBe('demo_closed');
    expect((await alone.as(null)('readSession')).data).toMatchObject({ openToAll: false, demoPeople: [], needsSetup: false });
    expect((await alone.as(demo.analyst)('readProject')).status).toBe(401);
    await open.close();
    await alone.close();
    await own.drop();
  });

  test('have no right in other projects, and look after no accounts', async () => {
    const own = await makeDatabase();
    const open = await startServer(own.url, { demoSignIn: 'always' });
    const demo = await makeProject(open.db);
    await open.db.query('UPDATE person SET administrator = true WHERE id = $1', { bind: [demo.people.administrator] });
    await open.db.query(`INSERT INTO project (id, key, name) VALUES ($1, 'real', 'Real')`, { bind: [randomUUID()] });
    const admin = open.as(demo.administrator);
    expect((await admin('readProject', { params: { project: 'real' } })).status).toBe(404);
    expect((await admin('readSession')).data.projects.map((p) => p.key)).toEqual(['p']);
    expect((await admin('listAccounts')).status).toBe(403);
    expect((await admin('makeResetLink', { params: { person: demo.people.reader }, body: {} })).status).toBe(403);
    // What they make belongs to the demo, and is theirs.
    expect((await admin('createProject', { body: { key: 'tried', name: 'Tried' } })).status).toBe(200);
    expect((await admin('readProject', { params: { project: 'tried' } })).status).toBe(200);
    await open.close();
    await own.drop();
  });

  test('are not offered on a network, where the first account needs the word', () => {
    const at = (HOST: string, more: Record<string, string> = {}) => readSettings({ DATABASE_URL: 'postgres://x', HOST, ...more }).demoSignIn;
    expect([at('127.0.0.1'), at('::1'), at('localhost'), at('0.0.0.0'), at('192.168.1.5'), at('0.0.0.0', { CADERNO_DEMO_OPEN: '1' })]).toEqual(['whileAlone', 'whileAlone', 'whileAlone', 'never', 'never', 'always']);
  });
});

describe('the name a request is sent to', () => {
  test('must be one of this server’s; health answers by any', async () => {
    const to = async (host: string, path = `${API_ROOT}/session`) => (await the.server.fetch(path, { headers: { host } })).status;
    expect([await to('caderno.test'), await to('127.0.0.1:3210'), await to('rebound.example'), await to('127.0.0.1.evil.example:3210'), await to('rebound.example', '/api/openapi.json'), await to('rebound.example', '/healthz')]).toEqual([200, 200, 421, 421, 421, 200]);
  });
  test('names come from the settings', () => {
    const { hosts } = readSettings({ DATABASE_URL: 'postgres://x', HOST: '10.0.0.5', CADERNO_HOSTS: 'Caderno.example, notes.example' });
    expect([...hosts]).toEqual(expect.arrayContaining(['127.0.0.1', 'localhost', '10.0.0.5', 'caderno.example', 'notes.example']));
  });
  test('a proxy is believed only where one is said to be', async () => {
    const behind = await startServer(the.database.url, { proxies: new Proxies(['127.0.0.1']) });
    const cookie = async (at: TestServer) => (await at.fetch(`${API_ROOT}/session`, { method: 'POST', headers: { 'content-type': 'application/json', 'x-forwarded-proto': 'https' }, body: JSON.stringify({ email: 'rosa@p.example', password: PASSWORD }) })).headers;
    expect([(await cookie(behind)).get('set-cookie')?.includes('Secure'), (await cookie(behind)).get('strict-transport-security')]).toEqual([true, 'max-age=15552000']);
    expect([(await cookie(the.server)).get('set-cookie')?.includes('Secure'), (await cookie(the.server)).get('strict-transport-security')]).toEqual([false, null]);
    await behind.close();
  });
});

describe('an account for a lifetime', () => {
  test('a password is changed; every other session ends, this one stays', async () => {
    const ana = await member('ana');
    const elsewhere = person(await enter('ana@p.example', PASSWORD));
    const change = (current: string, next: string) => ana.call('changePassword', { body: { current, next } });
    expect([(await change('wrong', NEXT)).refusal.code, (await change(PASSWORD, 'ana@p.example')).refusal.code, (await change(PASSWORD, NEXT)).status]).toEqual(['password_wrong', 'password_weak', 200]);
    expect([(await ana.call('readProject')).status, (await elsewhere.call('readProject')).status]).toEqual([200, 401]);
    expect([(await enter('ana@p.example', PASSWORD)).status, (await enter('ana@p.example', NEXT)).status]).toEqual([401, 200]);
  });

  test('a link sets a new password once, and is over when used, replaced or old', async () => {
    const bea = await member('bea');
    const link = async () => (await the.root.call('makeResetLink', { params: { person: bea.id }, body: {} })).data.token;
    const use = (token: string, password = NEXT) => send('POST', '/reset', { token, password });
    const first = await link();
    const second = await link();
    expect((await refusal(await use(first))).code).toBe('reset_link_ended');
    expect((await refusal(await use(second, 'password12'))).code).toBe('password_weak');
    const used = await use(second);
    expect([(await person(used).call('readProject')).status, (await bea.call('readProject')).status]).toEqual([200, 401]);
    expect((await refusal(await use(second))).code).toBe('reset_link_ended');
    const third = await link();
    await the.server.db.query('UPDATE reset_link SET expires_at = now() - interval \'1 minute\'');
    expect((await refusal(await use(third))).code).toBe('reset_link_ended');
    const [rows] = await the.server.db.query('SELECT token_hash FROM reset_link');
    expect(JSON.stringify(rows)).not.toContain(third);
  });

  test('deactivated they are out at once and brought back whole; the last administrator stays', async () => {
    const eva = await member('eva');
    const change = (id: string, body: { active?: boolean; administrator?: boolean }) => the.root.call('changeAccount', { params: { person: id }, body });
    expect((await change(eva.id, { active: false })).data).toMatchObject({ name: 'eva', active: false });
    expect([(await eva.call('readProject')).status, (await enter('eva@p.example', PASSWORD)).status]).toEqual([401, 401]);
    await change(eva.id, { active: true });
    expect((await enter('eva@p.example', PASSWORD)).status).toBe(200);
    const accounts = (await the.root.call('listAccounts')).data;
    const me = accounts.find((a) => a.email === 'rosa@p.example')!;
    expect((await change(me.id, { administrator: false })).refusal.code).toBe('last_administrator');
    expect((await change(me.id, { active: false })).refusal.code).toBe('last_administrator');
    expect((await eva.call('listAccounts')).status).toBe(401);
    expect((await change(randomUUID(), { active: false })).refusal.code).toBe('account_unknown');
  });

  test('roles change, people leave and come in again by their account; a project keeps an administrator', async () => {
    const ida = await member('ida', 'reader');
    const params = { person: ida.id };
    expect((await ida.call('createArtefact', { body: requirement() })).status).toBe(403);
    await the.root.call('changeRole', { params, body: { role: 'analyst' } });
    expect((await ida.call('createArtefact', { body: requirement() })).status).toBe(200);
    expect((await the.root.call('removeMember', { params })).data.map((m) => m.name)).not.toContain('ida');
    expect((await ida.call('readProject')).status).toBe(404);
    expect((await the.root.call('addMember', { body: { name: 'ida', email: 'IDA@p.example', password: PASSWORD, role: 'lead' } })).refusal).toMatchObject({ code: 'person_exists', email: 'ida@p.example' });
    expect((await the.root.call('joinMember', { body: { email: 'IDA@p.example', role: 'lead' } })).data).toMatchObject({ name: 'ida', role: 'lead' });
    expect((await the.root.call('joinMember', { body: { email: 'ida@p.example', role: 'lead' } })).refusal.code).toBe('member_already');
    expect((await the.root.call('joinMember', { body: { email: 'nobody@p.example', role: 'lead' } })).refusal.code).toBe('account_unknown');
    const rosa = (await the.root.call('listMembers')).data.find((m) => m.role === 'administrator')!;
    expect((await the.root.call('removeMember', { params: { person: rosa.id } })).refusal.code).toBe('last_administrator');
    expect((await the.root.call('changeRole', { params: { person: rosa.id }, body: { role: 'reader' } })).refusal.code).toBe('last_administrator');
    const events = (await ida.call('listMemberEvents')).data.filter((e) => e.about === 'ida').map((e) => [e.action, e.detail]);
    expect(events).toEqual([['joined', 'lead'], ['removed', 'analyst'], ['roleChanged', 'reader → analyst'], ['added', 'reader']]);
  });

  test('one’s own sessions are seen and ended, nobody else’s', async () => {
    const ola = await member('ola');
    const phone = person(await send('POST', '/session', { email: 'ola@p.example', password: PASSWORD }, { 'user-agent': 'Phone/1' }));
    const lines = (await ola.call('listSessions')).data;
    expect(lines.map((l) => [l.agent, l.current])).toEqual([['Phone/1', false], ['', true]]);
    expect((await the.root.call('endSession', { params: { session: lines[0]!.id } })).refusal.code).toBe('session_unknown');
    expect((await ola.call('endSession', { params: { session: lines[0]!.id } })).data.length).toBe(1);
    expect((await phone.call('readProject')).status).toBe(401);
  });

  test('all of it stands in the journal of people, sign-ins too', async () => {
    const seen = new Set((await the.root.call('listPersonEvents')).data.map((e) => e.action));
    expect([...seen]).toEqual(expect.arrayContaining(['setUp', 'added', 'signedIn', 'signInRefused', 'passwordChanged', 'resetLinkMade', 'passwordReset', 'deactivated', 'activated', 'roleChanged', 'removed', 'joined', 'sessionEnded']));
    const page = (await the.root.call('listPersonEvents', { query: { before: 4 } })).data;
    expect(page.map((e) => e.id)).toEqual([3, 2, 1]);
  });
});

describe('guessing', () => {
  test('of 150 wrong passwords at once ten are tried; the owner still comes in from where they did before', async () => {
    await member('uma');
    const { fetch, close } = await startServer(the.database.url, { proxies: new Proxies(['127.0.0.1']) });
    const enter = (address: string, password: string) => fetch(`${API_ROOT}/session`, { method: 'POST', headers: { 'content-type': 'application/json', 'x-forwarded-for': `1.1.1.1, ${address}` }, body: JSON.stringify({ email: 'uma@p.example', password }) });
    const home = '10.1.0.1';
    expect((await enter(home, PASSWORD)).status).toBe(200);
    const answers = await Promise.all(Array.from({ length: 150 }, () => enter('10.9.9.9', randomUUID())));
    expect([answers.filter((a) => a.status === 401).length, answers.filter((a) => a.status === 429).length]).toEqual([10, 140]);
    expect(answers.find((a) => a.status === 429)?.headers.get('retry-after')).toBe('60');
    // Strangers from many places are slowed down together; whoever was there before is not.
    const others = await Promise.all(Array.from({ length: 15 }, async (_, i) => (await enter(`10.2.0.${i}`, randomUUID())).status));
    expect(others.filter((status) => status === 401).length).toBe(10);
    expect((await enter(home, PASSWORD)).status).toBe(200);
    await close();
  });
});

describe('the event stream', () => {
  const open = (token: string) => the.server.fetch(API_ROOT + EVENTS_PATH.replace(':project', 'p'), { headers: { cookie: `caderno_session=${token}` } });
  const isOver = async (response: Response): Promise<boolean> => {
    const reader = response.body!.getReader();
    for (const until = Date.now() + 5_000; Date.now() < until; ) {
      const next = await Promise.race([reader.read(), sleep(5_000).then(() => null)]);
      if (next?.done === true) return true;
    }
    return false;
  };

  test('ends with the session, and with the membership', async () => {
    const ugo = await member('ugo');
    const signedOut = await open(ugo.token);
    await ugo.call('signOut');
    expect(await isOver(signedOut)).toBe(true);
    const eli = await member('eli');
    const removed = await open(eli.token);
    await the.root.call('removeMember', { params: { person: eli.id } });
    expect(await isOver(removed)).toBe(true);
  });

  test('lets go whoever does not read, and is limited for a session', async () => {
    const streams = await Promise.all(Array.from({ length: 24 }, () => open(the.root.token)));
    expect(streams.map((s) => s.status).filter((s) => s === 429).length).toBe(4);
    const deaf = streams[0]!;
    // Far more than waits for one reader, pushed as it happens.
    for (let round = 0; round < 8; round += 1) {
      await the.root.call('writeArtefacts', { body: { made: Array.from({ length: 60 }, (_, i) => requirement({ title: `${round} ${i} ${'long '.repeat(30)}` })), changed: [], withdrawn: [], detail: '' } });
      await sleep(100);
    }
    await sleep(200);
    const [told, over] = await readAll(deaf);
    expect([over, told < 128 * 1024]).toEqual([true, true]);
    for (const stream of streams.slice(1)) await stream.body?.cancel();
    expect((await open(the.root.token)).status).toBe(200);
  });

  async function readAll(response: Response): Promise<[number, boolean]> {
    const reader = response.body!.getReader();
    let bytes = 0;
    for (;;) {
      const next = await Promise.race([reader.read(), sleep(3_000).then(() => null)]);
      if (next === null) return [bytes, false];
      if (next.done) return [bytes, true];
      bytes += next.value.length;
    }
  }

  test('a notification that is none of ours is survived', async () => {
    for (const payload of ['', '{', '[]', '{"project":"p"}', '{"person":"no id"}']) {
      await the.server.db.query(`SELECT pg_notify('caderno_changes', $1), pg_notify('caderno_sessions', $1)`, { bind: [payload] });
    }
    const stream = await open(the.root.token);
    const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
    expect((await reader.read()).value).toContain('event: open');
    await the.root.call('createArtefact', { body: requirement({ title: 'Heard' }) });
    expect((await reader.read()).value).toContain('event: changes');
    await reader.cancel();
  });
});

describe('the log', () => {
  test('holds no parameters, hashes or contents of what failed in the database', async () => {
    let text = '';
    const log = createLog('info', new Writable({ write: (chunk, _, done) => ((text += String(chunk)), done()) }));
    const told = await startServer(the.database.url, { log } as never);
    await told.db.query('ALTER TABLE person ADD CONSTRAINT no_more CHECK (name <> \'Secret Name\')');
    const response = await told.as(the.root.token)('addMember', { body: { name: 'Secret Name', email: 'secret@p.example', password: 'a passphrase of mine', role: 'reader' } });
    await told.db.query('ALTER TABLE person DROP CONSTRAINT no_more');
    expect([response.status, response.refusal.code]).toEqual([500, 'fault']);
    expect(text).toMatch(/"constraint":"no_more"/);
    expect(text).not.toMatch(/Secret Name|secret@p|argon2|passphrase/);
    await told.close();
  });
});
