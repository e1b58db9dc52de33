import { API_ROOT, EVENTS_PATH, openApiDocument } from '@caderno/contract';
import { Hono } from 'hono';
import { compress } from 'hono/compress';
import { secureHeaders } from 'hono/secure-headers';
import { DomainError } from '../domainError.ts';
import type { Parts } from './context.ts';
import { openStream } from './openStream.ts';
import { LOOPBACK_NAMES, refuseUnknownHost } from './hosts.ts';
import { problemResponse, refusalOf } from './problem.ts';
import { isSecure, mountApi } from './routes.ts';
import { mountWeb } from './static.ts';
import { mountWatching, watchRequests } from './watching.ts';

/** A browser that came by https once is to come by nothing else for half a year. */
const HSTS = 'max-age=15552000';

/** Asked by whoever watches over the server, by whatever name it has. */
const WATCHED: ReadonlySet<string> = new Set(['/healthz', '/livez', '/metrics']);

/** A file that is opened by itself, whatever it is, loads and runs nothing. */
const NOTHING_RUNS = "default-src 'none'; sandbox";

/** The whole application on its parts; listens to nothing by itself. */
export function createApp(parts: Parts): Hono {
  const app = new Hono();
  app.onError((error) => problemResponse(refusalOf(error, parts.log)));
  app.notFound(() => problemResponse({ code: 'route_unknown' }));
  app.use(async (c, next) => {
    if (!WATCHED.has(c.req.path)) refuseUnknownHost(c, parts.hosts);
    await next();
    if (isSecure(c, parts)) c.header('strict-transport-security', HSTS);
    if (c.res.headers.has('content-disposition')) c.header('content-security-policy', NOTHING_RUNS);
  });
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // The solver of suites is WebAssembly, which is compiled in the browser; scripts from texts stay forbidden.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
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
  mountWatching(app, parts);
  app.get('/api/openapi.json', (c) => c.json(openApiDocument(parts.version)));

  const v1 = new Hono();
  v1.use(watchRequests(parts));
  v1.get(EVENTS_PATH, (c) => openStream(c, parts));
  v1.use(parts.stopping.count);
  // After the event stream, which must not be held back by compression.
  const compressed = compress();
  // Who asks from this machine has no line to spare, and packing a large table takes longer than sending it.
  v1.use((c, next) => (LOOPBACK_NAMES.has(new URL(c.req.url).hostname) ? next() : compressed(c, next)));
  mountApi(v1, parts);
  v1.onError((error) => problemResponse(refusalOf(error, parts.log)));
  app.route(API_ROOT, v1);
  app.all('/api/*', () => {
    throw new DomainError({ code: 'route_unknown' });
  });
  if (parts.webFolder !== null) mountWeb(app, parts.webFolder);
  return app;
}
