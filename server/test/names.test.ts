import { expect, test } from '@jest/globals';
import type { CaseContent } from '@caderno/core/cases';
import { ownFieldId, type OwnField } from '@caderno/core/fields';
import { z } from 'zod';
import { inTransaction, plainUrl, type UnitOfWork } from '../src/database/index.ts';
import { Jobs } from '../src/jobs/index.ts';
import { nameKind, sendName } from '../src/versions/index.ts';
import { PASSWORD, withAccounts } from './accounts.ts';
import { testCase, until } from './harness.ts';

const { the, member } = withAccounts();

test('one is called otherwise: what one owns and is the value of follows, an entry of the journal each, and nobody passes for another', async () => {
  const [ada, ivo, uma] = [await member('ada'), await member('ivo'), await member('uma')];
  const { settings, version } = (await the.root.call('readSettings')).data;
  const tester: OwnField = { id: ownFieldId('tester'), name: 'Tester', of: ['case'], type: 'person', choices: [], required: false, begins: null, help: '', removed: false };
  expect((await the.root.call('saveSettings', { body: { ...settings, fields: [tester, { ...tester, id: ownFieldId('note'), name: 'Note', type: 'text' }] } }, { 'if-match': `"${version}"` })).status).toBe(200);
  const make = async (owner: string, of: string) => (await ada.call('createArtefact', { body: testCase({ title: 'Own', owner, own: { tester: of, note: of } }) })).data.summary.id;
  const [own, others] = [await make('ada', 'ada'), await make('ivo', 'ada')];
  const peopleOf = async (id: typeof own): Promise<unknown[]> => {
    const content = (await ada.call('readArtefact', { params: { id } })).data.content as CaseContent;
    return [content.owner, content.own['tester'], content.own['note']];
  };
  expect((await ada.call('changeName', { body: { name: 'IVO' } })).refusal).toMatchObject({ code: 'name_taken', name: 'IVO' });
  expect(await peopleOf(own)).toEqual(['ada', 'ada', 'ada']);
  expect((await ada.call('changeName', { body: { name: '  Ada B. ' } })).data.person).toMatchObject({ name: 'Ada B.', id: ada.id });
  await until(async () => ((await peopleOf(others))[1] === 'Ada B.' ? true : null));
  // A text says what it said.
  expect([await peopleOf(own), await peopleOf(others)]).toEqual([['Ada B.', 'Ada B.', 'ada'], ['ivo', 'Ada B.', 'ada']]);
  expect((await ada.call('listChanges', { query: {} })).data.slice(0, 2)).toMatchObject([{ author: 'Ada B.', detail: 'ada is called Ada B. now, in Tester', size: 2 }, { author: 'Ada B.', detail: 'ada is called Ada B. now', size: 1 }]);
  expect((await ivo.call('listMembers')).data.map((m) => m.name)).toEqual(expect.arrayContaining(['Ada B.', 'ivo']));
  expect((await ada.call('changeName', { body: { name: ' ' } })).status).toBe(400);
  // Of two who were called so already nobody knows whose it is. Names are gone through in their turn: uma's comes after.
  await the.server.db.query("UPDATE person SET name = 'Ada B.' WHERE name = 'ivo'");
  expect((await ada.call('changeName', { body: { name: 'Ada C.' } })).status).toBe(200);
  const hers = await make('uma', '');
  expect((await uma.call('changeName', { body: { name: 'Uma D.' } })).status).toBe(200);
  await until(async () => ((await peopleOf(hers))[0] === 'Uma D.' ? true : null));
  expect((await peopleOf(own))[0]).toBe('Ada B.');
});

test('a name follows although the server that changed it is gone, and a name that is taken back follows nowhere', async () => {
  const eda = await member('eda');
  const { id } = (await eda.call('createArtefact', { body: testCase({ title: 'Hers', owner: 'eda' }) })).data.summary;
  const projectId = z.array(z.object({ id: z.string() })).parse((await the.server.db.query("SELECT id FROM project WHERE key = 'p'"))[0])[0]?.id ?? '';
  // It sends what it has nobody to do.
  const jobs = new Jobs(plainUrl(the.database.url), (error) => expect(error).toBeNull());
  jobs.define({ ...nameKind(the.server.db), atOnce: 0 });
  await eda.call('changeName', { body: { name: 'eda' } });
  const rename = (name: string) => (work: UnitOfWork) => sendName(work, jobs, { projectId, personId: eda.id, at: new Date(), before: 'eda', name });
  await expect(inTransaction(the.server.db, async (work) => {
    await rename('Nobody')(work);
    throw new Error('taken back');
  })).rejects.toThrow('taken back');
  await inTransaction(the.server.db, rename('Eda F.'));
  await jobs.close();
  const owner = async () => ((await eda.call('readArtefact', { params: { id } })).data.content as CaseContent).owner;
  await until(async () => ((await owner()) === 'eda' ? null : true));
  expect(await owner()).toBe('Eda F.');
});

test('nobody joins a project under the name of somebody in it', async () => {
  await member('kim');
  const again = (name: string, email: string) => the.root.call('addMember', { body: { name, email, password: PASSWORD, role: 'reader' } });
  expect((await again('KIM', 'kim2@p.example')).refusal).toMatchObject({ code: 'name_taken', name: 'KIM' });
  await the.root.call('createProject', { body: { key: 'q', name: 'Q' } });
  expect((await the.root.call('addMember', { params: { project: 'q' }, body: { name: 'kim', email: 'kim3@p.example', password: PASSWORD, role: 'reader' } })).status).toBe(200);
  expect((await the.root.call('joinMember', { body: { email: 'kim3@p.example', role: 'reader' } })).refusal.code).toBe('name_taken');
});
