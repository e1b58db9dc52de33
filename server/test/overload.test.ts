import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { connect } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { API_ROOT, LIMITS, api, type AnyEndpoint } from '@caderno/contract';
import { attachmentId } from '@caderno/core/attachments';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { plainStep, stepId } from '@caderno/core/cases';
import { GUESS_ALL } from '@caderno/core/exchange';
import { CoverageKeeper } from '../src/coverage/index.ts';
import { OwnThreads } from '../src/coverage/ownThread.ts';
import { sweep } from '../src/upkeep/index.ts';
import { makeDatabase, makeProject, pngOf, requirement, startServer, testCase, type Caller, type TestServer } from './harness.ts';
import { pace } from '../../scripts/pace.mjs';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let other: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;
let listening: Awaited<ReturnType<TestServer['listen']>>;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  other = await makeProject(server.db, 'other');
  call = server.as(project.analyst);
  listening = await server.listen();
});
afterAll(async () => {
  await listening.close();
  await server.close();
  await database.drop();
});

const bytes = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
const upload = (as: Caller, name: string, file: Uint8Array<ArrayBuffer>) => as('uploadImport', { query: { name }, body: file });

/** Sends a body that never ends; answers the status and how many bytes were taken until then. */
function pour(path: string, cookie: string): Promise<{ readonly status: number; readonly taken: number }> {
  const { hostname, port, host } = new URL(listening.origin);
  return new Promise((resolve) => {
    const socket = connect(Number(port), hostname);
    let answer = '';
    let sent = 0;
    const end = (): void => {
      socket.destroy();
      resolve({ status: Number(/^HTTP\/1.1 (\d+)/.exec(answer)?.[1] ?? 0), taken: sent });
    };
    const chunk = Buffer.alloc(64 * 1024, 0x20);
    const write = (): void => {
      while (!socket.destroyed && sent < 200 * 1024 * 1024) {
        sent += chunk.length;
        socket.write(`${chunk.length.toString(16)}\r\n`);
        socket.write(chunk);
        if (!socket.write('\r\n')) return void socket.once('drain', write);
      }
    };
    socket.on('data', (data) => {
      answer += String(data);
      end();
    });
    socket.on('error', end).on('close', end);
    socket.write(`POST ${API_ROOT}${path} HTTP/1.1\r\nHost: ${host}\r\nCookie: ${cookie}\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\n`);
    write();
  });
}

describe('bodies', () => {
  test('are counted while they come and refused at their operation’s limit', async () => {
    const cookie = `caderno_session=${project.analyst}`;
    const session = await pour('/session', '');
    expect([session.status, session.taken < 20 * 1024 * 1024]).toEqual([413, true]);
    // A stranger’s large body is not read at all.
    const stranger = await pour('/projects/p/artefacts', '');
    expect([stranger.status, stranger.taken < 20 * 1024 * 1024]).toEqual([401, true]);
    const known = await pour('/projects/p/artefacts/R-1/state', cookie);
    expect([known.status, known.taken < 20 * 1024 * 1024]).toEqual([413, true]);
  });
  test('whoever says that it is too long is refused before any of it comes', async () => {
    for (const [name, endpoint] of Object.entries<AnyEndpoint>(api).filter(([, e]) => e.method === 'POST' && e.access === 'anyone')) {
      const response = await server.fetch(API_ROOT + endpoint.path, { method: 'POST', headers: { 'content-type': 'application/json', 'content-length': String(LIMITS.request + 1) }, body: '{}' });
      expect([name, response.status, response.headers.get('connection')]).toEqual([name, 413, 'close']);
    }
  });
  test('of uploads nothing stays behind on the disk, taken or refused', async () => {
    expect((await upload(call, 'good.csv', bytes('ID,Title\nA-1,One'))).status).toBe(200);
    expect((await upload(call, 'large.csv', new Uint8Array(LIMITS.file + 1))).refusal.code).toBe('file_too_large');
    const exported = await server.fetch(`${API_ROOT}/projects/p/basis/export?format=csv`, { headers: { cookie: `caderno_session=${project.analyst}` } });
    await exported.arrayBuffer();
    for (let i = 0; i < 20 && readdirSync(server.parts.spool).length > 0; i += 1) await sleep(50);
    expect(readdirSync(server.parts.spool)).toEqual([]);
  });
});

describe('quotas', () => {
  test('of attached files a project, of waiting files a person', async () => {
    await server.db.query(`INSERT INTO stored_file (hash, size, kept_at, bytes) SELECT 'full' || n, 1, now(), '\\x00' FROM generate_series(1, ${LIMITS.projectAttachments / 1024 / 1024}) n`);
    await server.db.query(`INSERT INTO attachment (project_id, id, type, size, kept_at) SELECT $1, 'full' || n, 'image/png', 1048576, now() FROM generate_series(1, ${LIMITS.projectAttachments / 1024 / 1024}) n`, { bind: [project.id] });
    expect((await call('keepAttachment', { query: { name: 'a.png' }, body: pngOf(1, 1) })).refusal).toMatchObject({ code: 'quota_exceeded', of: 'project' });
    expect((await server.as(other.analyst)('keepAttachment', { params: { project: 'other' }, query: { name: 'a.png' }, body: pngOf(1, 1) })).status).toBe(200);
    await server.db.query(`DELETE FROM attachment WHERE id LIKE 'full%'`);
    await server.db.query(`INSERT INTO import_file (id, project_id, person_id, name, hash, size, at, state) SELECT gen_random_uuid(), $1, $2, 'x', 'full1', 10485760, now(), 'waiting' FROM generate_series(1, 20)`, { bind: [project.id, project.people.analyst] });
    expect((await upload(call, 'one more.csv', bytes('ID,Title\nA,B'))).refusal).toMatchObject({ code: 'quota_exceeded', of: 'person' });
    expect((await upload(server.as(project.lead), 'theirs.csv', bytes('ID,Title\nA,B'))).status).toBe(200);
    await server.db.query('DELETE FROM import_file');
  });

  test('files that no version and no draft names are swept, others stay', async () => {
    const keep = async (side: number) => (await call('keepAttachment', { query: { name: 'p.png' }, body: pngOf(side, 1) })).data.id;
    const [used, drafted, unused, fresh, whole] = [await keep(11), await keep(12), await keep(13), await keep(14), await keep(15)];
    const named = (id: string) => ({ id: attachmentId(id), name: 'p.png', type: null, size: null });
    const step = (id: string) => ({ ...plainStep(stepId('s'), 'look'), attachments: [named(id)] });
    await call('createArtefact', { body: { kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'With a file', attachments: [named(whole)] } } });
    const { id } = (await call('createArtefact', { body: testCase({ steps: [step(used)] }) })).data.summary;
    await call('keepDraft', { params: { id }, body: { ...testCase({ steps: [step(drafted)] }), base: 1, sequence: 1 } });
    await server.db.query(`UPDATE attachment SET kept_at = now() - interval '3 days' WHERE id <> '${fresh}'`);
    await sweep(server.db, server.parts.files);
    const [rows] = await server.db.query(`SELECT id FROM attachment WHERE project_id = '${project.id}'`);
    const left = (rows as { id: string }[]).map((r) => r.id);
    expect([used, drafted, unused, fresh, whole].map((file) => left.includes(file))).toEqual([true, true, false, true, true]);
    // Its bytes stay as long as somebody may be about to bring them again.
    const readable = async (picture: string) => (await server.parts.files.read(picture)) !== null;
    expect(await readable(unused)).toBe(true);
    await server.db.query(`UPDATE stored_file SET kept_at = now() - interval '3 days'`);
    await sweep(server.db, server.parts.files);
    expect([await readable(unused), await readable(used)]).toEqual([false, true]);
  });
});

describe('many at once', () => {
  test('uploads hold no connection: far more than there are go through or are told to wait, and others are served', async () => {
    const people = [project.analyst, project.lead, project.administrator].map((token) => server.as(token));
    const lines = bytes(`ID,Title\n${Array.from({ length: 20 }, (_, i) => `U-${i},Line ${i}`).join('\n')}`);
    const uploads = Promise.all(Array.from({ length: 39 }, (_, i) => upload(people[i % 3]!, 'lines.csv', lines)));
    const began = performance.now();
    expect((await server.as(project.reader)('readProject')).status).toBe(200);
    expect(performance.now() - began).toBeLessThan(2_000 * pace());
    const statuses = (await uploads).map((u) => u.status);
    expect(statuses.filter((s) => s !== 200 && s !== 429)).toEqual([]);
    expect(statuses.filter((s) => s === 200).length).toBeGreaterThanOrEqual(12);
  });

  test('an import reads its file before it locks the project', async () => {
    // A lock held by somebody else: the import must have read everything when it comes to wait for it.
    const rows = Array.from({ length: 3_000 }, (_, i) => `L-${i},Line ${i}`).join('\n');
    const draft = (await upload(call, 'locked.csv', bytes(`ID,Title\n${rows}`))).data;
    const run = call('runImport', { params: { import: draft.id }, body: { mapping: draft.mapping, reading: GUESS_ALL, choices: {} } });
    const told: (number | string)[] = [];
    const saving = (async () => {
      for (let i = 0; i < 10; i += 1) {
        const { status, refusal } = await call('createArtefact', { body: requirement({ title: `Meanwhile ${i}` }) });
        told.push(status === 200 ? status : refusal.code);
      }
    })();
    expect((await run).status).toBe(200);
    await saving;
    // While it reads nobody waits; while it writes, on a machine that is slow at it, one may be told to wait, and nothing else.
    expect(told[0]).toBe(200);
    expect(told.filter((t) => t !== 200 && t !== 'project_busy')).toEqual([]);
  });

  test('exports are written beside the serving thread, also of texts made to take long', async () => {
    const deep = [`${'>'.repeat(4_000)} x`, Array.from({ length: 500 }, (_, i) => `${'  '.repeat(i)}- x`).join('\n'), `${'- '.repeat(20_000)}x`];
    for (const [i, text] of deep.entries()) await call('createArtefact', { body: requirement({ title: `Deep ${i}`, text }) });
    let longest = 0;
    let over = false;
    const watching = (async () => {
      while (!over) {
        const began = performance.now();
        await sleep(5);
        longest = Math.max(longest, performance.now() - began);
      }
    })();
    const answer = await server.fetch(`${API_ROOT}/projects/p/basis/export?format=reqif`, { headers: { cookie: `caderno_session=${project.analyst}` } });
    const text = await answer.text();
    over = true;
    await watching;
    expect([answer.status, text.includes('<xhtml:pre>&gt;&gt;&gt;')]).toEqual([200, true]);
    expect(longest).toBeLessThan(500 * pace());
  });
});

describe('a question that takes too much', () => {
  test('is ended with its thread; whoever shared it is answered by another, and its own project again when it takes less', async () => {
    const heavy = await makeProject(server.db, 'heavy');
    await server.as(heavy.analyst)('createArtefact', { params: { project: 'heavy' }, body: testCase({ title: 'Stuck' }) });
    await server.db.query(`UPDATE artefact_version v SET content = '7' FROM artefact a WHERE a.id = v.artefact_id AND a.title = 'Stuck'`);
    // Whoever reads the project marks what cannot be read, and here waits for it as long as nobody ends it.
    const held = await server.db.transaction();
    await server.db.query(`SELECT 1 FROM artefact WHERE title = 'Stuck' FOR UPDATE`, { transaction: held });

    const keeper = new CoverageKeeper(database.url, server.db, { mostMs: 3_000, restMs: 2_000 });
    const refused = { refusal: { code: 'computation_too_heavy' } };
    const stuck = [keeper.ask(heavy.id, { kind: 'report' }), keeper.ask(heavy.id, { kind: 'heldUp' })].map((asked) => asked.then(() => 'answered', (error: unknown) => error));
    expect((await keeper.ask(other.id, { kind: 'report' })).cases).toBe(0);
    expect(await Promise.all(stuck)).toMatchObject([refused, refused]);
    await expect(keeper.ask(heavy.id, { kind: 'report' })).rejects.toMatchObject(refused);
    expect((await keeper.ask(other.id, { kind: 'report' })).cases).toBe(0);
    await held.rollback();
    await sleep(2_050);
    expect((await keeper.ask(heavy.id, { kind: 'report' })).cases).toBe(0);
    await keeper.close();
  });

  test.each([['small', 0], ['large', 3_001]])('of more %s projects than there are threads each is answered in its turn', async (name, conditions) => {
    const keeper = new CoverageKeeper(database.url, server.db);
    const projects = await Promise.all(Array.from({ length: 7 }, (_, i) => makeProject(server.db, `turn-${name}${i}`)));
    // Conditions without a version: they are counted, and read by nobody.
    for (const { id, people } of projects) {
      await server.db.query(
        `INSERT INTO artefact (project_id, kind, number, position, state, head, meaning_since, title, module, owner, tags, facts, author_id, updated_at)
         SELECT $1, 'condition', n, n, 'draft', 1, 1, '', '', '', '{}', '{}', $2, now() FROM generate_series(1, $3::int) n`,
        { bind: [id, people.analyst, conditions] },
      );
    }
    const reports = await Promise.all([...projects, ...projects].map((p) => keeper.ask(p.id, { kind: 'report' })));
    expect(reports.map((r) => r.cases)).toEqual(reports.map(() => 0));
    await keeper.close();
  });

  test('a project is known to need a thread of its own by its size, or once a question took long; a count that fails is made again', async () => {
    const [small, large] = [await makeProject(server.db, 'smallone'), await makeProject(server.db, 'largeone')];
    await server.db.query(
      `INSERT INTO artefact (project_id, kind, number, position, state, head, meaning_since, title, module, owner, tags, facts, author_id, updated_at)
       SELECT $1, 'case', n, n, 'draft', 1, 1, '', '', '', '{}', '{}', $2, now() FROM generate_series(1, 3001) n`,
      { bind: [large.id, large.people.analyst] },
    );
    const threads = new OwnThreads(server.db);
    expect([await threads.needed(small.id), await threads.needed(large.id)]).toEqual([false, true]);
    threads.took(small.id, 900);
    expect(await threads.needed(small.id)).toBe(false);
    threads.took(small.id, 1_100);
    expect(await threads.needed(small.id)).toBe(true);
    await expect(threads.needed('no id')).rejects.toThrow();
    await expect(threads.needed('no id')).rejects.toThrow();
  });
});
