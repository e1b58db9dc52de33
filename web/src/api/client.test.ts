/** @jest-environment ./web/test/browserEnvironment.mjs */
import { expect, test } from '@jest/globals';
import { RefusedCall, Unreachable, call, download } from './client.ts';
import { isPassing } from './failure.ts';

/** What is asked of the network, answered as given. */
function network(answer: () => Response | Promise<Response>): { readonly asked: { readonly address: string; readonly init: RequestInit }[] } {
  const asked: { address: string; init: RequestInit }[] = [];
  globalThis.fetch = async (address, init) => {
    asked.push({ address: String(address), init: init ?? {} });
    return answer();
  };
  return { asked };
}
const json = (data: unknown, status = 200) => new Response(JSON.stringify(data), { status, headers: { 'content-type': 'application/problem+json' } });

test('an operation has its address, method, heads and body from the contract; what is undefined is not asked', async () => {
  const { asked } = network(() => json({ at: '2026-01-01T00:00:00.000Z' }));
  await call('keepDraft', { params: { project: 'a b', id: 'C-1' }, body: { kind: 'case', content: {}, base: 1, sequence: 2 } as never }, { ifMatch: 3, commandId: 'x' });
  const { asked: read } = network(() => json({ since: null, edition: 1, revision: 1, rows: [], gone: [] }));
  await call('readCoverageRows', { params: { project: 'p' }, query: { since: undefined } });
  const headers = new Headers(asked[0]!.init.headers);
  expect([asked[0]!.address, asked[0]!.init.method, headers.get('if-match'), headers.get('command-id'), headers.get('content-type')]).toEqual(['/api/v1/projects/a%20b/artefacts/C-1/draft', 'PUT', '"3"', 'x', 'application/json']);
  expect([read[0]!.address, read[0]!.init.body]).toEqual(['/api/v1/projects/p/coverage/rows', null]);
});

test('a refusal is thrown with its facts, an unknown one as a fault, a network that is gone as unreachable; an answer off the contract never reaches a page', async () => {
  network(() => json({ code: 'version_moved', id: 'C-1', head: 4 }, 409));
  await expect(call('readSession')).rejects.toMatchObject({ refusal: { code: 'version_moved', head: 4 } });
  network(() => json({ nothing: 'of ours' }, 500));
  const fault = await call('readSession').catch((e: unknown) => e);
  expect(fault).toBeInstanceOf(RefusedCall);
  expect((fault as RefusedCall).refusal).toEqual({ code: 'fault', reference: 'unreadable answer' });
  network(() => new Response('<h1>No server is available</h1>', { status: 503, headers: { 'content-type': 'text/html' } }));
  const between = await call('readSession').catch((e: unknown) => e);
  expect([between instanceof Unreachable, isPassing(between)]).toEqual([true, true]);
  network(() => Promise.reject(new TypeError('Failed to fetch')));
  await expect(call('readSession')).rejects.toBeInstanceOf(Unreachable);
  network(() => Promise.reject(new DOMException('gone on', 'AbortError')));
  await expect(call('readSession')).rejects.toMatchObject({ name: 'AbortError' });
  network(() => json({ person: 'nobody' }));
  await expect(call('readSession')).rejects.toMatchObject({ name: 'ZodError' });
});

test('a file is saved under the name the server gives it', async () => {
  network(() => new Response('a,b', { headers: { 'content-disposition': "attachment; filename*=UTF-8''R%C3%A9quisitos.csv" } }));
  const saved: string[] = [];
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  HTMLAnchorElement.prototype.click = function () {
    saved.push(`${this.download} from ${this.href}`);
  };
  await download('exportBasis', { params: { project: 'p' }, query: { format: 'csv' } });
  expect(saved).toEqual(['Réquisitos.csv from blob:x']);
});
