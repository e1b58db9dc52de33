import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { GUESS_ALL } from '@caderno/core/exchange';
import type { ImportDraft } from '@caderno/contract';
import { inTransaction } from '../src/database/index.ts';
import { DomainError } from '../src/domainError.ts';
import { sendImport, superviseImports, type Importer } from '../src/exchange/index.ts';
import { startTwoServers, until, type Caller, type TwoServers } from './harness.ts';

let two: TwoServers;
let call: Caller;
let draft: ImportDraft;
let commandId: string;

beforeAll(async () => {
  two = await startTwoServers();
  call = two.server.as(two.project.analyst);
});
afterAll(() => two.close());
beforeEach(async () => {
  draft = (await call('uploadImport', { query: { name: 'long.csv' }, body: new TextEncoder().encode(`ID,Title\n${randomUUID()},Imported by a job`) })).data;
  commandId = randomUUID();
});

const order = () => ({ mapping: draft.mapping, reading: GUESS_ALL, choices: {} });
const run = (by: Caller = call) => by('runImport', { params: { import: draft.id }, body: order() }, { 'command-id': commandId });
const state = async () => (await call('readImportProgress', { params: { import: draft.id } })).data.state;
const supervise = () => superviseImports(two.other.db, two.other.parts.jobs);

/** As a server leaves it that has begun a run and is gone: the queue still takes it for under way. */
async function beginAndDie(silentFor: number, attempts = 0): Promise<void> {
  const { db, parts } = two.server;
  const actor = { projectId: two.project.id, personId: two.project.people.analyst, at: new Date(), commandId };
  await inTransaction(db, async (work) => {
    await sendImport(work, parts.jobs, actor, draft.id, order());
    const bind = [draft.id, attempts, silentFor];
    await db.query(`UPDATE caderno_jobs.job SET state = 'active', started_on = now(), retry_count = $2 WHERE id = (SELECT job_id FROM import_file WHERE id = $1) AND $3 = $3`, { bind, transaction: work.transaction });
    await db.query(`UPDATE import_file SET alive_at = now() - make_interval(secs => $3) WHERE id = $1 AND $2 = $2`, { bind, transaction: work.transaction });
  });
}

describe('a run whose server is gone', () => {
  test('is done by another one, once, and whoever sent it is answered', async () => {
    await beginAndDie(11);
    const answer = run();
    await supervise();
    expect((await answer).data).toMatchObject({ action: 'import', size: 1 });
    expect([await state(), (await run(two.other.as(two.project.analyst))).data.id]).toEqual(['done', (await answer).data.id]);
  });

  test('is left alone as long as its server may still be at it', async () => {
    await beginAndDie(8);
    await supervise();
    const other = randomUUID();
    const refused = await call('runImport', { params: { import: draft.id }, body: order() }, { 'command-id': other });
    expect([await state(), refused.refusal.code]).toEqual(['running', 'import_running']);
    await two.server.db.query(`UPDATE import_file SET alive_at = now() - interval '11 seconds' WHERE id = '${draft.id}'`);
    await Promise.all([supervise(), supervise()]);
    expect(await until(async () => ((await state()) === 'done' ? true : null))).toBe(true);
  });

  test('is given up after three servers, says so, and may be run again', async () => {
    await beginAndDie(11, 2);
    const answer = run();
    // Whoever sends the command anew once it was given up begins it again.
    await sleep(500);
    await supervise();
    expect((await answer).refusal.code).toBe('import_lost');
    expect(await state()).toBe('failed');
    commandId = randomUUID();
    expect((await run()).status).toBe(200);
  });
});

describe('a run that fails', () => {
  const asked = (by: (ask: jest.SpiedFunction<Importer['ask']>) => void): void => {
    for (const { parts } of [two.server, two.other]) by(jest.spyOn(parts.importer, 'ask'));
  };
  afterEach(() => void jest.restoreAllMocks());

  test('over a fault is begun again', async () => {
    asked((ask) => ask.mockRejectedValueOnce(new Error('a fault of ours')));
    expect([(await run()).status, await state()]).toEqual([200, 'done']);
  });

  test('over what a person can mend is told, and the file waits', async () => {
    asked((ask) => ask.mockRejectedValue(new DomainError({ code: 'import_conflicts_open', count: 3 })));
    expect((await run()).refusal).toMatchObject({ code: 'import_conflicts_open', count: 3, status: 422 });
    expect(await state()).toBe('waiting');
    jest.restoreAllMocks();
    expect([(await run()).status, await state()]).toEqual([200, 'done']);
  });

  test('is stopped before it has begun', async () => {
    await beginAndDie(11);
    await call('cancelImport', { params: { import: draft.id } });
    await supervise();
    expect((await run()).refusal.code).toBe('import_cancelled');
  });
});
