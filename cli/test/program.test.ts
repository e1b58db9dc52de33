import { execFile } from 'node:child_process';
import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect, test } from '@jest/globals';

const execute = promisify(execFile);
const ROOT = join(import.meta.dirname, '..', '..');

/** Runs the built file by itself, far from any packages; answers its exit code and what it said. */
async function program(folder: string, args: readonly string[], env: Readonly<Record<string, string>> = {}): Promise<readonly [number, string, string]> {
  const ended = await execute(process.execPath, [join(folder, 'caderno.mjs'), ...args], { cwd: folder, env }).then(
    ({ stdout, stderr }) => ({ code: 0, stdout, stderr }),
    (error: { code: number; stdout: string; stderr: string }) => error,
  );
  return [ended.code, ended.stdout, ended.stderr];
}

test('the program is one file that needs nothing but Node; what it cannot do it says on standard error, with its exit code', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'caderno-program-'));
  await execute(process.execPath, [join(ROOT, 'scripts/build-cli.mjs')]);
  await copyFile(join(ROOT, 'cli/dist/caderno.mjs'), join(folder, 'caderno.mjs'));
  expect(await program(folder, ['--help'])).toEqual([0, expect.stringMatching(/^caderno features push FOLDER/), '']);
  expect(await program(folder, [])).toEqual([0, expect.stringContaining('Exit codes: 0 well'), '']);
  expect(await program(folder, ['features', 'check', '.'])).toEqual([2, '', expect.stringMatching(/^Say which server/)]);
  const env = { CADERNO_SERVER: 'http://127.0.0.1:9', CADERNO_PROJECT: 'p', CADERNO_TOKEN: 'caderno_x' };
  expect(await program(folder, ['features', 'push', '.'], env)).toEqual([2, '', 'No file below . ends in .feature. Nothing was done.\n']);
  expect(await program(folder, ['features', 'push', 'caderno.mjs'], env)).toEqual([2, '', 'caderno.mjs is a file: name the folder that the features stand in.\n']);
  await rm(folder, { recursive: true });
});
