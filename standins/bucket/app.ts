import { Hono } from 'hono';

/** A simulated store of files with one bucket, as far as a client of the S3 protocol keeps, reads and removes whole files there. */
export interface BucketStandin {
  readonly app: Hono;
  /** What is kept, by key. */
  readonly kept: ReadonlyMap<string, Uint8Array>;
  /** While it is down every request fails, as behind a gateway. */
  down: boolean;
}

/** `accessKey`: whoever signs with another one is refused. Signatures themselves are not computed. */
export function makeBucket(bucket: string, accessKey: string): BucketStandin {
  const kept = new Map<string, Uint8Array>();
  const app = new Hono();
  const standin: BucketStandin = { app, kept, down: false };
  app.use(async (c, next) => {
    if (standin.down) return c.text('no answer', 503);
    if (!(c.req.header('authorization') ?? '').startsWith(`AWS4-HMAC-SHA256 Credential=${accessKey}/`)) return c.body(errorXml('AccessDenied'), 403, XML);
    if (c.req.path.split('/')[1] !== bucket) return c.body(errorXml('NoSuchBucket'), 404, XML);
    return next();
  });
  app.put('/:bucket/:key', async (c) => {
    kept.set(c.req.param('key'), new Uint8Array(await c.req.arrayBuffer()));
    return c.body(null, 200);
  });
  app.get('/:bucket/:key', (c) => {
    const bytes = kept.get(c.req.param('key'));
    return bytes === undefined ? c.body(errorXml('NoSuchKey'), 404, XML) : c.body(Uint8Array.from(bytes), 200, { 'content-type': 'application/octet-stream' });
  });
  app.delete('/:bucket/:key', (c) => {
    kept.delete(c.req.param('key'));
    return c.body(null, 204);
  });
  return standin;
}

const XML = { 'content-type': 'application/xml' };

function errorXml(code: string): string {
  return `<?xml version="1.0" encoding="UTF-8"?><Error><Code>${code}</Code><Message>${code}</Message></Error>`;
}
