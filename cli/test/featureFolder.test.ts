import { mkdir, mkdtemp, readFile, readdir, rm, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { isSame, readFeatureFolder, writeFeatures } from '../src/featureFolder.ts';

let folder = '';
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'caderno-folder-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

test.each(['../out.feature', 'a/../../out.feature', '/etc/x.feature', 'a//b.feature', 'a\\b.feature', ''])('a server that names the file %j writes nothing, neither that one nor the others', async (path) => {
  const inner = join(folder, 'inner');
  await expect(writeFeatures(inner, new Map([['good.feature', bytes('x')], [path, bytes('y')]]))).rejects.toThrow(/outside the folder/);
  expect(await readdir(folder)).toEqual([]);
});

test('files are written into folders that are made for them, over what stands there, and read back in order', async () => {
  await writeFeatures(folder, new Map([['b/deep/two.feature', bytes('2')], ['a.FEATURE', bytes('1')]]));
  await writeFeatures(folder, new Map([['b/deep/two.feature', bytes('22')]]));
  expect(await readFile(join(folder, 'b/deep/two.feature'), 'utf8')).toBe('22');
  const read = await readFeatureFolder(folder);
  expect([...read].map(([path, content]) => [path, new TextDecoder().decode(content)])).toEqual([['a.FEATURE', '1'], ['b/deep/two.feature', '22']]);
});

test('what hides, what packages bring, and what leads elsewhere is not read', async () => {
  await mkdir(join(folder, '.cache'));
  await mkdir(join(folder, 'node_modules'));
  for (const path of ['.cache/a.feature', 'node_modules/b.feature', '.hidden.feature', 'c.feature.bak', 'd.feature']) await writeFile(join(folder, path), 'x');
  await symlink(folder, join(folder, 'round'));
  await symlink(join(folder, 'd.feature'), join(folder, 'e.feature'));
  expect([...(await readFeatureFolder(folder)).keys()]).toEqual(['d.feature']);
});

test('bytes are the same or not, and what is not there is the same as nothing', () => {
  expect([isSame(bytes('a'), bytes('a')), isSame(bytes('a'), bytes('a\n')), isSame(undefined, bytes('')), isSame(undefined, undefined)]).toEqual([true, false, false, false]);
});
