import { serveStatic } from '@hono/node-server/serve-static';
import type { Hono } from 'hono';
import { DomainError } from '../domainError.ts';

const FOR_EVER = 'public, max-age=31536000, immutable';

/** Serves the built web application; every address that is neither API nor asset is the application's own. */
export function mountWeb(app: Hono, folder: string): void {
  app.use('/assets/*', async (c, next) => {
    await next();
    if (c.res.ok) c.header('cache-control', FOR_EVER);
  });
  app.use('*', serveStatic({ root: folder }));
  app.get('/assets/*', () => {
    throw new DomainError({ code: 'route_unknown' });
  });
  app.get('*', serveStatic({ root: folder, path: 'index.html' }));
}
