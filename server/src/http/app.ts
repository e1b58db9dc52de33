import { API_ROOT, EVENTS_PATH, openApiDocument } from '@caderno/contract';
import { Hono } from 'hono';
import { compress } from 'hono/compress';
import { getCookie } from 'hono/cookie';
import { secureHeaders } from 'hono/secure-headers';
import { inTransaction } from '../database/index.ts';
import { SESSION_COOKIE } from '../people/index.ts';
import { Refused } from '../refused.ts';
import type { Parts } from './context.ts';
import { eventStream } from './events.ts';
import { admit } from './guard.ts';
import { isDatabaseGone, problemResponse, refusalOf } from './problem.ts';
import { callerOf, mountApi } from './routes.ts';
import { mountWeb } from './static.ts';

const VERSION = '0.1.0';

const LOOPBACK_NAMES: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** The whole application on its parts; listens to nothing by itself. */
export function createApp(parts: Parts): Hono {
  const app = new Hono();
  app.onError((error) => problemResponse(refusalOf(error, parts.log)));
  app.notFound(() => problemResponse({ code: 'route_unknown' }));
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // CodeMirror and drag and drop write style attributes.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'"],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
      referrerPolicy: 'same-origin',
      strictTransportSecurity: false,
    }),
  );
  app.get('/healthz', (c) => health(parts).then((ok) => c.json({ ok }, ok ? 200 : 503)));
  app.get('/api/openapi.json', (c) => c.json(openApiDocument(VERSION)));

  const v1 = new Hono();
  v1.get(EVENTS_PATH, async (c) => {
    const project = c.req.param('project');
    await inTransaction(parts.db, async (work) => admit(work, 'reader', await callerOf(work, getCookie(c, SESSION_COOKIE) ?? null), project));
    return eventStream(c, parts.feed, project);
  });
  // After the event stream, which must not be held back by compression.
  const compressed = compress();
  // Who asks from this machine has no line to spare, and packing a large table takes longer than sending it.
  v1.use((c, next) => (LOOPBACK_NAMES.has(new URL(c.req.url).hostname) ? next() : compressed(c, next)));
  mountApi(v1, parts);
  v1.onError((error) => problemResponse(refusalOf(error, parts.log)));
  app.route(API_ROOT, v1);
  app.all('/api/*', () => {
    throw new Refused({ code: 'route_unknown' });
  });
  if (parts.webFolder !== null) mountWeb(app, parts.webFolder);
  return app;
}

async function health(parts: Parts): Promise<boolean> {
  try {
    await parts.db.query('SELECT 1');
    return true;
  } catch (error) {
    if (!isDatabaseGone(error)) throw error;
    return false;
  }
}
