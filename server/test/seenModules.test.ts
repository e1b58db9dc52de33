import { beforeEach, expect, test } from '@jest/globals';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_QUESTION } from '@caderno/core/basis';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { API_ROOT, api, momentOfKey, type AnyEndpoint, type Operation } from '@caderno/contract';
import fc from 'fast-check';
import { condition, eachInProject, pngOf, requirement, testCase, type Caller } from './harness.ts';

const the = eachInProject('seen');
let analyst: Caller;

const use = (shared: `S-${number}`) => ({ kind: 'shared' as const, id: stepId(`u${shared}`), shared, pinned: null, arguments: [] });
const steps = (title: string, ...uses: `S-${number}`[]) => ({ kind: 'shared', content: { ...EMPTY_SHARED, title, steps: [plainStep(stepId('x'), title), ...uses.map(use)] } });
const question = (title: string, ...about: `R-${number}`[]) => ({ kind: 'question', content: { ...EMPTY_QUESTION, title, about: about.map((id) => ({ kind: 'requirement', id, words: '', holds: false })) } });

/** What stands in Bills, or in no module, has the word secret in its texts. */
beforeEach(async () => {
  ({ analyst } = the);
  const make = async (body: unknown) => expect((await analyst('createArtefact', { body: body as never })).status).toBe(200);
  await make(requirement({ title: 'Readings', module: 'Meters', text: 'A reading grows' }));
  await make(requirement({ title: 'Secret bills', module: 'Bills' }));
  await make(condition(['R-1'], { title: 'A reading' }));
  await make(condition(['R-1', 'R-2'], { title: 'A reading on a bill' }));
  await make(condition(['R-2'], { title: 'Secret condition' }));
  await make(steps('Sign in'));
  await make(steps('Open the meter', 'S-1'));
  await make(steps('Secret steps'));
  await make(testCase({ title: 'Give it', module: 'Meters', covers: [{ ...newCover('K-1', 1), expects: [stepId('a')] }, newCover('K-3', 1)], steps: [use('S-2'), plainStep(stepId('a'), 'give it', 'it is taken')] }));
  await make(testCase({ title: 'Secret case', module: 'Bills', covers: [{ ...newCover('K-2', 1), expects: [stepId('b')] }], steps: [plainStep(stepId('b'), 'pay', 'it is paid')] }));
  await make(question('How often?', 'R-1'));
  await make(question('Secret question', 'R-1', 'R-2'));
  await make(question('Secret question about nothing'));
});

const as = (project: string, session = the.sessions.reader): Caller => (name, input = {}, headers = {}) => the.server.as(session)(name, { ...input, params: Object.assign({}, input.params, { project }) }, headers);
const limit = (sees: readonly string[] | null, person = the.people.reader) => the.administrator('changeSeenModules', { params: { person } as never, body: { sees: sees === null ? null : [...sees] } });
const open = async () => (await the.reader('openPart', { body: {} })).data;
const listed = async (call: Caller) => (await Promise.all((['requirement', 'condition', 'case', 'shared', 'question'] as const).map(async (kind) => (await call('listArtefacts', { query: { kind } as never })).data.map((h) => h.id)))).flat();
const save = async (id: string, change: object) => {
  const { summary, content } = (await analyst('readArtefact', { params: { id } as never })).data;
  return analyst('saveArtefact', { params: { id } as never, body: { kind: summary.kind, content: { ...content, ...change }, note: '' } as never }, { 'if-match': `"${summary.version}"` });
};
const below = (Object.entries(api) as [Operation, AnyEndpoint][]).filter(([, e]) => e.path.startsWith('/projects/:project'));

test('who sees only some modules reads what stands there and what that uses; nothing that can be asked tells of more', async () => {
  const settings = (await analyst('readSettings')).data;
  await analyst('saveSettings', { body: { ...settings.settings, modules: ['Secret payments', 'Meters'] } }, { 'if-match': `"${settings.version}"` });
  expect((await limit(['Meters'])).data).toMatchObject({ sees: ['Meters'] });
  const part = await open();
  expect(part).toMatchObject({ name: the.key, role: 'reader', sees: ['Meters'] });
  const reader = as(part.key);
  expect(await listed(reader)).toEqual(['R-1', 'K-1', 'K-2', 'C-1', 'S-1', 'S-2', 'Q-1']);
  expect((await reader('readSettings')).data.settings.modules).toEqual(['Meters']);
  // Two conditions, of which one is shown: what is hidden counts nowhere, and shows nothing.
  expect((await analyst('readCoverage')).data.counts).toMatchObject({ shown: 2, linked: 1, gap: 0 });
  expect((await reader('readCoverage')).data).toMatchObject({ counts: { shown: 1, gap: 1 }, cases: 1, byModule: [{ module: 'Meters' }] });
  const values: Record<string, string> = { project: part.key, version: '1', constant: 'c', requirement: 'R-1', baseline: '1', handOff: '1', revision: '1' };
  let told = 0;
  for (const [name, { method, path }] of below) {
    if (method !== 'GET') continue;
    for (const id of path.includes(':id') ? ['R-1', 'K-2', 'C-1', 'S-2', 'Q-1', 'R-2', 'C-2'] : ['']) {
      const address = path.replace(/:(\w+)/g, (_, at: string) => (at === 'id' ? id : (values[at] ?? 'x')));
      const answer = await the.server.fetch(`${API_ROOT}${address}?kind=case&words=e&format=csv&requirement=R-1`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } });
      expect([name, id, /.{0,40}secret.{0,40}/i.exec(await answer.text())?.[0] ?? null]).toEqual([name, id, null]);
      if (answer.status === 200) told += 1;
    }
  }
  expect(told).toBeGreaterThan(40);
});

test('files are seen with what they are attached to, and not with their address alone', async () => {
  const keep = async (name: string, width: number) => (await analyst('keepAttachment', { query: { name }, body: pngOf(width, 2) as never })).data;
  const [dial, bill] = [await keep('dial.png', 3), await keep('bill.png', 4)];
  await save('C-1', { attachments: [dial] });
  await save('C-2', { attachments: [bill] });
  await limit(['Meters']);
  const { key } = await open();
  const served = async (id: string) => (await the.server.fetch(`${API_ROOT}/projects/${key}/attachments/${id}`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } })).status;
  expect([await served(dial.id), await served(bill.id)]).toEqual([200, 422]);
});

test('with the key of the project, at another moment, by a token or by listening, they learn nothing', async () => {
  const number = (await analyst('takeBaseline', { body: { name: 'Then', note: '', of: { everything: true } } as never })).data.number;
  await the.reader('openMoment', { params: { moment: `B-${number}` } as never, body: {} });
  const token = (await the.server.as(the.sessions.reader)('makeToken', { body: { name: 'script', project: the.key, scope: 'read', days: 9 } as never })).data;
  await limit(['Meters']);
  const whole = [the.key, `${the.key}@B-${number}`, `${the.key}@1`];
  for (const [name, endpoint] of below.filter(([, e]) => e.ofPart !== true)) {
    for (const key of whole.slice(0, 2)) expect([name, key, (await as(key)(name, { params: { id: 'R-1', version: 1 } as never, body: endpoint.method === 'GET' ? undefined : ({} as never) })).status]).toEqual([name, key, 403]);
  }
  for (const moment of [`B-${number}`, '1', '1-agreed', `1-part-${'0'.repeat(16)}`]) expect([moment, (await the.reader('openMoment', { params: { moment } as never, body: {} })).refusal.code]).toEqual([moment, 'part_only']);
  const bearer = await the.server.fetch(`${API_ROOT}/projects/${the.key}/coverage/figures`, { headers: { authorization: `Bearer ${(token as { token: string }).token}` } });
  expect(bearer.status).toBe(403);
  expect((await the.server.as(the.sessions.reader)('makeToken', { body: { name: 'another', project: the.key, scope: 'read', days: 9 } as never })).refusal.code).toBe('part_only');
  for (const key of whole.slice(0, 2)) expect((await the.server.fetch(`${API_ROOT}/projects/${key}/events`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } })).status).toBe(403);
});

test('what is newer is opened anew; other modules are another part, and nobody keeps what was taken from them', async () => {
  await limit(['Meters']);
  const first = await open();
  await save('R-1', { text: 'A reading never shrinks' });
  const second = await open();
  expect([second.key === first.key, momentOfKey(second.key)?.moment.kind]).toEqual([false, 'part']);
  const text = async (key: string) => ((await as(key)('readArtefact', { params: { id: 'R-1' } as never })).data.content as { text: string }).text;
  expect([await text(first.key), await text(second.key), (await open()).key]).toEqual(['A reading grows', 'A reading never shrinks', second.key]);
  expect((await the.reader('openMoment', { params: { moment: second.key.split('@')[1] } as never, body: {} })).data.sees).toEqual(['Meters']);
  expect((await as(second.key)('keepDraft', { params: { id: 'R-1' } as never, body: {} as never })).refusal.code).toBe('moment_is_past');
  // What is done elsewhere makes nothing newer here; what is set for the project does.
  await save('C-2', { title: 'Secret case, reworded' });
  expect((await open()).key).toBe(second.key);
  const { settings, version } = (await analyst('readSettings')).data;
  await analyst('saveSettings', { body: { ...settings, depths: ['quick', 'thorough'] } }, { 'if-match': `"${version}"` });
  expect((await open()).key).not.toBe(second.key);
  // A case that is moved away is not in what is opened next.
  await save('C-1', { module: 'Bills' });
  expect(await listed(as((await open()).key))).toEqual(['R-1', 'K-1', 'K-2', 'Q-1']);
  await save('C-2', { module: 'Meters' });
  expect(await listed(as((await open()).key))).toEqual(['R-1', 'K-1', 'K-2', 'C-2', 'Q-1']);
  const last = (await open()).key;
  await limit(['Bills', 'Meters']);
  expect((await as(last)('readArtefact', { params: { id: 'R-1' } as never })).refusal.code).toBe('part_only');
  expect(await listed(as((await open()).key))).toContain('C-1');
  await limit(null);
  expect([(await the.reader('readArtefact', { params: { id: 'C-2' } as never })).status, (await the.reader('openPart', { body: {} })).refusal.code]).toEqual([200, 'moment_unknown']);
  await the.server.db.query(`DELETE FROM project WHERE key = '${second.key}'`);
  await limit(['Meters']);
  expect((await the.reader('openMoment', { params: { moment: second.key.split('@')[1] } as never, body: {} })).refusal.code).toBe('moment_unknown');
});

test('of a project in which nothing was done yet there is a part with nothing in it, which is opened again by its key', async () => {
  await the.server.as(the.sessions.administrator)('createProject', { body: { key: `${the.key}-new`, name: 'New' } });
  const empty = (session: string) => as(`${the.key}-new`, session);
  const email = (await analyst('listMembers')).data.find((m) => m.id === the.people.reader)!.email;
  await empty(the.sessions.administrator)('joinMember', { body: { email, role: 'reader' } });
  expect((await empty(the.sessions.administrator)('changeSeenModules', { params: { person: the.people.reader } as never, body: { sees: ['Meters'] } })).status).toBe(200);
  const { key } = (await empty(the.sessions.reader)('openPart', { body: {} })).data;
  expect([key.includes('@0-part-'), await listed(as(key))]).toEqual([true, []]);
  expect((await empty(the.sessions.reader)('openMoment', { params: { moment: key.split('@')[1] } as never, body: {} })).data.key).toBe(key);
});

test('only readers are kept to modules, by administrators; they are asked and told nothing', async () => {
  expect((await limit(['Meters'], the.people.analyst)).refusal).toMatchObject({ code: 'part_of_readers' });
  expect((await the.lead('changeSeenModules', { params: { person: the.people.reader } as never, body: { sees: null } })).status).toBe(403);
  for (const sees of [[], ['Meters', 'Meters'], ['']]) expect([sees, (await limit(sees)).status]).toEqual([sees, 400]);
  await limit(['Payments', 'Meters']);
  expect((await the.administrator('changeRole', { params: { person: the.people.reader } as never, body: { role: 'analyst' } })).refusal.code).toBe('part_of_readers');
  const members = (await analyst('listMembers')).data;
  const name = members.find((m) => m.id === the.people.reader)!.name;
  expect(members.filter((m) => m.sees !== null).map((m) => [m.id, m.sees])).toEqual([[the.people.reader, ['Meters', 'Payments']]]);
  expect((await the.administrator('listMemberEvents', { query: {} as never })).data[0]).toMatchObject({ action: 'seenModulesChanged', detail: 'Meters, Payments' });
  expect((await analyst('askReview', { body: { title: 'Look', note: '', due: null, people: [the.people.reader], ids: ['C-2'] } as never })).refusal.code).toBe('person_unknown');
  await analyst('beginThread', { params: { id: 'C-2' } as never, body: { remark: '00000000-0000-4000-8000-00000000abcd' as never, place: { path: '', words: null }, said: '', version: 1, text: `Look, @${name}` } });
  await save('C-2', { owner: name });
  expect((await the.server.db.query(`SELECT 1 FROM inbox_entry WHERE person_id = '${the.people.reader}'`))[0]).toHaveLength(0);
});

test('a review that waits for somebody who sees only a part by now waits for them no more', async () => {
  const { settings, version } = (await the.lead('readSettings')).data;
  await the.lead('saveSettings', { body: { ...settings, agreement: { ...settings.agreement, needed: 'all' } } }, { 'if-match': `"${version}"` });
  await analyst('askReview', { body: { title: 'Look', note: '', due: null, people: [the.people.reader, the.people.lead], ids: ['C-2'] } as never });
  await the.lead('answerReview', { params: { review: 1 } as never, body: { of: [{ id: 'C-2', version: 1 }], agrees: true, note: '' } });
  const state = async () => (await analyst('readArtefact', { params: { id: 'C-2' } as never })).data.summary.state;
  expect(await state()).toBe('inReview');
  await limit(['Meters']);
  expect(await state()).toBe('agreed');
});

/** What somebody sees of what there is, worked out one by one. */
function seenSlowly(modules: readonly string[], of: { readonly module: ReadonlyMap<string, string>; readonly requirements: ReadonlyMap<string, readonly string[]>; readonly uses: ReadonlyMap<string, readonly string[]>; readonly about: ReadonlyMap<string, readonly string[]> }): Set<string> {
  const isIn = (id: string): boolean => modules.includes(of.module.get(id) ?? '') || (of.requirements.get(id) ?? []).some(isIn);
  const seen = new Set([...of.module.keys(), ...of.requirements.keys()].filter(isIn));
  for (const [id, about] of of.about) if (about.length > 0 && about.every((a) => seen.has(a))) seen.add(id);
  for (const id of seen) for (const used of of.uses.get(id) ?? []) seen.add(used);
  return seen;
}

test('whatever stands wherever, exactly that is seen which one who reads it all would find', async () => {
  const module = fc.constantFrom('', 'Meters', 'Bills', 'Payments');
  const some = <T extends string>(...of: T[]) => fc.subarray(of);
  const project = fc.record({ R1: module, R2: module, C1: module, C2: module, K1: some('R-1', 'R-2'), K2: some('R-1', 'R-2'), Q1: some('R-1', 'R-2'), C1uses: some('S-1', 'S-2', 'S-3'), S2uses: some('S-1', 'S-3'), sees: fc.subarray(['Meters', 'Bills', 'Payments'], { minLength: 1 }), touched: fc.constantFrom('R-1', 'R-2', 'C-1', 'C-2', 'K-1', 'S-1', 'S-3', 'Q-1', 'Q-3') });
  let turn = 0;
  await fc.assert(
    fc.asyncProperty(project, async ({ R1, R2, C1, C2, K1, K2, Q1, C1uses, S2uses, sees, touched }) => {
      const requirements = (ids: readonly string[]) => ids.map((id) => ({ id, seenVersion: 1, anchor: null }));
      const step = (uses: readonly `S-${number}`[]) => [plainStep(stepId('a'), 'do'), ...uses.map(use)];
      for (const [id, change] of [['R-1', { module: R1 }], ['R-2', { module: R2 }], ['C-1', { module: C1, steps: step(C1uses), covers: [] }], ['C-2', { module: C2 }], ['K-1', { requirements: requirements(K1) }], ['K-2', { requirements: requirements(K2) }], ['Q-1', { about: question('', ...Q1).content.about }], ['S-2', { steps: step(S2uses) }]] as const) {
        expect([200, 204]).toContain((await save(id, change)).status);
      }
      await limit(sees);
      const expected = seenSlowly(sees, {
        module: new Map([['R-1', R1], ['R-2', R2], ['C-1', C1], ['C-2', C2], ['S-1', ''], ['S-2', ''], ['S-3', '']]),
        requirements: new Map([['K-1', K1], ['K-2', K2], ['K-3', ['R-2']]]),
        uses: new Map([['C-1', C1uses], ['S-2', S2uses]]),
        about: new Map([['Q-1', Q1], ['Q-2', ['R-1', 'R-2']], ['Q-3', []]]),
      });
      const { key } = await open();
      expect(new Set(await listed(as(key)))).toEqual(expected);
      // Opened again or changed elsewhere, it is as it would be if it were made now.
      await save(touched, { title: `Touched ${(turn += 1)}` });
      const part = as((await open()).key);
      for (const id of expected) expect([id, (await part('readArtefact', { params: { id } as never })).data.content]).toEqual([id, (await analyst('readArtefact', { params: { id } as never })).data.content]);
      expect(new Set(await listed(part))).toEqual(expected);
    }),
    { numRuns: 12 },
  );
});
