import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { randomFillSync } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { ZipFile } from '../src/files/index.ts';

let folder = '';
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'caderno-zip-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

/** Large ones between small ones, and empty ones. */
const FILES = Array.from({ length: 120 }, (_, i) => ({ path: `é ${i}/file.yaml`, bytes: i % 40 === 0 ? randomFillSync(new Uint8Array(3_000_000)) : new TextEncoder().encode('step\n'.repeat(i % 7)) }));

async function zipped(name: string): Promise<Uint8Array> {
  const zip = new ZipFile(join(folder, name));
  for (const { path, bytes } of FILES) await zip.add(path, bytes);
  await zip.end();
  return readFile(join(folder, name));
}

test('files are read back whole and in their order; the same files are the same bytes', async () => {
  const written = await zipped('one.zip');
  const read = Object.entries(unzipSync(written));
  expect(read.map(([path]) => path)).toEqual(FILES.map(({ path }) => path));
  expect(read.every(([, bytes], i) => Buffer.compare(bytes, FILES[i]?.bytes ?? new Uint8Array(1)) === 0)).toBe(true);
  expect(Buffer.compare(written, await zipped('two.zip'))).toBe(0);
});

test('where it cannot be written that is told, and nothing is written over', async () => {
  await writeFile(join(folder, 'there.zip'), 'mine');
  await expect(zipped('there.zip')).rejects.toMatchObject({ code: 'EEXIST' });
  await expect(new ZipFile(join(folder, 'there.zip')).end()).rejects.toMatchObject({ code: 'EEXIST' });
  expect(await readFile(join(folder, 'there.zip'), 'utf8')).toBe('mine');
});

test('what is let go of midway is no zip that anybody could take for whole', async () => {
  const zip = new ZipFile(join(folder, 'left.zip'));
  for (const { path, bytes } of FILES.slice(0, 20)) await zip.add(path, bytes);
  zip.abandon();
  await new Promise((later) => setTimeout(later, 50));
  const left = await readFile(join(folder, 'left.zip'));
  expect(() => unzipSync(left)).toThrow('invalid zip data');
});
