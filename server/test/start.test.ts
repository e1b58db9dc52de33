import { afterAll, describe, expect, test } from '@jest/globals';
import { chmodSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { commandOf, exit, post, processesAt, programs, session, signIn } from './programs.ts';
import { pace } from '../../scripts/pace.mjs';

const { folder, start, failure, close } = programs('start.mjs');
afterAll(close);

test('starts with the demo, keeps data, stops cleanly, recovers from kill -9 in the middle of saves', async () => {
  const first = await start();
  expect(first.output()).toContain('The demo project Fonte Clara');
  expect((await fetch(`${first.origin}/healthz`)).status).toBe(200);
  expect(await (await fetch(`${first.origin}/fonte-clara/coverage`)).text()).toContain('<div id="root">');
  expect((await fetch(`${first.origin}/assets/missing.js`)).status).toBe(404);
  first.child.kill('SIGINT');
  expect(await exit(first.child)).toBe(0);
  expect(processesAt(join(folder, 'data'))).toEqual([]);

  const began = Date.now();
  const second = await start();
  expect(second.output()).not.toContain('The demo project');
  // The budget is 10 s on a machine that has the dependencies.
  expect(Date.now() - began).toBeLessThan(10_000 * pace());
  const cookie = await signIn(second.origin);
  const content = (objective: string) => ({ title: 'Killed', objective, preconditions: objective, steps: [], parameters: [], rows: [], data: null, runs: { kind: 'all' }, covers: [], module: '', priority: 'low', tags: [], estimate: null, owner: '', defects: [], kind: 'procedure', execution: 'byHand', areas: '', ideas: '', dependsOn: [], origin: null, attachments: [], own: {} });
  const made = (await (await post(second.origin, '/projects/fonte-clara/artefacts', { kind: 'case', content: content('v1') }, cookie)).json()) as { summary: { id: string } };
  const { id } = made.summary;
  let saved = 1;
  const saving = (async () => {
    for (;;) {
      const response = await post(second.origin, `/projects/fonte-clara/artefacts/${id}`, { kind: 'case', content: content(`v${saved + 1}`), note: '' }, cookie, 'PUT', { 'if-match': `"${saved}"` });
      if (!response.ok) return;
      saved += 1;
      await post(second.origin, `/projects/fonte-clara/artefacts/${id}/draft`, { kind: 'case', content: content(`draft on v${saved}`), base: saved }, cookie, 'PUT');
    }
  })().catch(() => undefined);
  // Some saves through, the next one under way.
  for (let waited = 0; saved < 4 && waited < 20_000; waited += 20) await sleep(20);
  for (const pid of processesAt(join(folder, 'data'))) process.kill(pid, 'SIGKILL');
  second.child.kill('SIGKILL');
  await saving;
  expect(saved).toBeGreaterThan(2);

  const third = await start();
  const after = (await (await fetch(`${third.origin}/api/v1/projects/fonte-clara/artefacts/${id}`, { headers: { cookie } })).json()) as { summary: { version: number }; content: { objective: string; preconditions: string }; draft: { content: { objective: string } } | null };
  // The last save was answered or not: either way it is there whole, or not at all.
  expect([saved, saved + 1]).toContain(after.summary.version);
  expect([after.content.objective, after.content.preconditions]).toEqual([`v${after.summary.version}`, `v${after.summary.version}`]);
  if (after.draft !== null) expect(after.draft.content.objective).toMatch(/^draft on v\d+$/);
  third.child.kill('SIGTERM');
  expect(await exit(third.child)).toBe(0);
}, 600_000);

test('--empty asks for the first administrator, who makes a project; --fresh says what it removes', async () => {
  const env = { CADERNO_DATA: join(folder, 'empty') };
  const empty = await start(['--empty'], env);
  expect(await session(empty.origin)).toMatchObject({ needsSetup: true, demoPeople: [] });
  const word = /needs this word: (\S+)/.exec(empty.output())?.[1] ?? '';
  const first = { name: 'Nuno A.', email: 'nuno@example.com', password: 'correct horse of the well' };
  expect((await post(empty.origin, '/setup', { ...first, word: 'abcd-efgh-jkmn' })).status).toBe(403);
  expect((await post(empty.origin, '/setup', { ...first, password: 'password123', word })).status).toBe(422);
  const account = await post(empty.origin, '/setup', { ...first, word });
  const cookie = account.headers.get('set-cookie')?.split(';')[0] ?? '';
  expect((await post(empty.origin, '/projects', { key: 'water', name: 'Water' }, cookie)).status).toBe(200);
  expect((await post(empty.origin, '/projects', { key: 'api', name: 'Reserved' }, cookie)).status).toBe(400);
  empty.child.kill('SIGTERM');
  await exit(empty.child);

  const again = await start([], env);
  expect(await session(again.origin)).toMatchObject({ needsSetup: false, demoPeople: [] });
  again.child.kill('SIGTERM');
  await exit(again.child);

  const fresh = await start(['--fresh'], env);
  expect(fresh.output()).toContain(`Starting fresh: what is stored in ${env.CADERNO_DATA} is removed.`);
  expect((await session(fresh.origin)).demoPeople.length).toBe(6);
  fresh.child.kill('SIGTERM');
  await exit(fresh.child);
});

test('PostgreSQL that dies is started again at the same place, with the reason; what was under way goes through', async () => {
  const env = { CADERNO_DATA: join(folder, 'watched') };
  const started = await start([], env);
  const cookie = await signIn(started.origin);
  for (const signal of ['SIGKILL', 'SIGQUIT'] as const) {
    const [postmaster = 0] = processesAt(env.CADERNO_DATA).filter((pid) => commandOf(pid).includes('bin/postgres'));
    process.kill(postmaster, signal);
    // Whoever saves is told to wait, and is let through when it is back.
    const statuses: number[] = [];
    for (let waited = 0; waited < 20_000 && statuses.at(-1) !== 200; waited += 100) {
      statuses.push((await fetch(`${started.origin}/api/v1/projects/fonte-clara`, { headers: { cookie } })).status);
      await sleep(100);
    }
    expect([statuses.every((s) => s === 200 || s === 503), statuses.at(-1)]).toEqual([true, 200]);
  }
  expect(started.output().match(/PostgreSQL ended by itself \(.*\)/g)?.length).toBe(2);
  expect(started.output()).toContain('PostgreSQL is back.');
  started.child.kill('SIGTERM');
  expect(await exit(started.child)).toBe(0);
  expect(processesAt(env.CADERNO_DATA)).toEqual([]);
});

test('--demo says in large letters that everybody comes in; on a network the demo’s people do not without it', async () => {
  const env = { CADERNO_DATA: join(folder, 'network'), HOST: '0.0.0.0' };
  const network = await start([], env);
  const origin = network.origin.replace('0.0.0.0', '127.0.0.1');
  expect(await session(origin)).toMatchObject({ demoPeople: [], needsSetup: true });
  expect(network.output()).toMatch(/The first administrator needs this word: \S+/);
  network.child.kill('SIGTERM');
  await exit(network.child);
  const open = await start(['--demo'], env);
  expect(open.output()).toContain('OPEN TO ALL');
  expect((await session(open.origin.replace('0.0.0.0', '127.0.0.1'))).demoPeople.length).toBe(6);
  open.child.kill('SIGTERM');
  await exit(open.child);
});

describe('what can go wrong is one clear sentence', () => {
  test('a port that is taken', async () => {
    const server = createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const { port } = server.address() as { port: number };
    expect(await failure([], { PORT: String(port) })).toBe(`Port ${port} is taken by another program. Start with another one: PORT=3211 npm start`);
    server.close();
  });
  test('an option that does not exist', async () => expect(await failure(['--frsh'], {})).toContain('There is no option --frsh.'));
  test('a database that refuses, or is not there', async () => {
    const wrong = (process.env.CADERNO_TEST_DATABASE ?? '').replace(/:[^:@]+@/, ':wrong@');
    expect(await failure([], { DATABASE_URL: wrong })).toMatch(/^The database refuses us .*Check DATABASE_URL/);
    expect(await failure([], { DATABASE_URL: 'postgres://u:p@127.0.0.1:1/none' })).toMatch(/^No PostgreSQL answers at DATABASE_URL/);
    expect(await failure([], { DATABASE_URL: 'mysql://somewhere' })).toContain('DATABASE_URL must be a postgres:// address');
  });
  test('a data folder that is none', async () => {
    const file = join(folder, 'file');
    writeFileSync(file, '');
    expect(await failure([], { CADERNO_DATA: join(file, 'data') })).toMatch(/^Caderno may not write to .*CADERNO_DATA=/);
  });
  test('a data folder that the account of PostgreSQL cannot reach', async () => {
    if (process.getuid?.() !== 0) return;
    const closed = join(folder, 'closed');
    mkdtempSync(`${closed}-`);
    const [name] = readdirSync(folder).filter((n) => n.startsWith('closed-'));
    chmodSync(join(folder, name ?? ''), 0o700);
    expect(await failure([], { CADERNO_DATA: join(folder, name ?? '', 'data') })).toMatch(/^The account ‘postgres’ cannot reach .*CADERNO_DATA=\/var\/lib\/caderno/);
  });
});
