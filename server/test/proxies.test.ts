import { expect, test } from '@jest/globals';
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import type { AddressInfo } from 'node:net';
import { remoteOf, isSecure } from '../src/http/routes.ts';
import { Proxies, isNet } from '../src/http/index.ts';

/** What a server that trusts these makes of a request from this machine. */
async function seenBy(nets: readonly string[], hostname = '127.0.0.1'): Promise<{ remote: string; secure: boolean }> {
  const proxies = new Proxies(nets);
  const app = new Hono().get('/', (c) => c.json({ remote: remoteOf(c, { proxies }), secure: isSecure(c, { proxies }) }));
  const server = serve({ fetch: app.fetch, hostname, port: 0 });
  await new Promise((resolve) => server.once('listening', resolve));
  const { port } = server.address() as AddressInfo;
  const answer = await fetch(`http://127.0.0.1:${port}/`, { headers: { 'x-forwarded-for': '9.9.9.9, 7.7.7.7', 'x-forwarded-proto': 'https' } });
  const seen = (await answer.json()) as { remote: string; secure: boolean };
  server.close();
  return seen;
}

test('only the proxies that are named are believed where a request comes from, by address and by net, also as IPv6 writes it', async () => {
  const believed = { remote: '7.7.7.7', secure: true };
  expect(await seenBy(['127.0.0.1'])).toEqual(believed);
  expect(await seenBy(['10.0.0.1', '127.0.0.0/8'])).toEqual(believed);
  expect(await seenBy(['127.0.0.1'], '::')).toEqual(believed);
  expect(await seenBy([])).toEqual({ remote: '127.0.0.1', secure: false });
  expect(await seenBy(['10.0.0.0/8', '::1'])).toEqual({ remote: '127.0.0.1', secure: false });
});

test('what is neither an address nor a net is refused when the server starts', () => {
  expect(['10.0.0.1', '10.0.0.0/33', 'proxy.example', '::1/64', '1.2.3', ''].map(isNet)).toEqual([true, false, false, true, false, false]);
  expect(() => new Proxies(['proxy.example'])).toThrow(RangeError);
});
