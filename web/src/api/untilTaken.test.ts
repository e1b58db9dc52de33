import { expect, test } from '@jest/globals';
import { RefusedCall, Unreachable } from './client.ts';
import { untilTaken } from './untilTaken.ts';

/** Fails as told, then answers. */
function sender(failures: readonly Error[]): { send: () => Promise<string>; sent: () => number } {
  let sent = 0;
  return { sent: () => sent, send: () => (sent < failures.length ? Promise.reject(failures[sent++]!) : Promise.resolve(`after ${sent}`)) };
}

test('what fails for the moment is sent again until it is taken, and told once', async () => {
  const { send } = sender([new RefusedCall({ code: 'disk_full' }), new Unreachable('away'), new RefusedCall({ code: 'server_stopping' })]);
  const told: unknown[] = [];
  expect(await untilTaken(send, 1, (error) => told.push(error))).toBe('after 3');
  expect(told).toEqual([expect.objectContaining({ refusal: { code: 'disk_full' } })]);
});

test('what is refused for what it says is not sent again', async () => {
  const refused = new RefusedCall({ code: 'title_missing' });
  const { send, sent } = sender([refused, refused]);
  await expect(untilTaken(send, 1, () => undefined)).rejects.toBe(refused);
  expect(sent()).toBe(1);
});
