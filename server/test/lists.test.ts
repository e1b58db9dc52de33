import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { MOST_SAVED_QUERIES, type BodyOf } from '@caderno/contract';
import { ownFieldId } from '@caderno/core/fields';
import { ownColumn } from '@caderno/core/listing';
import { randomUUID } from 'node:crypto';
import { condition, makeDatabase, makeProject, startServer, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let reader: Caller;
let analyst: Caller;
let lead: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  reader = server.as(project.reader);
  analyst = server.as(project.analyst);
  lead = server.as(project.lead);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const drafts: BodyOf<'saveQuery'> = { kind: 'case', name: 'Drafts', query: 'state:draft', everybody: false, counts: null };
const save = (call: Caller, query: string, body: Partial<typeof drafts> = {}, of = 'p') => call('saveQuery', { params: { project: of, query }, body: { ...drafts, ...body } });
const names = async (call: Caller): Promise<string[]> => (await call('listSavedQueries')).data.map((q) => `${q.name}${q.everybody ? ' (everybody’s)' : ''}`);

test('one’s own queries are one’s own; the project’s are everybody’s, and the analysts’ to change', async () => {
  const [mine, ours, theirs] = [randomUUID(), randomUUID(), randomUUID()];
  expect((await save(reader, mine)).status).toBe(200);
  expect((await save(reader, ours, { everybody: true })).refusal).toMatchObject({ code: 'role_too_low', needed: 'analyst' });
  await save(analyst, ours, { name: 'Gaps', query: 'coverage<50%', everybody: true });
  await save(lead, theirs, { name: 'Lead’s' });
  expect([await names(reader), await names(analyst)]).toEqual([['Drafts', 'Gaps (everybody’s)'], ['Gaps (everybody’s)']]);
  // Whoever knows the id of another's gets no further.
  expect([(await save(analyst, mine, { name: 'Taken' })).refusal.code, (await analyst('removeQuery', { params: { query: theirs } })).refusal.code, (await reader('removeQuery', { params: { query: ours } })).refusal.code]).toEqual(['query_unknown', 'query_unknown', 'role_too_low']);
  expect((await save(reader, ours, { everybody: false })).refusal.code).toBe('role_too_low');
  // Saved again it is changed, not doubled; removed twice it is gone once.
  await save(reader, mine, { name: 'My drafts' });
  expect(await names(reader)).toEqual(['Gaps (everybody’s)', 'My drafts']);
  await reader('removeQuery', { params: { query: mine } });
  expect([(await reader('removeQuery', { params: { query: mine } })).status, await names(reader)]).toEqual([200, ['Gaps (everybody’s)']]);
});

test('a query is kept with how it is counted, which a field that is no column cannot be', async () => {
  const id = randomUUID();
  const counts: BodyOf<'saveQuery'>['counts'] = { down: 'owner', across: ownColumn(ownFieldId('cost')), measure: 'minutes', as: 'bars' };
  await save(reader, id, { counts });
  expect((await reader('listSavedQueries')).data.find((q) => q.id === id)).toMatchObject({ query: 'state:draft', counts });
  await save(reader, id);
  expect((await reader('listSavedQueries')).data.find((q) => q.id === id)?.counts).toBeNull();
  expect((await save(reader, id, { counts: { ...counts, down: 'nothing' as never } })).refusal.code).toBe('request_invalid');
  await reader('removeQuery', { params: { query: id } });
});

test('a query of another project is not there', async () => {
  const other = await makeProject(server.db, 'other');
  const id = randomUUID();
  await save(server.as(other.lead), id, { everybody: true }, 'other');
  expect((await save(lead, id, { everybody: true })).refusal.code).toBe('query_unknown');
});

test('so many can be kept and no more; one that is there can still be changed', async () => {
  // One is the lead's already.
  const id = randomUUID();
  await save(lead, id);
  await server.db.query(`INSERT INTO saved_query SELECT gen_random_uuid(), project_id, person_id, kind, 'n', '' FROM saved_query, generate_series(1, ${MOST_SAVED_QUERIES - 2}) WHERE id = '${id}'`);
  expect([(await save(lead, randomUUID())).refusal, (await save(lead, id, { name: 'Changed' })).status]).toMatchObject([{ code: 'too_many_queries', of: 'person', limit: MOST_SAVED_QUERIES }, 200]);
});

test('how somebody wants to see a list is remembered of them, and read as none when it cannot be', async () => {
  const view: BodyOf<'saveListView'> = { group: null, sort: { column: 'updated', descending: true }, columns: [{ column: 'title', width: 300 }, { column: 'id', width: null }] };
  await reader('saveListView', { params: { kind: 'case' }, body: view });
  await reader('saveListView', { params: { kind: 'condition' }, body: { ...view, group: 'technique' } });
  expect([(await reader('readListViews')).data, (await lead('readListViews')).data]).toEqual([{ case: view, condition: { ...view, group: 'technique' } }, {}]);
  await server.db.query(`UPDATE list_view SET view = '{"group": 7}' WHERE kind = 'case'`);
  expect((await reader('readListViews')).data).toEqual({ condition: { ...view, group: 'technique' } });
  expect((await reader('saveListView', { params: { kind: 'case' }, body: { ...view, columns: [{ column: 'id', width: null }, { column: 'id', width: null }] } })).refusal.code).toBe('request_invalid');
});

test('a head of before knows the depths of its condition after the upgrade, and nobody is told of a change', async () => {
  await analyst('createArtefact', { body: condition([], { depths: ['Smoke run'] }) });
  const [before] = (await server.db.query(`SELECT revision FROM artefact WHERE kind = 'condition'`))[0] as { revision: number }[];
  await server.db.query(`UPDATE artefact SET facts = facts - 'depths'; UPDATE project SET revision = revision + 5; DELETE FROM migration WHERE name IN ('0011-lists', '0028-counts'); DROP TABLE saved_query, list_view`);
  const again = await startServer(database.url);
  expect((await again.as(project.analyst)('listArtefacts', { query: { kind: 'condition', query: 'depth:"smoke run"' } })).data).toMatchObject([{ depths: ['Smoke run'] }]);
  const [after] = (await server.db.query(`SELECT revision FROM artefact WHERE kind = 'condition'`))[0] as { revision: number }[];
  expect(after?.revision).toBeGreaterThanOrEqual(before?.revision ?? 0);
  await again.close();
});
