import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { Writable } from 'node:stream';
import { PROJECT_EVENTS } from '@caderno/contract';
import { Metrics, ProjectNews, createLog, type NewsItem } from '../src/http/index.ts';
import { condition, onServer, requirement, startTwoServers, until, type Caller, type TwoServers } from './harness.ts';

let two: TwoServers;
let call: Caller;

beforeAll(async () => {
  two = await startTwoServers();
  call = two.other.as(two.project.analyst);
});
afterAll(() => two.close());

let statements: string[] = [];
beforeEach(() => {
  statements = [];
  // The options that every statement of this server is run with; their type does not say that they are there.
  Object.assign(Reflect.get(two.server.db, 'options') as object, { logging: (sql: string) => void statements.push(sql) });
});
const readings = (): number => statements.filter((sql) => sql.includes('revision > $2 ORDER BY kind')).length;

/** Pages that are open on the project. */
async function open(count: number) {
  const heard = Array.from({ length: count }, (): NewsItem[] => []);
  const listening = await Promise.all(heard.map((items) => two.server.parts.news.listen({ id: two.project.id, key: 'p' }, (item) => items.push(item))));
  const told = (items: readonly NewsItem[]): number[] => items.flatMap((i) => (i.event === 'changes' ? [PROJECT_EVENTS.changes.parse(JSON.parse(i.data))] : [])).flatMap((c) => (c.kind === 'changes' ? [c.revision] : []));
  return { heard, from: listening[0]!.from, revisions: () => heard.map(told), stop: () => listening.forEach((l) => l.stop()) };
}

test('a change is read once, however many pages are open, and not at all when none is', async () => {
  const pages = await open(40);
  await call('createArtefact', { body: requirement() });
  await until(() => (pages.revisions().every((r) => r.length === 1) ? true : null));
  expect([readings(), new Set(pages.heard.map((items) => items[0])).size]).toEqual([1, 1]);
  pages.stop();
  await call('createArtefact', { body: requirement() });
  const later = await open(1);
  expect([later.from.revision, readings()]).toEqual([pages.from.revision + 2, 1]);
  later.stop();
});

test('changes that come thick and fast are told together, and none is left out', async () => {
  const pages = await open(2);
  const commands = 12;
  await Promise.all(Array.from({ length: commands }, () => call('createArtefact', { body: condition(['R-1']) })));
  const last = pages.from.revision + commands;
  await until(() => (pages.revisions().every((r) => r.at(-1) === last) ? true : null));
  const since = pages.heard[0]!.flatMap((i) => (i.event === 'changes' ? [PROJECT_EVENTS.changes.parse(JSON.parse(i.data))] : [])).flatMap((c) => (c.kind === 'changes' ? [[c.since, c.revision] as const] : []));
  // Each goes on where the one before ended.
  expect(since.map(([from]) => from)).toEqual([pages.from.revision, ...since.slice(0, -1).map(([, to]) => to)]);
  expect(readings()).toBeLessThanOrEqual(commands);
  pages.stop();
});

test('what happened while the database could not be heard is told when it is heard again', async () => {
  const pages = await open(1);
  // Its listening ends, and the change is made before it listens again.
  await onServer(two.database.url, `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'caderno changes' AND datname = current_database()`);
  await until(() => (two.server.parts.feed.hears ? null : true));
  await call('createArtefact', { body: requirement({ title: 'while nobody heard' }) });
  await until(() => (pages.revisions()[0]!.includes(pages.from.revision + 1) ? true : null));
  pages.stop();
});

test('a reading that fails is told with the next change, as one', async () => {
  let fails = true;
  const feed = two.server.parts.feed;
  const db = new Proxy(two.server.db, { get: (target, name, receiver) => (name === 'transaction' && fails ? () => Promise.reject(new Error('no connection')) : Reflect.get(target, name, receiver)) });
  const warned: string[] = [];
  const log = createLog('warn', new Writable({ write: (chunk, _, done) => (warned.push(String(chunk)), done()) }));
  fails = false;
  const news = new ProjectNews({ ...two.server.parts, db, feed, log });
  const items: NewsItem[] = [];
  const { from, stop } = await news.listen({ id: two.project.id, key: 'p' }, (item) => items.push(item));
  fails = true;
  // Told after the pages' news, which has begun to read by then; coverage of what was before may be heard of as well.
  let isHeard = false;
  const stopHearing = feed.listen('p', (heard) => (isHeard ||= heard.kind === 'changed'));
  await call('createArtefact', { body: requirement() });
  await until(() => (isHeard && warned.length > 0 ? true : null));
  stopHearing();
  expect(items).toEqual([]);
  fails = false;
  await call('createArtefact', { body: requirement() });
  await until(() => (items.some((i) => i.event === 'changes') ? true : null));
  expect(JSON.parse(items.find((i) => i.event === 'changes')!.data)).toMatchObject({ since: from.revision, revision: from.revision + 2 });
  stop();
});

test('coverage is brought up by the server that did it last; by the other one when nobody has it open there any more', async () => {
  const [here, there] = [bringingUp(two.server), bringingUp(two.other)];
  /** Another requirement; answers whom it is left to, once they have brought the coverage up and the one that leaves it stands waiting. */
  const leftTo = async (): Promise<'here' | 'there'> => {
    const before = here.counted() + there.counted();
    await call('createArtefact', { body: requirement() });
    await until(() => (here.waits() !== there.waits() && here.counted() + there.counted() > before ? true : null));
    return here.waits() ? 'there' : 'here';
  };
  await here.listen();
  await call('createArtefact', { body: requirement() });
  await until(() => (here.counted() === 1 ? true : null));
  await there.listen();
  // Neither is asked first: afterwards it is known whose it is.
  await call('createArtefact', { body: requirement() });
  await until(() => (here.counted() === 2 && there.counted() === 1 ? true : null));
  const owner = await leftTo();
  const [ours, others] = owner === 'here' ? [here, there] : [there, here];
  const counts = () => [ours.counted(), others.counted()];
  const [first = 0, second = 0] = counts();
  expect(first + second).toBe(4);
  others.goOn();
  // It finds that it is done, and waits again for the next: nothing is counted twice.
  expect(await leftTo()).toBe(owner);
  expect(counts()).toEqual([first + 1, second]);
  ours.stop();
  others.goOn();
  await call('createArtefact', { body: requirement() });
  await until(() => (others.waits() ? true : null));
  expect(counts()).toEqual([first + 1, second]);
  others.goOn();
  await until(() => (others.counted() > second ? true : null));
  // Now it is its own: it does not wait.
  await call('createArtefact', { body: requirement() });
  await until(() => (others.counted() > second + 1 ? true : null));
  expect([counts(), others.waits()]).toEqual([[first + 1, second + 2], false]);
  others.stop();
});

/** A server with one page open on the project, that leaves coverage to another one until it is told to go on. */
function bringingUp({ parts }: TwoServers['server']) {
  let counted = 0;
  class Counting extends Metrics {
    override covered(ms: number): void {
      super.covered(ms);
      counted += 1;
    }
  }
  let goOn: (() => void) | null = null;
  const leaveToAnother = (): Promise<void> =>
    new Promise((resolve) => {
      goOn = resolve;
    });
  let stop = (): void => undefined;
  return {
    listen: async () => ({ stop } = await new ProjectNews({ ...parts, metrics: new Counting(), leaveToAnother }).listen({ id: two.project.id, key: 'p' }, () => undefined)),
    counted: () => counted,
    waits: () => goOn !== null,
    goOn: () => {
      goOn?.();
      goOn = null;
    },
    stop: () => stop(),
  };
}
