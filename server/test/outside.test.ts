import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { isAllowed, leadsNowhere } from '../src/tracker/outside.ts';
import { makeDatabase, makeProject, startServer, type Caller, type TestServer } from './harness.ts';
import { pace } from '../../scripts/pace.mjs';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let lead: Caller;
let silent: Server;
let asked = 0;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url, { outsideHosts: [] });
  lead = server.as((await makeProject(server.db)).lead);
  // Takes every request and never answers.
  silent = createServer(() => (asked += 1)).listen(0, '127.0.0.1');
  await new Promise((resolve) => silent.once('listening', resolve));
});
afterAll(async () => {
  silent.closeAllConnections();
  silent.close();
  await server.close();
  await database.drop();
});

const port = () => (silent.address() as AddressInfo).port;

async function connect(address: string): Promise<void> {
  const { version } = (await lead('readSettings')).data;
  expect((await lead('saveSettings', { body: { ...DEFAULT_SETTINGS, tracker: { kind: 'storyboard', address, project: 'p' } } }, { 'if-match': `"${version}"` })).status).toBe(200);
}

async function ask(): Promise<{ readonly refusal: unknown; readonly ms: number }> {
  const began = performance.now();
  const { refusal } = await lead('findDefects', { query: { words: 'x' } });
  return { refusal, ms: performance.now() - began };
}

test('a host that nobody allowed is not asked, and open and closed are answered alike', async () => {
  const said: unknown[] = [];
  for (const address of [`http://127.0.0.1:${port()}`, 'http://127.0.0.1:1', 'http://169.254.169.254/latest', `http://[::1]:${port()}`, `http://localhost:${port()}`, `http://0.0.0.0:${port()}`, `http://2130706433:${port()}`, 'http://no-such-host.example']) {
    await connect(address);
    const { refusal, ms } = await ask();
    said.push(refusal);
    expect(ms).toBeLessThan(500 * pace());
  }
  expect(new Set(said.map((s) => JSON.stringify(s))).size).toBe(1);
  expect(said[0]).toMatchObject({ code: 'tracker_failed', failure: 'unreachable' });
  expect(asked).toBe(0);
});

test('one that an administrator allows is asked, for ten seconds at most, while nothing is held', async () => {
  await server.db.query(`INSERT INTO installation (name, value) VALUES ('outside hosts', $1)`, { bind: [`127.0.0.1:${port()}`] });
  await connect(`http://127.0.0.1:${port()}`);
  const waiting = ask();
  for (let i = 0; i < 20 && asked === 0; i += 1) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(asked).toBe(1);
  const [held] = await server.db.query(`SELECT count(*)::int AS count FROM pg_stat_activity WHERE datname = current_database() AND application_name = 'caderno' AND state = 'idle in transaction'`);
  expect(held).toEqual([{ count: 0 }]);
  const { refusal, ms } = await waiting;
  expect(refusal).toMatchObject({ code: 'tracker_failed', failure: 'slow' });
  expect(ms).toBeLessThan(10_500 * pace());
});

test('what is allowed is a name with its usual ports, a port, or any', () => {
  const allows = (allowed: string, address: string): boolean => isAllowed(new URL(address), [allowed]);
  expect([allows('t.example', 'https://T.example/x'), allows('t.example', 'http://t.example'), allows('t.example', 'http://t.example:8080'), allows('t.example:8080', 'http://t.example:8080'), allows('t.example:*', 'http://t.example:99'), allows('t.example', 'http://t.example.evil.example')]).toEqual([true, true, false, true, true, false]);
});

test('link-local addresses and their like lead nowhere, however they are written', () => {
  const nowhere = ['169.254.169.254', '::ffff:169.254.0.1', '[fe80::1]', 'fe80::abcd', '0.0.0.0', '224.0.0.1', '255.255.255.255', 'ff02::1', '::'];
  const somewhere = ['10.1.2.3', '8.8.8.8', '127.0.0.1', '2001:db8::1', 'tracker.example'];
  expect([nowhere.filter(leadsNowhere), somewhere.filter(leadsNowhere)]).toEqual([nowhere, []]);
});
