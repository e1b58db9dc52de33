import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import { coverageSinceSchema, unpackRows } from '@caderno/contract';
import { until } from './harness.ts';
import { exit, post, processesAt, programs, signIn, type Started } from './programs.ts';
import { pace } from '../../scripts/pace.mjs';

const { folder, start, close } = programs('cluster.mjs');
let cluster: Started;
let cookie: string;

interface Place {
  readonly port: number;
  readonly pid: number;
}
interface WhoIsWho {
  readonly primary: Place;
  readonly standby: Place | null;
  readonly pool: Place;
  readonly servers: readonly Place[];
}
const who = (): WhoIsWho => JSON.parse(readFileSync(join(folder, 'data', 'cluster', 'cluster.json'), 'utf8')) as WhoIsWho;
const untilSo = (holds: () => Promise<boolean>, ms?: number): Promise<true> => until(async () => ((await holds()) ? true : null), ms);
const at = ({ port }: Place): string => `http://127.0.0.1:${port}`;
const kill = ({ pid }: Place): boolean => process.kill(pid, 'SIGKILL');

beforeAll(async () => {
  const free = createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => free.once('listening', resolve));
  const { port } = free.address() as AddressInfo;
  await new Promise((resolve) => free.close(resolve));
  cluster = await start([], { PORT: String(port) }, /The cluster is at (http:\S+)/);
  cookie = await signIn(cluster.origin);
}, 600_000);
afterAll(async () => {
  cluster.child.kill('SIGTERM');
  expect(await exit(cluster.child)).toBe(0);
  const left = processesAt(join(folder, 'data'));
  close();
  expect(left).toEqual([]);
});

const question = (title: string) => ({ kind: 'question' as const, content: { ...EMPTY_QUESTION, title } });

/** Somebody who goes on saving one question as the page does: what cannot be sent is sent again as the same command. */
class Writer {
  readonly #id: string;
  acknowledged = 1;
  stopped = false;
  longestWaitMs = 0;

  private constructor(id: string) {
    this.#id = id;
  }

  static async begin(): Promise<{ readonly writer: Writer; readonly done: Promise<void> }> {
    const made = (await (await post(cluster.origin, '/projects/fonte-clara/artefacts', question('v1'), cookie)).json()) as { summary: { id: string } };
    const writer = new Writer(made.summary.id);
    return { writer, done: writer.#goOn() };
  }

  async #goOn(): Promise<void> {
    while (!this.stopped) {
      const next = this.acknowledged + 1;
      await this.#save(next);
      this.acknowledged = next;
      await sleep(15);
    }
  }

  async #save(version: number): Promise<void> {
    const command = randomUUID();
    const began = Date.now();
    for (;;) {
      const status = await post(cluster.origin, `/projects/fonte-clara/artefacts/${this.#id}`, { ...question(`v${version}`), note: '' }, cookie, 'PUT', { 'if-match': `"${version - 1}"`, 'command-id': command }).then((r) => r.status, () => 0);
      if (status === 200) break;
      // Nobody there for the moment; anything else is no passing failure.
      if (![0, 429, 502, 503, 504].includes(status)) throw new Error(`v${version} was refused with ${status}`);
      await sleep(100);
    }
    this.longestWaitMs = Math.max(this.longestWaitMs, Date.now() - began);
  }

  /** What is stored is what was acknowledged last. */
  async check(): Promise<void> {
    const stored = (await (await fetch(`${cluster.origin}/api/v1/projects/fonte-clara/artefacts/${this.#id}`, { headers: { cookie } })).json()) as { summary: { version: number; title: string } };
    expect(stored.summary).toMatchObject({ version: this.acknowledged, title: `v${this.acknowledged}` });
  }
}

/** Breaks something while somebody saves; answers how long the longest save took. */
async function whileSomebodySaves(breaks: () => Promise<void>): Promise<number> {
  const { writer, done } = await Writer.begin();
  await untilSo(() => Promise.resolve(writer.acknowledged > 5));
  await breaks();
  const after = writer.acknowledged + 10;
  await untilSo(() => Promise.resolve(writer.acknowledged >= after), 40_000);
  writer.stopped = true;
  await done;
  await writer.check();
  return writer.longestWaitMs;
}

test('signed in once, one is known to all servers, and what is saved at one is heard at another within two seconds', async () => {
  const [first, second] = who().servers as [Place, Place];
  expect(who().standby).not.toBeNull();
  const stream = await fetch(`${at(second)}/api/v1/projects/fonte-clara/events`, { headers: { cookie } });
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  let heard = '';
  void (async () => {
    for (let part = await reader.read(); !part.done; part = await reader.read()) heard += part.value;
  })().catch(() => undefined);
  await untilSo(() => Promise.resolve(heard.includes('event: open')));
  const began = Date.now();
  expect((await post(at(first), '/projects/fonte-clara/artefacts', question('Heard over there'), cookie)).status).toBe(200);
  await untilSo(() => Promise.resolve(heard.includes('Heard over there')));
  expect(Date.now() - began).toBeLessThan(2_000 * pace());
  await reader.cancel();
});

test('a server that is killed, the pool, and the primary: saves go on by themselves, and nothing that was acknowledged is lost', async () => {
  const before = who();
  const server = await whileSomebodySaves(async () => void kill(before.servers[0]!));
  const pool = await whileSomebodySaves(async () => void kill(before.pool));
  const primary = await whileSomebodySaves(async () => void kill(before.primary));
  console.log(`longest save: server killed ${server} ms, pool killed ${pool} ms, primary killed ${primary} ms`);
  expect(who().primary.port).toBe(before.standby!.port);
  // Another standby is made, so that the next one may end too.
  await untilSo(() => Promise.resolve(who().standby !== null && who().standby!.port !== before.standby!.port), 40_000);
  await whileSomebodySaves(async () => void kill(who().primary));
  expect(Math.max(server, pool, primary)).toBeLessThan(30_000 * pace());
}, 600_000);

test('whichever server is killed while coverage is worked out, another brings it up to date within five seconds', async () => {
  const waits: number[] = [];
  for (const turn of [0, 1, 2]) {
    await untilSo(async () => (await Promise.all(who().servers.map((s) => fetch(`${at(s)}/healthz`).then((r) => r.ok, () => false)))).every(Boolean), 40_000);
    const made = (await (await post(cluster.origin, '/projects/fonte-clara/artefacts', { kind: 'condition', content: { ...EMPTY_CONDITION, title: `Worked out by whoever is left ${turn}`, requirements: [{ id: 'R-3', seenVersion: 1, anchor: null }] } }, cookie)).json()) as { summary: { id: string } };
    const began = Date.now();
    kill(who().servers[turn]!);
    await untilSo(() => isCounted(made.summary.id), 40_000);
    waits.push(Date.now() - began);
  }
  console.log(`coverage after a server was killed: ${waits.join(', ')} ms`);
  expect(Math.max(...waits)).toBeLessThan(5_000 * pace());
}, 600_000);

/** Whether the stored coverage tells of a condition, as whoever opens a page is answered. */
async function isCounted(condition: string): Promise<boolean> {
  const response = await fetch(`${cluster.origin}/api/v1/projects/fonte-clara/coverage/rows`, { headers: { cookie } }).catch(() => null);
  if (response?.ok !== true) return false;
  return unpackRows(coverageSinceSchema.parse(await response.json()).rows).some((row) => row.id === condition);
}

test('servers are replaced one by one, and there is always somebody who answers', async () => {
  await untilSo(async () => (await Promise.all(who().servers.map((s) => fetch(`${at(s)}/healthz`).then((r) => r.ok, () => false)))).every(Boolean), 40_000);
  const pids = who().servers.map((s) => s.pid);
  const statuses: number[] = [];
  let reading = true;
  const reads = (async () => {
    for (; reading; await sleep(20)) statuses.push(await fetch(`${cluster.origin}/api/v1/projects/fonte-clara`, { headers: { cookie } }).then((r) => r.status, () => 0));
  })();
  await whileSomebodySaves(async () => {
    cluster.child.kill('SIGHUP');
    await untilSo(() => Promise.resolve(who().servers.every((s) => !pids.includes(s.pid))), 90_000);
  });
  reading = false;
  await reads;
  const answered = statuses.filter((s) => s === 200).length;
  console.log(`while servers were replaced ${answered} of ${statuses.length} reads were answered`);
  expect(statuses.filter((s) => ![200, 503].includes(s))).toEqual([]);
  expect(answered / statuses.length).toBeGreaterThan(0.9);
}, 600_000);
