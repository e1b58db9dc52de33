import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { textOf, withText } from '@caderno/core/scenarios';
import { makeDatabase, makeProject, save, startServer, type Caller, type TestServer } from '../../server/test/harness.ts';
import { run } from '../src/run.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let listening: Awaited<ReturnType<TestServer['listen']>>;
let people: Awaited<ReturnType<typeof makeProject>>;
let [key, token, folder, turn, made] = ['', '', '', 0, 0];
let here: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  listening = await server.listen();
});
afterAll(async () => {
  await listening.close();
  await server.close();
  await database.drop();
});
beforeEach(async () => {
  key = `cli-${(turn += 1)}`;
  people = await makeProject(server.db, key);
  const call = server.as(people.analyst);
  here = (name, input = {}, headers = {}) => call(name, { ...input, params: Object.assign({}, input.params, { project: key }) }, headers);
  token = await tokenFor('write');
  folder = await mkdtemp(join(tmpdir(), 'caderno-cli-'));
  return () => rm(folder, { recursive: true, force: true });
});

const tokenFor = async (scope: 'read' | 'write') => (await server.as(people.analyst)('makeToken', { body: { name: 'cli', project: key, scope, days: 1 } })).data.token;

async function put(files: Readonly<Record<string, string>>): Promise<void> {
  for (const [path, text] of Object.entries(files)) {
    await mkdir(dirname(join(folder, path)), { recursive: true });
    await writeFile(join(folder, path), text);
  }
}
const fileOf = (path: string): Promise<string> => readFile(join(folder, path), 'utf8');

/** Runs a command on the folder; answers its exit code and what it printed, complaints too. */
async function caderno(command: string, { args = [] as readonly string[], origin = listening.origin, withToken = token } = {}): Promise<readonly [number, string]> {
  const lines: string[] = [];
  const print = (line: string): void => void lines.push(line);
  const code = await run(['features', command, folder, ...args], { env: { CADERNO_SERVER: origin, CADERNO_PROJECT: key, CADERNO_TOKEN: withToken }, print, complain: print });
  return [code, lines.join('\n')];
}
async function change(id: 'F-1' | 'F-2', from: string, to: string): Promise<void> {
  const read = (await here('readArtefact', { params: { id } as never })).data;
  if (read.kind !== 'feature') throw new Error('It is a feature');
  const { status } = await save(server.as(people.analyst), id, read.summary.version, { kind: 'feature', content: withText(read.content, textOf(read.content).replace(from, to), () => `c${(made += 1)}`) }, '', undefined, key);
  expect(status).toBe(200);
}

const BILL = '\uFEFFFeature: Bill\r\n  Scenario: one\r\n    Given 1\r\n\r\n  Scenario: two\r\n    Given 2\r\n';
const METER = 'Feature: Meter\n  Scenario: read\n    Given a meter\n';

test('a folder is pushed, checked, and comes back byte for byte into an empty one', async () => {
  await put({ 'bills/bill.feature': BILL, ['Leitura é.feature'.normalize('NFD')]: METER, 'half.feature': 'Feature: Half\n  Scenario: x\n    Given y\n  nonsense\n', 'notes.txt': 'x', 'node_modules/a.feature': METER, '.git/b.feature': METER });
  expect(await caderno('check')).toEqual([1, expect.stringMatching(/^only in the code {2}Leitura é.feature\nonly in the code {2}bills\/bill.feature\nonly in the code {2}half.feature\nCode and Caderno differ in 3 features.$/)]);
  expect(await caderno('push', { args: ['--dry-run'] })).toEqual([0, expect.stringContaining('Nothing was changed: this was a dry run.')]);
  const [code, told] = await caderno('push');
  expect([code, told.split('\n')]).toEqual([0, [expect.stringMatching(/^half.feature:4:3: “nonsense” cannot stand here/), '3 new features, 0 changed, 0 the same.', '3 features added, 0 changed, as one entry of the journal.']]);
  expect((await here('listChanges', { query: {} })).data).toHaveLength(1);
  expect(await caderno('check')).toEqual([0, '3 features: code and Caderno have the same.']);
  expect((await caderno('push'))[1]).toContain('Caderno has it all already.');
  await rm(folder, { recursive: true });
  expect(await caderno('pull')).toEqual([0, expect.stringContaining('3 files written.')]);
  expect([await fileOf('bills/bill.feature'), await fileOf('Leitura é.feature')]).toEqual([BILL, METER]);
});

test('what changed on one side only goes to the other; after a pull the code’s later changes are its own', async () => {
  await put({ 'bill.feature': BILL, 'meter.feature': METER });
  await caderno('push');
  await change('F-1', 'Given 1', 'Given 11');
  await put({ 'meter.feature': METER.replace('a meter', 'two meters') });
  // The code’s own change is not overwritten, and told.
  expect(await caderno('pull')).toEqual([1, 'changed bill.feature\nleft    meter.feature: it has changes that are not in Caderno; push them first, or pull with --force\n1 file written.']);
  expect([await fileOf('bill.feature'), await fileOf('meter.feature')]).toEqual([BILL.replace('Given 1', 'Given 11'), METER.replace('a meter', 'two meters')]);
  // What was pulled is known to stand in the code: the same line may change there again without a conflict.
  await put({ 'bill.feature': BILL.replace('Given 1', 'Given 111') });
  expect(await caderno('push')).toEqual([0, '0 new features, 2 changed, 0 the same.\n0 features added, 2 changed, as one entry of the journal.']);
  expect(await caderno('check')).toEqual([0, '2 features: code and Caderno have the same.']);
  await change('F-1', 'Given 2', 'Given 22');
  await put({ 'bill.feature': BILL.replace('Given 1', 'Given 1111') });
  expect((await caderno('push'))[1]).toContain('Caderno has changes of its own in bill.feature: pull them.');
  expect((await caderno('pull'))[0]).toBe(0);
  expect(await fileOf('bill.feature')).toBe(BILL.replace('Given 1', 'Given 1111').replace('Given 2', 'Given 22'));
});

test('where both changed the same, both are told and nothing is done until somebody decides', async () => {
  await put({ 'meter.feature': METER });
  await caderno('push');
  await change('F-1', 'a meter', 'my meter');
  await put({ 'meter.feature': METER.replace('a meter', 'your meter') });
  const [code, told] = await caderno('push');
  expect([code, told.split('\n').slice(1)]).toEqual([1, ['1 feature changed both in the code and in Caderno:', '  meter.feature (F-1)', '    code:    Given your meter', '    Caderno: Given my meter', 'Nothing was changed. Decide with --take code or --take caderno.']]);
  expect((await caderno('push', { args: ['--take', 'code'] }))[0]).toBe(0);
  expect((await caderno('check'))[0]).toBe(0);
  await change('F-1', 'your meter', 'their meter');
  await put({ 'meter.feature': METER.replace('a meter', 'no meter') });
  expect((await caderno('push', { args: ['--take', 'caderno'] }))[0]).toBe(0);
  expect(await caderno('pull', { args: ['--force'] })).toEqual([0, expect.stringContaining('changed meter.feature')]);
  expect(await fileOf('meter.feature')).toBe(METER.replace('a meter', 'their meter'));
});

test('a push whose answer is lost on the way is done once', async () => {
  await put({ 'meter.feature': METER });
  let broken = 0;
  const proxy = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      const headers = Object.fromEntries(Object.entries(request.headers).filter(([name, value]) => typeof value === 'string' && !['host', 'connection', 'content-length', 'transfer-encoding'].includes(name))) as Record<string, string>;
      void fetch(`${listening.origin}${request.url ?? ''}`, { method: request.method ?? 'GET', headers, body: request.method === 'GET' ? null : Buffer.concat(chunks) }).then(async (answer) => {
        // It is carried out, and the answer never comes.
        if (request.url?.endsWith('/run') === true && (broken += 1) === 1) return request.socket.destroy();
        return response.writeHead(answer.status, { 'content-type': answer.headers.get('content-type') ?? '' }).end(Buffer.from(await answer.arrayBuffer()));
      });
    });
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  const done = await caderno('push', { origin: `http://127.0.0.1:${(proxy.address() as AddressInfo).port}` });
  proxy.closeAllConnections();
  proxy.close();
  expect([done[0], broken]).toEqual([0, 2]);
  expect((await here('listChanges', { query: {} })).data).toHaveLength(1);
});

test('a token that only reads checks and pulls; one that is withdrawn, or a wrong word, is told in a sentence', async () => {
  await put({ 'meter.feature': METER });
  await caderno('push');
  const reads = await tokenFor('read');
  expect((await caderno('check', { withToken: reads }))[0]).toBe(0);
  expect(await caderno('push', { withToken: reads })).toEqual([2, 'The access token does not allow to write in this project. Nothing was changed; make one that does, on the page of your account.']);
  await put({ 'meter.feature': `${METER}# mine\n` });
  expect(await caderno('pull', { withToken: reads })).toEqual([1, expect.stringContaining('The token only reads, so that nobody can tell whose changes these are.')]);
  const tokens = (await server.as(people.analyst)('listTokens')).data;
  for (const { id } of tokens) await server.as(people.analyst)('withdrawToken', { params: { token: id } });
  expect(await caderno('push')).toEqual([2, expect.stringMatching(/^The access token opens nothing here/)]);
  expect(await caderno('check', { withToken: '' })).toEqual([2, expect.stringMatching(/^The variable CADERNO_TOKEN is empty/)]);
  expect(await caderno('forget')).toEqual([2, expect.stringMatching(/^There is no command forget/)]);
  expect(await caderno('push', { args: ['--take', 'both'] })).toEqual([2, '--take is code or caderno, not both.']);
  expect(await caderno('push', { args: ['--nonsense'] })).toEqual([2, expect.stringContaining("Unknown option '--nonsense'")]);
});
