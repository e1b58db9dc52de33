import { expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { newCover, plainStep, stepId } from '@caderno/core/cases';
import { MANIFEST, SETTINGS_FILE, blockText, readBlockText } from '@caderno/core/designFolder';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { DEFAULT_SETTINGS, type FolderArtefact, type Refusal } from '@caderno/contract';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { condition, eachInProject, pngOf, requirement, testCase, type Caller } from './harness.ts';

const the = eachInProject('folder');
type Folder = Record<string, Uint8Array>;

const create = async (body: object, call: Caller = the.analyst) => (await call('createArtefact', { body: body as never })).data.summary.id;
const save = async (id: string, change: object, call: Caller = the.analyst) => {
  const { summary, content } = (await call('readArtefact', { params: { id } as never })).data;
  return call('saveArtefact', { params: { id } as never, body: { kind: summary.kind, content: { ...content, ...change }, note: '' } as never }, { 'if-match': `"${summary.version}"` });
};
const inProject = (key: string, session = the.sessions.administrator): Caller => (name, input = {}, headers = {}) => the.server.as(session)(name, { ...input, params: Object.assign({}, input.params, { project: key }) }, headers);
const take = async (call: Caller = the.analyst, of: object = { everything: true }) => (await call('takeBaseline', { body: { name: 'Then', note: 'a\nb', of } as never })).data;

async function zipOf(key: string, number: number, session = the.sessions.reader): Promise<Uint8Array> {
  const response = await the.server.fetch(`/api/v1/projects/${key}/baselines/${number}/folder`, { headers: { cookie: `caderno_session=${session}` } });
  if (response.status !== 200) throw new Error(await response.text());
  return new Uint8Array(await response.arrayBuffer());
}

let turn = 0;
async function make(zip: Uint8Array, changed: 'yes' | 'no' = 'no', session = the.sessions.administrator): Promise<{ readonly key: string; readonly status: number; readonly refusal: Refusal }> {
  const key = `made-${(turn += 1)}`;
  const response = await the.server.fetch(`/api/v1/projects/from-folder?key=${key}&name=Made&changed=${changed}`, { method: 'POST', headers: { cookie: `caderno_session=${session}`, 'content-type': 'application/octet-stream' }, body: Buffer.from(zip) });
  return { key, status: response.status, refusal: (await response.json()) as Refusal };
}

const open = (zip: Uint8Array): Folder => unzipSync(zip);
const at = (folder: Folder, path: string) => readBlockText(strFromU8(folder[path]!)) as never as FolderArtefact;
/** Files as somebody would write them who changed the manifest with them. */
function rewritten(folder: Folder, change: Record<string, (value: never) => object>): Uint8Array {
  const files = { ...folder };
  for (const [path, edit] of Object.entries(change)) files[path] = strToU8(blockText(edit(readBlockText(strFromU8(files[path]!)) as never)));
  const manifest = readBlockText(strFromU8(files[MANIFEST]!)) as { files: Record<string, string> };
  const hashes = Object.fromEntries(Object.entries(files).filter(([path]) => path !== MANIFEST).map(([path, bytes]) => [path, createHash('sha256').update(bytes).digest('hex')]));
  return zipSync({ ...files, [MANIFEST]: strToU8(blockText({ ...manifest, files: hashes })) });
}

/** A project with all kinds, older versions that are pinned and seen, states, an outline and a file. */
async function design(): Promise<void> {
  await the.lead('saveSettings', { body: { ...DEFAULT_SETTINGS, modules: ['Meters', 'meters'], constants: [{ id: 'k', name: 'door', value: 'open sesame', secret: true, description: '', others: {} }] } }, { 'if-match': '"1"' });
  const file = (await the.server.as(the.sessions.analyst)('keepAttachment', { params: { project: the.key } as never, query: { name: 'dial.png' }, body: pngOf(4, 4) as never })).data;
  await create(requirement({ title: 'Readings', module: 'Meters', text: 'One\n\n  two\r\nthree: "x"\n', rating: { likelihood: 1, impact: 2 } }));
  await create({ ...requirement({ title: 'By telephone', module: 'meters' }), parent: 'R-1' });
  await create(condition(['R-1'], { title: 'A reading' }));
  await create({ kind: 'shared', content: { ...EMPTY_SHARED, title: 'Open', steps: [plainStep(stepId('x'), 'open')] } });
  const use = { kind: 'shared' as const, id: stepId('u'), shared: 'S-1' as const, pinned: 1, arguments: [] };
  await create(testCase({ title: 'Give it', module: 'Meters', covers: [{ ...newCover('K-1', 1), expects: [stepId('a')] }], steps: [use, { ...plainStep(stepId('a'), 'give <it>', 'yes'), attachments: [file] } as never] }));
  await create({ kind: 'question', content: { title: 'Q?', text: '', asked: '', attachments: [], about: [], status: 'open', answer: '', answeredBy: '', answeredAt: '', settledIn: [], observations: [], own: {} } });
  await create(requirement({ title: 'Gone' }));
  await save('S-1', { steps: [plainStep(stepId('x'), 'open wide')] });
  await save('K-1', { title: 'A reading is taken' });
  await the.analyst('setState', { params: { id: 'C-1' } as never, body: { state: 'agreed' } });
  await the.analyst('setState', { params: { id: 'R-3' } as never, body: { state: 'withdrawn' } });
}

test('one readable file an artefact, a folder a module, earlier versions that are named, files and a manifest; the same bytes each time', async () => {
  await design();
  const { number } = await take();
  const zip = await zipOf(the.key, number);
  const folder = open(zip);
  expect(Object.keys(folder).filter((path) => !path.startsWith('files/')).sort()).toEqual([
    MANIFEST, 'coverage.yaml', 'meters-2/R-2.yaml', 'meters/C-1.yaml', 'meters/K-1.v1.yaml', 'meters/K-1.yaml', 'meters/R-1.yaml', 'no-module/Q-1.yaml', 'no-module/R-3.yaml', 'no-module/S-1.v1.yaml', 'no-module/S-1.yaml', SETTINGS_FILE,
  ]);
  expect(strFromU8(folder['meters/C-1.yaml']!)).toMatch(/^id: C-1\nkind: case\nstate: agreed\nversion: 1\nmeaningSince: 1\nagreed: 1\nunder: null\nposition: 0\nschema: \d+\ncontent:\n {2}title: Give it\n/);
  expect(at(folder, 'meters-2/R-2.yaml')).toMatchObject({ under: 'R-1', state: 'draft' });
  expect(strFromU8(folder[SETTINGS_FILE]!)).not.toContain('sesame');
  await save('C-1', { title: 'Changed since' });
  expect(Buffer.from(await zipOf(the.key, number)).equals(Buffer.from(zip))).toBe(true);
  expect((await the.server.fetch(`/api/v1/projects/${the.key}/baselines/9/folder`, { headers: { cookie: `caderno_session=${the.sessions.reader}` } })).status).toBe(404);
});

test('made into a project, it has the same ids, versions, states, outline, links and coverage; its own zip has the same files', async () => {
  await design();
  const { number, coverage } = await take();
  const zip = await zipOf(the.key, number);
  const made = await make(zip);
  expect([made.status, made.refusal]).toEqual([200, { key: made.key, name: 'Made', role: 'administrator', sees: null }]);
  const call = inProject(made.key);
  const again = await take(call);
  expect(again.coverage).toEqual(coverage);
  const [before, after] = [open(zip), open(await zipOf(made.key, again.number, the.sessions.administrator))];
  const others = (folder: Folder) => Object.fromEntries(Object.entries(folder).flatMap(([path, bytes]) => (path === MANIFEST || path === SETTINGS_FILE ? [] : [[path, Buffer.from(bytes).toString('base64')]])));
  expect(others(after)).toEqual(others(before));
  const { suspect, graph } = { suspect: (await call('listSuspectLinks')).data, graph: (await call('readReuseGraph')).data };
  expect({ suspect, graph }).toEqual({ suspect: (await the.analyst('listSuspectLinks')).data, graph: (await the.analyst('readReuseGraph')).data });
  expect((await call('find', { query: { words: 'give' } })).data.map((f) => f.id)).toEqual(['C-1']);
  expect((await call('readSettings')).data.settings.constants[0]).toMatchObject({ name: 'door', secret: true, value: '' });
  expect(await create(requirement({ title: 'Next' }), call)).toBe('R-4');
  expect((await call('listChanges', { query: {} })).data.at(-1)).toMatchObject({ action: 'import', detail: `${the.key} B-1 Then` });
});

test('whatever is designed, zip in and out is nothing: the seal is the same', async () => {
  const text = fc.oneof(fc.constantFrom('007', 'yes', ' a ', 'a: b', '# x', '- y', 'é\n\n b\n', '"', 'null'), fc.string({ unit: 'grapheme', maxLength: 12 }).filter((s) => !s.includes('\0') && s.isWellFormed()));
  await create(requirement({ title: 'R' }));
  await create(condition(['R-1']));
  await create(testCase({ title: 'C', covers: [newCover('K-1', 1)] }));
  await fc.assert(
    fc.asyncProperty(fc.array(fc.record({ id: fc.constantFrom('R-1', 'C-1'), text, module: fc.constantFrom('', 'A b', 'a-B', 'Ä')}), { minLength: 1, maxLength: 4 }), async (edits) => {
      for (const { id, text: t, module } of edits) await save(id, id === 'R-1' ? { text: t, module } : { objective: t, module, steps: [plainStep(stepId('a'), t, `${t}\n`)] });
      const { number, seal } = await take();
      const zip = await zipOf(the.key, number);
      const { key, status } = await make(zip);
      expect(status).toBe(200);
      expect((await take(inProject(key))).seal).toBe(seal);
    }),
    { numRuns: 12 },
  );
}, 120_000);

test('what was tampered with, cut, newer or no folder is refused whole; what a hand changed is told, and taken when one says so', async () => {
  await design();
  const { number } = await take();
  const zip = await zipOf(the.key, number);
  const folder = open(zip);
  const refused = async (bytes: Uint8Array, changed: 'yes' | 'no' = 'no') => {
    const { key, status, refusal } = await make(bytes, changed);
    if (status === 200) return key;
    expect((await inProject(key)('readProject')).status).toBe(404);
    return refusal.code === 'folder_unreadable' ? `${refusal.at} ${refusal.reason}`.trim() : refusal;
  };
  expect(await refused(strToU8('no zip'))).toBe('it is no zip');
  expect(await refused(zip.slice(0, zip.length - 40))).toMatch(/cannot be unpacked/);
  expect(await refused(zipSync({ 'a.txt': strToU8('x') }))).toBe('it has no caderno.yaml');
  expect(await refused(zipSync({ ...folder, '../out.yaml': strToU8('x') }))).toMatch(/archive_path/);
  const edited = { ...folder, 'meters/C-1.yaml': strToU8(strFromU8(folder['meters/C-1.yaml']!).replace('title: Give it', 'title: Given')), 'meters/C-7.yaml': strToU8('x') };
  delete (edited as Folder)['no-module/Q-1.yaml'];
  expect(await refused(zipSync(edited))).toMatchObject({ code: 'folder_changed', changed: 1, missing: 1, unknown: 1, first: ['meters/C-1.yaml', 'no-module/Q-1.yaml', 'meters/C-7.yaml'] });
  expect(await refused(zipSync(edited), 'yes')).toMatch(/^meters\/C-7.yaml cannot be read/);
  delete (edited as Folder)['meters/C-7.yaml'];
  const key = await refused(zipSync({ ...Object.fromEntries(Object.entries(edited).map(([path, bytes]) => [`repo-main/${path}`, bytes])), 'repo-main/README.md': strToU8('hello') }), 'yes');
  expect((await inProject(String(key))('readArtefact', { params: { id: 'C-1' } as never })).data.content.title).toBe('Given');

  const tampered = (path: string, edit: (a: FolderArtefact) => object) => refused(rewritten(folder, { [path]: edit as never }));
  expect(await refused(rewritten({ ...folder, [MANIFEST]: strToU8(strFromU8(folder[MANIFEST]!).replace('version: 1', 'version: 2')) }, {}))).toMatchObject({ code: 'folder_newer', version: 2 });
  expect(await tampered('meters/C-1.yaml', (a) => ({ ...a, schema: 99 }))).toMatchObject({ code: 'folder_newer', version: 99 });
  expect(await tampered('meters/C-1.yaml', (a) => ({ ...a, content: { title: 5 } }))).toBe('C-1 has a content that cannot be read');
  expect(await tampered('meters/C-1.yaml', (a) => ({ ...a, id: 'C-9' }))).toMatch(/says that it is C-9/);
  expect(await tampered('meters/C-1.yaml', (a) => ({ ...a, agreed: 4 }))).toMatch(/names a version after its own/);
  expect(await tampered('meters/R-1.yaml', (a) => ({ ...a, under: 'R-2' }))).toMatch(/stands below itself/);
  expect(await tampered('meters-2/R-2.yaml', (a) => ({ ...a, under: 'R-77' }))).toMatch(/stands below R-77, which is not there/);
  expect(await tampered('no-module/S-1.v1.yaml', (a) => ({ ...a, version: 2 }))).toMatch(/is no earlier version/);
  const uses = { kind: 'shared', id: 'u', shared: 'S-1', pinned: null, arguments: [] };
  expect(await tampered('no-module/S-1.yaml', (a) => ({ ...a, content: { ...(a.content as object), steps: [uses] } }))).toMatchObject({ code: 'use_circle' });
  const [attached = ''] = Object.keys(folder).filter((path) => path.startsWith('files/'));
  expect(await refused(rewritten({ ...folder, [attached]: pngOf(9, 9) }, {}))).toMatch(/has other bytes than it is named by/);
  expect((await make(zip, 'no', the.sessions.reader)).refusal.code).toBe('role_too_low');
});

test('of a part, with what it uses; two who make the same key at once make one', async () => {
  await design();
  const { number } = await take(the.analyst, { ids: ['C-1'] });
  const zip = await zipOf(the.key, number);
  const { key, status } = await make(zip);
  expect(status).toBe(200);
  expect((await inProject(key)('listArtefacts', { query: { kind: 'case' } as never })).data.map((c) => c.id)).toEqual(['C-1']);
  const both = await Promise.all([0, 1].map(() => the.server.fetch('/api/v1/projects/from-folder?key=twice&name=Twice', { method: 'POST', headers: { cookie: `caderno_session=${the.sessions.administrator}`, 'content-type': 'application/octet-stream' }, body: Buffer.from(zip) })));
  expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
});
