import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { newCover, newRow, parameterId, plainStep, rowId, stepId, type Parameter } from '@caderno/core/cases';
import type { CaseId } from '@caderno/core/artefacts';
import { fieldId } from '@caderno/core/conditions';
import { caseRow } from '@caderno/core/coverage';
import { EMPTY_DATA_SET, withDataSet, type DataSetContent } from '@caderno/core/dataSets';
import { EMPTY_CASE } from '@caderno/core/cases';
import { unpackRows } from '@caderno/contract';
import { condition, makeDatabase, makeProject, requirement, save, startServer, testCase, type Caller, type TestServer } from './harness.ts';

let database: Awaited<ReturnType<typeof makeDatabase>>;
let server: TestServer;
let project: Awaited<ReturnType<typeof makeProject>>;
let call: Caller;

beforeAll(async () => {
  database = await makeDatabase();
  server = await startServer(database.url);
  project = await makeProject(server.db);
  call = server.as(project.analyst);
});
afterAll(async () => {
  await server.close();
  await database.drop();
});

const reading: Parameter = { id: parameterId('c'), name: 'reading', type: 'whole', default: '', description: '' };
const setOf = (values: readonly string[], part: Partial<DataSetContent> = {}): { kind: 'dataSet'; content: DataSetContent } => ({ kind: 'dataSet', content: { ...EMPTY_DATA_SET, title: 'Readings', parameters: [reading], rows: values.map((value, i) => newRow(rowId(`r${i}`), `row ${i}`, { c: value })), ...part } });
const model = {
  kind: 'valueRanges', boundaries: 'none', allowInvalidTogether: false,
  fields: [{ id: 'f', name: 'reading', type: { kind: 'whole' }, unit: '', required: true, choices: [], patterns: [], classes: [], intervals: [{ id: 'low', name: 'low', from: '0', to: '9', valid: true, outcome: '' }, { id: 'high', name: 'high', from: '10', to: '', valid: true, outcome: '' }] }],
};
const made = async (body: Parameters<typeof call<'createArtefact'>>[1] extends infer I ? (I extends { body?: infer B } ? B : never) : never): Promise<string> => (await call('createArtefact', { body })).data.summary.id;
const countsOf = async (id: CaseId) => caseRow(new Map(unpackRows((await call('readCoverageRows', {})).data.rows).map((r) => [r.id, r])), id)?.counts;
const shown = async (): Promise<number> => (await call('readCoverage', {})).data.counts.shown;

test('cases that take rows of a data set are covered by them, follow it or stay with a version, and cannot lose it', async () => {
  const r = (await made(requirement())) as `R-${number}`;
  const k = (await made(condition([r], { model }))) as `K-${number}`;
  const serves = [{ id: k, seenVersion: 1, fields: [{ id: fieldId('f'), parameter: reading.id }], outcome: null }];
  const set = (await made(setOf(['1'], { serves }))) as `D-${number}`;
  expect(set).toBe('D-1');

  const content = withDataSet({ ...EMPTY_CASE, title: 'Takes rows', steps: [plainStep(stepId('s'), 'Enter the reading', 'It is taken')] }, { id: set, content: setOf(['1'], { serves }).content }, () => 'own');
  const follows = (await made({ kind: 'case', content })) as `C-${number}`;
  expect(content.covers).toEqual([{ ...newCover(k, 1), fields: [{ id: 'f', parameter: 'own' }] }]);
  expect(await shown()).toBe(1);
  expect((await call('readArtefact', { params: { id: follows } })).data.summary).toMatchObject({ rows: 0, dataSet: set });

  expect((await save(call, set, 1, setOf(['1', '50', '7'], { serves }))).status).toBe(200);
  expect(await shown()).toBe(2);
  expect(await countsOf(follows)).toMatchObject({ instances: 3 });
  const { users } = (await call('readReuse', { params: { id: set } })).data;
  expect(users.map((u) => [u.id, u.follows])).toEqual([[follows, true]]);

  // Pinned, it keeps the one row of the first version; the rows that run may be chosen.
  expect((await save(call, follows, 1, { kind: 'case', content: { ...content, data: content.data && { ...content.data, pinned: 1 } } })).status).toBe(200);
  expect(await shown()).toBe(1);
  expect((await save(call, follows, 2, { kind: 'case', content: { ...content, runs: { kind: 'chosen', rows: [rowId('r1')] } } })).status).toBe(200);
  expect([await shown(), await countsOf(follows)]).toMatchObject([1, { instances: 1 }]);

  const library = (await call('readLibrary', { query: { uses: `${set},${set}@1` } })).data;
  expect(library.map(({ key, used }) => [key, used.kind === 'dataSet' && used.content.rows.length]).sort()).toEqual([[set, 3], [`${set}@1`, 1]]);
  const [change] = (await call('listChanges', { query: { artefact: set } })).data.filter((c) => c.action === 'create');
  expect((await call('undoChange', { params: { change: change?.id ?? '' }, body: {} })).data).toMatchObject({ code: 'still_used' });
});

test('a condition that changes makes the link from a data set suspect, until someone says it is still right', async () => {
  const r = (await made(requirement())) as `R-${number}`;
  const k = (await made(condition([r], { model }))) as `K-${number}`;
  const set = (await made(setOf(['1'], { serves: [{ id: k, seenVersion: 1, fields: [], outcome: null }] }))) as `D-${number}`;
  const later = condition([r], { title: 'Means something else', model: { ...model, boundaries: 'twoValue' } });
  expect((await save(call, k, 1, later)).status).toBe(200);
  const suspect = async () => (await call('listSuspectLinks', {})).data.filter((l) => l.from === set);
  expect(await suspect()).toMatchObject([{ from: set, to: k, seen: 1, now: 2 }]);
  expect((await call('settleSuspectLinks', { body: { links: [{ from: set, to: k, now: 2 }] } })).status).toBe(200);
  expect(await suspect()).toEqual([]);
});

test('a data set that is not there cannot be taken, and one with a row like no row is refused with its place', async () => {
  const refused = await call('createArtefact', { body: testCase({ title: 'Takes nothing', data: { set: 'D-99', pinned: null, columns: [] } }) });
  expect(refused.refusal).toMatchObject({ code: 'link_unknown', id: 'D-99' });
  const odd = setOf(['1']);
  const body = { ...odd, content: { ...odd.content, rows: [{ ...odd.content.rows[0], name: 5 }] } };
  const answer = await call('createArtefact', { body: body as never });
  expect([answer.status, JSON.stringify(answer.data)]).toEqual([400, expect.stringContaining('rows')]);
});
