import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { getRequestListener } from '@hono/node-server';
import { API_ROOT } from '@caderno/contract';
import { GUESS_ALL } from '@caderno/core/exchange';
import { makeBucket } from '@caderno/standins/bucket';
import { migrate } from '../src/database/index.ts';
import { documentOf } from '../src/exchange/decoded.ts';
import { Files } from '../src/files/index.ts';
import { makeDatabase, makeProject, pngOf, startServer, type Caller, type TestServer } from './harness.ts';

process.env.AWS_ACCESS_KEY_ID = 'caderno';
process.env.AWS_SECRET_ACCESS_KEY = 'not a secret';

const standin = makeBucket('pictures', 'caderno');
const listening = createServer(getRequestListener(standin.app.fetch));
let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;
let place: { bucket: string; endpoint: string; region: string };

beforeAll(async () => {
  await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve));
  place = { bucket: 'pictures', endpoint: `http://127.0.0.1:${(listening.address() as AddressInfo).port}`, region: 'us-east-1' };
  database = await makeDatabase();
  server = await startServer(database.url, { filesPlace: place });
  project = await makeProject(server.db);
  call = server.as(project.analyst);
});
afterAll(async () => {
  await server.close();
  await database.drop();
  listening.closeAllConnections();
  listening.close();
});

const rows = async <T>(sql: string): Promise<T[]> => (await server.db.query(sql))[0] as T[];
const picture = (id: string) => server.fetch(`${API_ROOT}/projects/p/attachments/${id}`, { headers: { cookie: `caderno_session=${project.analyst}` } });
const csv = (lines: number) => new TextEncoder().encode(`ID,Title\n${Array.from({ length: lines }, (_, i) => `B-${i},Line ${i}`).join('\n')}`);

describe('files in a bucket', () => {
  test('pictures and imports are kept, read and removed there, once for the same bytes; the database has none of them', async () => {
    const png = pngOf(3, 3);
    const [{ data: first }, { data: again }] = [await call('keepAttachment', { query: { name: 'dial.png' }, body: png }), await call('keepAttachment', { query: { name: 'dial.png' }, body: png })];
    expect(again.id).toBe(first.id);
    expect([...standin.kept.keys()]).toEqual([first.id]);
    expect(new Uint8Array(await (await picture(first.id)).arrayBuffer())).toEqual(png);
    const draft = (await call('uploadImport', { query: { name: 'in.csv' }, body: csv(3) })).data;
    expect(draft.records).toBe(3);
    expect((await call('runImport', { params: { import: draft.id }, body: { mapping: draft.mapping, reading: GUESS_ALL, choices: {} } })).status).toBe(200);
    expect(standin.kept.size).toBe(2);
    expect(await rows('SELECT count(*)::int AS files, count(bytes)::int AS bytes FROM stored_file')).toEqual([{ files: 2, bytes: 0 }]);
    await server.db.query(`DELETE FROM import_file; UPDATE stored_file SET kept_at = now() - interval '3 days'`);
    expect(await server.parts.files.sweep()).toBe(1);
    expect([...standin.kept.keys()]).toEqual([first.id]);
  });

  test('what was kept before there was a bucket is read where it is', async () => {
    const before = new Files(server.db, null);
    const hash = await before.keep(pngOf(4, 4));
    expect(standin.kept.has(hash)).toBe(false);
    expect(await server.parts.files.readWhole(hash)).toEqual(Buffer.from(pngOf(4, 4)));
  });

  test('one that does not answer, or refuses us, is told as such; nothing is half kept', async () => {
    standin.down = true;
    const refused = await call('keepAttachment', { query: { name: 'dial.png' }, body: pngOf(5, 5) });
    expect([refused.status, refused.refusal.code]).toEqual([503, 'files_unavailable']);
    const [kept] = [...standin.kept.keys()];
    expect((await picture(kept!)).status).toBe(503);
    standin.down = false;
    expect((await call('keepAttachment', { query: { name: 'dial.png' }, body: pngOf(5, 5) })).status).toBe(200);
    const stranger = new Files(server.db, { ...place, bucket: 'not ours' });
    await expect(stranger.keep(pngOf(6, 6))).rejects.toMatchObject({ refusal: { code: 'files_unavailable' } });
    await stranger.close();
  });
});

test('a file is decoded once for describing, previewing and running it; read in another way it is decoded again', async () => {
  const draft = (await call('uploadImport', { query: { name: 'once.csv' }, body: csv(20) })).data;
  const file = { id: draft.id, kind: 'requirement' as const, ...(await rows<{ name: string; hash: string }>(`SELECT name, hash FROM import_file WHERE id = '${draft.id}'`))[0]! };
  const read = jest.spyOn(server.parts.files, 'readWhole');
  const known = await documentOf(server.db, server.parts.files, file, GUESS_ALL);
  expect([known.records.length, read.mock.calls.length]).toEqual([20, 0]);
  const other = await documentOf(server.db, server.parts.files, file, { ...GUESS_ALL, header: 0 });
  expect([other.records.length, read.mock.calls.length]).toEqual([21, 1]);
  // What one server has decoded, another one need not.
  const elsewhere = new Files(server.db, place);
  const readElsewhere = jest.spyOn(elsewhere, 'readWhole');
  expect(await documentOf(server.db, elsewhere, file, { ...GUESS_ALL, header: 0 })).toEqual(JSON.parse(JSON.stringify(other)));
  expect(readElsewhere).not.toHaveBeenCalled();
});

test('pictures and files of an older database keep their bytes', async () => {
  await server.db.query(`
    DELETE FROM caderno.import_file; DELETE FROM caderno.attachment;
    ALTER TABLE import_file DROP hash, DROP size, DROP job_id, DROP command_id, DROP refusal, ADD bytes bytea NOT NULL;
    ALTER TABLE attachment DROP CONSTRAINT attachment_id_fkey, DROP size, ADD bytes bytea NOT NULL;
    DROP TABLE import_document, stored_file; DELETE FROM migration WHERE name = '0010-files';
    INSERT INTO attachment (project_id, id, type, bytes, kept_at) VALUES ('${project.id}', encode(sha256('\\x0102'), 'hex'), 'image/png', '\\x0102', now());
    INSERT INTO import_file (id, project_id, person_id, name, bytes, at, state) SELECT gen_random_uuid(), '${project.id}', '${project.people.analyst}', name, '\\x0304', now(), 'waiting' FROM (VALUES ('a'), ('b')) f(name);`);
  await migrate(server.db);
  const [attachment] = await rows<{ id: string; size: number }>('SELECT id, size FROM attachment');
  const files = await rows<{ hash: string; size: number }>('SELECT DISTINCT hash, size FROM import_file');
  expect([attachment!.size, files.length, files[0]!.size]).toEqual([2, 1, 2]);
  expect([[...(await server.parts.files.readWhole(attachment!.id))], [...(await server.parts.files.readWhole(files[0]!.hash))]]).toEqual([[1, 2], [3, 4]]);
});
