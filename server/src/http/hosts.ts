import type { Context } from 'hono';
import { DomainError } from '../domainError.ts';

/** The names under which a browser on the same machine reaches it. */
export const LOOPBACK_NAMES: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Refuses a request that names another host: a page elsewhere can have its own name lead to this machine, and would
 * then speak with this server as though it were its own.
 */
export function refuseUnknownHost(c: Context, names: ReadonlySet<string>): void {
  const host = c.req.header('host') ?? new URL(c.req.url).host;
  const name = host.replace(/:\d+$/, '').toLowerCase();
  if (!names.has(name)) throw new DomainError({ code: 'host_unknown', host: host.slice(0, 200) });
}
