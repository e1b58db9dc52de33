import { randomUUID, timingSafeEqual } from 'node:crypto';
import type { Context, Hono, MiddlewareHandler } from 'hono';
import { matchedRoutes } from 'hono/route';
import { DomainError } from '../domainError.ts';
import type { Parts } from './context.ts';
import { isDatabaseGone } from './problem.ts';
import { remoteOf } from './routes.ts';

const LOOPBACK = /^(127\.|::1$|::ffff:127\.|local$)/;
/** What a proxy in front may call a request; anything else gets a name of ours. */
const REQUEST_ID = /^[\w.-]{8,80}$/;

/** Counts every request, writes a line of it, and gives it an id that its answer carries. */
export function watchRequests({ metrics, log, proxies }: Parts): MiddlewareHandler {
  return async (c, next) => {
    const passedOn = proxies.passedOn(c) ? (c.req.header('x-request-id') ?? '') : '';
    const id = REQUEST_ID.test(passedOn) ? passedOn : randomUUID();
    const began = performance.now();
    await next();
    const ms = Math.round(performance.now() - began);
    // Of all that match, the operation: what is for many addresses has a star. Addresses of no operation are one.
    const route = `${c.req.method} ${matchedRoutes(c).find((r) => !r.path.includes('*'))?.path ?? 'elsewhere'}`;
    c.header('x-request-id', id);
    metrics.request(route, c.res.status, ms);
    log.info({ id, route, status: c.res.status, ms }, 'request');
  };
}

/** Whether the process lives; whether it can serve; and what it counts, for those who watch over it. */
export function mountWatching(app: Hono, parts: Parts): void {
  app.get('/livez', (c) => c.json({ ok: true }));
  app.get('/healthz', async (c) => {
    const ok = !parts.stopping.begun && parts.feed.hears && (await databaseAnswers(parts));
    return c.json({ ok }, ok ? 200 : 503);
  });
  app.get('/metrics', async (c) => {
    refuseStrangers(c, parts);
    return c.text(await parts.metrics.text());
  });
}

/** Only this machine may read the counts, and whoever has the word that was set for it. */
function refuseStrangers(c: Context, parts: Parts): void {
  const given = Buffer.from(c.req.header('authorization') ?? '');
  const wanted = Buffer.from(`Bearer ${parts.metricsToken ?? ''}`);
  if (parts.metricsToken !== null && given.length === wanted.length && timingSafeEqual(given, wanted)) return;
  if (!LOOPBACK.test(remoteOf(c, parts)) || c.req.header('x-forwarded-for') !== undefined) throw new DomainError({ code: 'route_unknown' });
}

async function databaseAnswers(parts: Parts): Promise<boolean> {
  try {
    await parts.db.query('SELECT 1');
    return true;
  } catch (error) {
    if (!isDatabaseGone(error)) throw error;
    return false;
  }
}
