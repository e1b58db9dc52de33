import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { API_ROOT, LIMITS, newProjectSchema } from '@caderno/contract';
import { CoverageKeeper } from '../src/coverage/index.ts';
import { AtOnce } from '../src/http/atOnce.ts';
import { saveBody } from '../src/http/body.ts';
import { describeError } from '../src/http/log.ts';
import { MOST_STREAMS, Streams } from '../src/http/streams.ts';
import { DomainError } from '../src/domainError.ts';
import { readSettings } from '../src/settings.ts';
import { makeDatabase, makeProject, requirement, startServer, testCase, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

describe('a body that comes in pieces', () => {
  const send = (chunks: readonly Uint8Array[], path = '/projects/p/artefacts', type = 'application/json') => {
    const body = new ReadableStream({
      start: (controller) => {
        for (const chunk of chunks) controller.enqueue(chunk);
        controller.close();
      },
    });
    return server.fetch(API_ROOT + path, { method: 'POST', headers: { cookie: `caderno_session=${project.analyst}`, 'content-type': type }, body, duplex: 'half' } as RequestInit);
  };
  const pieces = (text: string, size: number): Uint8Array[] => {
    const bytes = new TextEncoder().encode(text);
    return Array.from({ length: Math.ceil(bytes.length / size) }, (_, i) => bytes.subarray(i * size, (i + 1) * size));
  };

  test('is put together whole, wherever its letters are cut', async () => {
    const title = 'Água às 5 €, 💧 – ok';
    for (const size of [1, 2, 3, 7]) {
      const answer = await send(pieces(JSON.stringify(requirement({ title })), size));
      expect([answer.status, ((await answer.json()) as { summary: { title: string } }).summary.title]).toEqual([200, title]);
    }
  });
  test('is refused when it is no UTF-8, cut off in a letter, or no JSON', async () => {
    const codes = await Promise.all([[0xff, 0xfe], [0x22, 0xc3], [0x7b]].map(async (bytes) => ((await (await send([Uint8Array.from(bytes)])).json()) as { code: string }).code));
    expect(codes).toEqual(['body_unreadable', 'body_unreadable', 'body_unreadable']);
  });
  test('is taken up to its limit and refused one byte above', async () => {
    const empty = JSON.stringify({ state: 'draft' });
    const at = (length: number) => send([new TextEncoder().encode(empty.padEnd(length))], '/projects/p/artefacts/R-1/state');
    expect([(await at(LIMITS.request)).status, (await at(LIMITS.request + 1)).status]).toEqual([200, 413]);
  });
  test('is refused before it is read where its type is not the operation’s', async () => {
    let read = 0;
    const body = new ReadableStream({ pull: (controller) => (read += 1, controller.enqueue(new Uint8Array(1024))) }, { highWaterMark: 0 });
    const answer = await server.fetch(`${API_ROOT}/projects/p/artefacts`, { method: 'POST', headers: { cookie: `caderno_session=${project.analyst}`, 'content-type': 'text/plain' }, body, duplex: 'half' } as RequestInit);
    expect([answer.status, read]).toEqual([415, 0]);
  });
});

test('a body that comes too slowly is refused and leaves nothing, rather than pass for a whole one', async () => {
  const body = new ReadableStream({ start: (controller) => controller.enqueue(new TextEncoder().encode('ID,Title\nA-1,The first half')) });
  const before = readdirSync(server.parts.spool);
  const saving = saveBody({ req: { raw: { body } } } as never, server.parts.spool, 1_000, () => new DomainError({ code: 'file_too_large', limit: 1_000 }), 50);
  await expect(saving).rejects.toMatchObject({ refusal: { code: 'body_too_slow', seconds: 1 } });
  expect(readdirSync(server.parts.spool)).toEqual(before);
});

test('no project takes an address that is the application’s own', async () => {
  const statuses = await Promise.all(['reset', 'new-project', 'api'].map(async (key) => (await server.as(project.lead)('createProject', { body: { key, name: key } })).status));
  expect([statuses, newProjectSchema.safeParse({ key: 'reset', name: 'x' }).success, newProjectSchema.safeParse({ key: 'resets', name: 'x' }).success]).toEqual([[400, 400, 400], false, true]);
});

describe('what a person has under way', () => {
  test('is counted for each, and free again however it ends', async () => {
    const most = new AtOnce(2);
    const waiting: (() => void)[] = [];
    const hold = (person: string) => most.run(person, () => new Promise<string>((resolve) => waiting.push(() => resolve(person))));
    const [first, second] = [hold('a'), hold('a')];
    await expect(hold('a')).rejects.toMatchObject({ refusal: { code: 'too_much_at_once', seconds: 2 } });
    const other = hold('b');
    for (const end of waiting) end();
    expect(await Promise.all([first, second, other])).toEqual(['a', 'a', 'b']);
    for (let i = 0; i < 5; i += 1) await expect(most.run('a', () => Promise.reject(new Error('failed')))).rejects.toThrow('failed');
    expect(await most.run('a', () => Promise.resolve('done'))).toBe('done');
  });

  test('streams are counted by session and person, and ended by either', () => {
    const streams = new Streams();
    const ended: string[] = [];
    const open = (session: string, person: string) => {
      streams.refuseTooMany(session, person);
      const remove = streams.add({ session, person, end: () => (ended.push(`${session} ${person}`), remove()) });
    };
    for (let i = 0; i < MOST_STREAMS.session; i += 1) open('s1', 'p1');
    expect(() => open('s1', 'p1')).toThrow(DomainError);
    for (let i = 0; i < MOST_STREAMS.person - MOST_STREAMS.session; i += 1) open(`s${2 + Math.floor(i / 10)}`, 'p1');
    expect(() => open('s9', 'p1')).toThrow(DomainError);
    open('t1', 'p2');
    streams.endOf({ session: 's1' });
    expect(ended).toEqual(Array.from({ length: MOST_STREAMS.session }, () => 's1 p1'));
    open('s1', 'p1');
    streams.endOf({ person: 'p1' });
    streams.endAll();
    expect([ended.length, ended.at(-1)]).toEqual([MOST_STREAMS.person + 2, 't1 p2']);
  });
});

describe('threads', () => {
  test('one that dies while nobody asks it is replaced; one that is told to forget reads everything again', async () => {
    const keeper = new CoverageKeeper(database.url, server.db);
    expect((await keeper.ask(project.id, { kind: 'report' })).cases).toBe(0);
    // A hand in the database: the project's revision does not tell.
    await server.as(project.analyst)('createArtefact', { body: testCase({ title: 'Counted' }) });
    expect((await keeper.ask(project.id, { kind: 'report' })).cases).toBe(1);
    await server.db.query(`UPDATE artefact SET state = 'withdrawn' WHERE title = 'Counted'`);
    expect((await keeper.ask(project.id, { kind: 'report' })).cases).toBe(1);
    keeper.forget(project.id);
    expect((await keeper.ask(project.id, { kind: 'report' })).cases).toBe(0);
    await keeper.close();
  });

  test('nobody’s files keep both while others wait', async () => {
    const { importer, spool } = server.parts;
    const order: string[] = [];
    const path = join(spool, 'fair.csv');
    writeFileSync(path, `ID,Title\n${Array.from({ length: 5_000 }, (_, i) => `F-${i},Line ${i}`).join('\n')}`);
    const keep = (person: string) => importer.ask({ kind: 'keep', projectId: project.id, personId: person, name: 'fair.csv', path }, person).then(() => order.push(person));
    const [many, few] = [project.people.analyst, project.people.lead];
    // Both threads have started: what is measured is whose turn it is, not how long a thread takes to read its code.
    await Promise.all([keep(many), keep(few)]);
    order.length = 0;
    const jobs = [...Array.from({ length: 6 }, () => keep(many))];
    await sleep(10);
    jobs.push(keep(few));
    await Promise.all(jobs);
    // Of seven it came last. In the order of coming it would end as one of the last two, on two threads of any speed; served in turn it ends before.
    expect(order.indexOf(few)).toBeLessThan(5);
  });

  test('a file that is not there is a fault of ours, and the thread goes on', async () => {
    const { importer, spool } = server.parts;
    const ask = (path: string) => importer.ask({ kind: 'keep', projectId: project.id, personId: project.people.reader, name: 'x.csv', path }, 'somebody');
    await expect(ask(join(spool, 'none'))).rejects.toHaveProperty('message', expect.stringContaining('ENOENT'));
    writeFileSync(join(spool, 'there'), 'ID,Title\nA,B');
    expect(await ask(join(spool, 'there'))).toMatchObject({ records: 1 });
  });
});

describe('what the log says of an error', () => {
  test('of the database names only, of ours the words, and the cause', () => {
    const parent = Object.assign(new Error('duplicate key value violates unique constraint: Key (email)=(secret@p.example)'), { code: '23505', severity: 'ERROR', table: 'person', constraint: 'person_email_key', detail: 'Key (email)=(secret@p.example) already exists.', parameters: ['secret'] });
    const thrown = Object.assign(new Error('Validation error: secret'), { name: 'SequelizeUniqueConstraintError', parent, original: parent, sql: 'INSERT … secret', parameters: ['secret'], fields: { email: 'secret@p.example' } });
    const told = describeError(new Error('A command failed', { cause: thrown }));
    expect(told).toMatchObject({ type: 'Error', message: 'A command failed', cause: { type: 'SequelizeUniqueConstraintError', database: { code: '23505', table: 'person', constraint: 'person_email_key' } } });
    expect(JSON.stringify(told)).not.toContain('secret');
    expect([describeError('text'), describeError(null)]).toEqual([{ type: 'string' }, { type: 'object' }]);
    // A stack begins with the message, which is not repeated.
    expect(JSON.stringify(describeError(parent))).not.toContain('secret');
  });
});

describe('settings', () => {
  const given = (more: Record<string, string>) => readSettings({ DATABASE_URL: 'postgres://x', ...more });
  test('that cannot be meant are refused by name', () => {
    for (const [name, value] of [['CADERNO_KEY', 'short'], ['PORT', '99999'], ['CADERNO_PROXY', 'yes'], ['DATABASE_URL', 'mysql://x'], ['LOG_LEVEL', 'loud']] as const) expect(() => given({ [name]: value })).toThrow(name);
  });
  test('hosts for trackers are those that are said, and the demo’s own', () => {
    expect(given({ CADERNO_OUTSIDE_HOSTS: 'A.example, b.example:81', CADERNO_DEMO_TRACKER: 'http://127.0.0.1:3221' }).outsideHosts).toEqual(['a.example', 'b.example:81', '127.0.0.1:3221']);
    expect(given({}).outsideHosts).toEqual([]);
    expect(given({ CADERNO_KEY: Buffer.alloc(32).toString('base64') }).key).not.toBeNull();
    expect(given({ HOST: '::1' }).hosts.has('[::1]')).toBe(true);
  });
});

test('an id is one command’s, whoever sends it', async () => {
  const id = randomUUID();
  const analyst = server.as(project.analyst);
  const both = await Promise.all([1, 2].map((n) => analyst('createArtefact', { body: requirement({ title: `Twice ${n}` }) }, { 'command-id': id.toUpperCase() })));
  expect(both[0]!.data).toEqual(both[1]!.data);
  expect((await analyst('createArtefact', { body: requirement() }, { 'command-id': 'not a uuid' })).refusal.code).toBe('request_invalid');
});
