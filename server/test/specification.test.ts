import { beforeEach, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_FEATURE, withText } from '@caderno/core/scenarios';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { EMPTY_SUITE, entryId } from '@caderno/core/suites';
import { execute, inTransaction } from '../src/database/index.ts';
import { condition, eachInProject, requirement, save, testCase, type Caller } from './harness.ts';

const the = eachInProject('specification');
let analyst: Caller;
let reader: Caller;
const read = (query: object = {}) => reader('readSpecification', { query });
const ids = async (query: object = {}): Promise<string[]> => (await read(query)).data.artefacts.map((a) => a.id);

beforeEach(async () => {
  ({ analyst, reader } = the);
  const uses = { kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] } as const;
  const first = [
    { kind: 'shared', content: { ...EMPTY_SHARED, title: 'Sign in', steps: [plainStep(stepId('a'), 'sign in')] } } as const,
    requirement({ title: 'Readings', module: 'Meters' }),
    requirement({ title: 'Bills', module: 'Bills' }),
    condition(['R-1'], { title: 'A reading' }),
    condition(['R-2'], { title: 'A bill' }),
    testCase({ title: 'Read', module: 'Meters', covers: [newCover('K-1', 1)], steps: [uses] }),
    testCase({ title: 'Pay', covers: [newCover('K-2', 1)] }),
    { kind: 'feature', content: withText({ ...EMPTY_FEATURE, path: 'bills.feature' }, 'Feature: Bills\n\n  Scenario: One\n    Given a bill\n', randomUUID) } as const,
    { kind: 'suite', content: { ...EMPTY_SUITE, title: 'Smoke', entries: [{ kind: 'member', id: entryId('m'), of: 'C-2', pinned: null, runsIn: null }] } } as const,
  ];
  for (const body of first) expect((await analyst('createArtefact', { body })).status).toBe(200);
});

test('all that is designed, as it was saved last, with its place; nothing that is withdrawn, no question, no suite', async () => {
  await analyst('createArtefact', { body: testCase({ title: 'Old' }) });
  await analyst('moveRequirement', { params: { id: 'R-2' } as never, body: { parent: 'R-1', after: null } });
  await analyst('setState', { params: { id: 'C-3' } as never, body: { state: 'withdrawn' } as never });
  await save(analyst, 'C-2', 1, testCase({ title: 'Pay at the counter', covers: [newCover('K-2', 1)] }), '', undefined, the.key);
  const { artefacts, broken } = (await read()).data;
  expect(artefacts.map((a) => a.id).toSorted()).toEqual(['C-1', 'C-2', 'F-1', 'K-1', 'K-2', 'R-1', 'R-2', 'S-1']);
  expect(artefacts.find((a) => a.id === 'C-2')).toMatchObject({ kind: 'case', version: 2, state: 'draft', content: { title: 'Pay at the counter' } });
  expect(artefacts.find((a) => a.id === 'R-2')).toMatchObject({ parent: 'R-1' });
  expect(broken).toEqual([]);
});

test('of a module, a requirement or a suite with what these use; of nothing there is nothing', async () => {
  expect((await ids({ module: 'Meters' })).toSorted()).toEqual(['C-1', 'K-1', 'R-1', 'S-1']);
  expect((await ids({ requirement: 'R-2' })).toSorted()).toEqual(expect.arrayContaining(['C-2', 'K-2', 'R-2']));
  expect(await ids({ requirement: 'R-2' })).not.toContain('C-1');
  expect(await ids({ suite: 'U-1' })).toEqual(expect.arrayContaining(['C-2', 'K-2', 'R-2']));
  expect(await ids({ suite: 'U-1' })).not.toContain('S-1');
  expect(await ids({ module: 'Nothing' })).toEqual([]);
  expect((await read({ requirement: 'R-9' })).refusal).toMatchObject({ code: 'artefact_unknown' });
});

test('what cannot be read is named; more than one document takes is refused with how many they are', async () => {
  await inTransaction(the.server.db, (work) => execute(work, `UPDATE artefact_version SET content = '{"title": 3}' WHERE artefact_id = (SELECT id FROM artefact WHERE kind = 'case' AND number = 2 AND project_id = (SELECT id FROM project WHERE key = $1))`, [the.key]));
  const { artefacts, broken } = (await read()).data;
  expect([artefacts.length, broken]).toEqual([7, ['C-2']]);
  await inTransaction(the.server.db, (work) =>
    execute(
      work,
      `INSERT INTO artefact SELECT (jsonb_populate_record(a, jsonb_build_object('id', 9000000 + n, 'number', 100 + n))).* FROM artefact a, generate_series(1, 1500) n WHERE a.kind = 'case' AND a.number = 1 AND a.project_id = (SELECT id FROM project WHERE key = $1)`,
      [the.key],
    ),
  );
  expect((await read()).refusal).toMatchObject({ code: 'specification_too_long', count: 1_508, limit: 1_500 });
  // A part of it is still a document.
  expect((await read({ requirement: 'R-2' })).status).toBe(200);
});
