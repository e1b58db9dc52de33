import { expect, test } from '@jest/globals';
import { runProgram } from '../../scripts/processes.mjs';

test('a program answers how it ended and what it printed, on either of its outputs', async () => {
  expect(await runProgram('sh', ['-c', 'echo one; echo two >&2; exit 3'])).toMatchObject({ code: 3, tooLong: false });
  expect((await runProgram('sh', ['-c', 'echo one; sleep 0.2; echo two >&2'])).output).toBe('one\ntwo\n');
  await expect(runProgram('no-such-program', [], { atMost: 60_000 })).rejects.toMatchObject({ code: 'ENOENT' });
});

test('what takes longer than it may is ended, and what it printed until then is kept', async () => {
  const began = Date.now();
  const { code, output, tooLong } = await runProgram('sh', ['-c', 'echo begun; exec sleep 300'], { atMost: 1_000 });
  expect([code, output, tooLong]).toEqual([1, 'begun\n', true]);
  expect(Date.now() - began).toBeLessThan(150_000);
});

test('a child that a program leaves behind does not hold up who waits for the program', async () => {
  const began = Date.now();
  const { code, output, tooLong } = await runProgram('sh', ['-c', 'sleep 300 & echo $!']);
  process.kill(Number(output), 'SIGKILL');
  expect([code, tooLong]).toEqual([0, false]);
  expect(Date.now() - began).toBeLessThan(150_000);
});
