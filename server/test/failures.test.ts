import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { migrate, openDatabase } from '../src/database/index.ts';
import { refusalOf } from '../src/http/problem.ts';
import { Stopping, createLog } from '../src/http/index.ts';
import { makeDatabase, makeProject, requirement, save, startServer, testCase, type TestServer } from './harness.ts';
import { pace } from '../../scripts/pace.mjs';

const SCRIPTS = fileURLToPath(new URL('../../scripts', import.meta.url));

describe('a database that fails as it likes', () => {
  /** A PostgreSQL that says one thing to whoever connects, and hangs up. */
  async function sayingOnly(bytes: Buffer): Promise<{ readonly url: string; readonly server: Server }> {
    const server = createServer((socket) => {
      socket.on('error', () => undefined);
      socket.end(bytes);
    }).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    return { server, url: `postgres://u:p@127.0.0.1:${(server.address() as AddressInfo).port}/d` };
  }
  const message = (code: string): Buffer => {
    const fields = Buffer.from(`SFATAL\0VFATAL\0C${code}\0Mgoing away\0\0`);
    const head = Buffer.alloc(5);
    head.write('E');
    head.writeInt32BE(fields.length + 4, 1);
    return Buffer.concat([head, fields]);
  };

  test.each([['FATAL in its first packet', message('57P03')], ['nothing at all', Buffer.alloc(0)], ['something else entirely', Buffer.from('HTTP/1.1 400 Bad Request\r\n\r\n')]])('%s is told to whoever asked, and the process goes on', async (_, bytes) => {
    const { url, server } = await sayingOnly(bytes);
    const db = openDatabase(url);
    for (let i = 0; i < 3; i += 1) await expect(db.query('SELECT 1')).rejects.toBeInstanceOf(Error);
    await db.close();
    server.close();
  });

  test('whoever waits too long for what another command holds is told so, and everybody else is answered meanwhile', async () => {
    const database = await makeDatabase();
    const server = await startServer(database.url);
    const project = await makeProject(server.db);
    const call = server.as(project.analyst);
    const held = await server.db.transaction();
    await server.db.query('SELECT 1 FROM project FOR NO KEY UPDATE', { transaction: held });
    const waiting = Array.from({ length: 3 }, () => call('createArtefact', { body: requirement() }));
    expect((await call('readHeads')).status).toBe(200);
    // Whoever only refers to the project is not held up.
    expect((await server.as(null)('signIn', { body: { demoPerson: project.people.lead } })).status).toBe(200);
    for (const { status, refusal } of await Promise.all(waiting)) expect([status, refusal.code]).toEqual([503, 'project_busy']);
    await held.rollback();
    expect((await call('createArtefact', { body: requirement() })).status).toBe(200);
    await server.close();
    await database.drop();
  });

  test('a connection that is cut while it is idle, and all of them, are replaced', async () => {
    const database = await makeDatabase();
    const server = await startServer(database.url);
    const project = await makeProject(server.db);
    const call = server.as(project.analyst);
    expect((await call('readProject')).status).toBe(200);
    const root = openDatabase(database.url);
    await root.query(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()`);
    const statuses: number[] = [];
    for (let i = 0; i < 20 && statuses.at(-1) !== 200; i += 1) {
      statuses.push((await call('readCoverage')).status);
      await sleep(100);
    }
    expect([statuses.every((s) => s === 200 || s === 503), statuses.at(-1)]).toEqual([true, 200]);
    await root.close();
    await server.close();
    await database.drop();
  });

  test('a full disk is named, and is a reason to try again', () => {
    const log = createLog('silent');
    const full = Object.assign(new Error('could not extend file'), { name: 'SequelizeDatabaseError', parent: Object.assign(new Error('No space'), { code: '53100' }) });
    const spool = Object.assign(new Error('write'), { code: 'ENOSPC' });
    expect([refusalOf(full, log), refusalOf(spool, log), refusalOf(new Error('could not write: No space left on device'), log)]).toEqual([{ code: 'disk_full' }, { code: 'disk_full' }, { code: 'disk_full' }]);
  });
});

describe('a server that is to stop', () => {
  let database: Awaited<ReturnType<typeof makeDatabase>>;
  let server: TestServer;
  beforeAll(async () => {
    database = await makeDatabase();
    server = await startServer(database.url);
  });
  afterAll(async () => {
    await server.close();
    await database.drop();
  });

  test('finishes what is under way and takes in nothing more, saying when to come again', async () => {
    const project = await makeProject(server.db);
    const call = server.as(project.analyst);
    const { id } = (await call('createArtefact', { body: testCase() })).data.summary;
    const under = save(call, id, 1, testCase({ objective: 'saved while it stops' }));
    await sleep(5);
    const finished = server.parts.stopping.finish(10_000);
    const late = await server.fetch('/api/v1/session');
    expect([late.status, late.headers.get('retry-after')]).toEqual([503, '5']);
    expect((await under).data.content).toMatchObject({ objective: 'saved while it stops' });
    await finished;
    // Who distributes requests sends no more here; who watches over the process leaves it alone.
    expect([(await server.fetch('/healthz')).status, (await server.fetch('/livez')).status]).toEqual([503, 200]);
  });
  test('does not wait for ever', async () => {
    const stopping = new Stopping();
    let done = (): void => undefined;
    const hanging = stopping.count({} as never, () => new Promise<void>((resolve) => (done = resolve)));
    const began = Date.now();
    await stopping.finish(100);
    expect(Date.now() - began).toBeLessThan(2_000 * pace());
    done();
    await hanging;
  });
});

describe('a database that a newer Caderno has used', () => {
  test('is refused in one sentence, and not touched', async () => {
    const database = await makeDatabase();
    const db = openDatabase(database.url);
    await migrate(db);
    await db.query(`INSERT INTO caderno.migration (name) VALUES ('9999-later')`);
    await expect(migrate(db)).rejects.toMatchObject({ name: 'DatabaseNewer', unknown: ['9999-later'] });
    await db.close();
    await database.drop();
  });
});

describe('a backup', () => {
  const folder = mkdtempSync(join(tmpdir(), 'caderno-backup-test-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const run = (script: string, args: string[], env: Record<string, string>) => {
    const { status, stdout, stderr } = spawnSync(process.execPath, [join(SCRIPTS, script), ...args], { env: { ...process.env, NODE_OPTIONS: '', ...env }, encoding: 'utf8', timeout: 60_000 });
    return { status, text: `${stdout}${stderr}` };
  };
  /** All that is stored, as PostgreSQL writes it out. */
  const dumpOf = (url: string): string => execFileSync('/usr/lib/postgresql/15/bin/pg_dump', ['--schema=caderno', '--no-owner', '--inserts', url], { encoding: 'utf8', maxBuffer: 256 * 1024 * 1024 }).replaceAll(/^\\(un)?restrict .*$/gm, '');

  test('restored equals saved, key and pictures and all; what is there is replaced only when that is said', async () => {
    const [from, to] = [await makeDatabase(), await makeDatabase()];
    const server = await startServer(from.url);
    const project = await makeProject(server.db);
    const call = server.as(project.analyst);
    await call('createArtefact', { body: requirement({ title: 'Kept “so” 💧' }) });
    await call('createArtefact', { body: testCase({ title: 'Kept too' }) });
    const saved = dumpOf(from.url);
    const key = join(folder, 'key');
    writeFileSync(key, 'c2VjcmV0');
    const backup = join(folder, 'backup');
    expect(run('backup.mjs', [backup], { DATABASE_URL: from.url, CADERNO_KEY_FILE: key })).toMatchObject({ status: 0 });
    expect(statSync(backup).mode & 0o077).toBe(0);
    // That it was made is noted, after it.
    expect(dumpOf(from.url)).toContain('backup');
    expect(run('backup.mjs', [backup], { DATABASE_URL: from.url, CADERNO_KEY_FILE: key }).text).toContain('is there already');

    const otherKey = join(folder, 'elsewhere', 'key');
    expect(run('restore.mjs', [backup], { DATABASE_URL: to.url, CADERNO_KEY_FILE: otherKey })).toMatchObject({ status: 0 });
    expect(dumpOf(to.url)).toBe(saved);
    expect(readFileSync(otherKey, 'utf8')).toBe('c2VjcmV0');
    await call('createArtefact', { body: requirement({ title: 'Later' }) });
    const later = dumpOf(from.url);
    expect(run('restore.mjs', [backup], { DATABASE_URL: from.url, CADERNO_KEY_FILE: key }).text).toContain('Add --replace');
    writeFileSync(join(folder, 'broken.dump'), 'no dump');
    // A backup that cannot be read changes nothing.
    const broken = join(folder, 'broken');
    execFileSync('mkdir', [broken]);
    writeFileSync(join(broken, 'caderno.dump'), readFileSync(join(backup, 'caderno.dump')).subarray(0, 5_000));
    expect(run('restore.mjs', [broken, '--replace'], { DATABASE_URL: from.url, CADERNO_KEY_FILE: key })).toMatchObject({ status: 1, text: expect.stringContaining('nothing was changed') });
    expect(dumpOf(from.url)).toBe(later);
    await server.close();
    expect(run('restore.mjs', [backup, '--replace'], { DATABASE_URL: from.url, CADERNO_KEY_FILE: key })).toMatchObject({ status: 0 });
    expect(dumpOf(from.url)).toBe(saved);
    expect(existsSync(join(backup, 'backup.json'))).toBe(true);
    await from.drop();
    await to.drop();
  });
});
