import type { Context } from 'hono';
import { getCookie } from 'hono/cookie';
import { inTransaction } from '../database/index.ts';
import { SESSION_COOKIE, hashToken } from '../people/index.ts';
import { Refused } from '../refused.ts';
import type { Parts } from './context.ts';
import { eventStream } from './events.ts';
import { admit } from './guard.ts';
import { callerOf } from './routes.ts';

/** Opens the event stream of a project for a member; it ends with the session, and with the membership. */
export async function openStream(c: Context, parts: Parts): Promise<Response> {
  if (parts.stopping.begun) throw new Refused({ code: 'server_stopping' });
  const project = c.req.param('project') ?? '';
  const token = getCookie(c, SESSION_COOKIE) ?? null;
  const person = await inTransaction(parts.db, async (work) => {
    const caller = await callerOf(work, parts, token);
    await admit(work, 'reader', caller, project);
    return caller;
  });
  if (token === null || person === null) throw new Refused({ code: 'not_signed_in' });
  const session = hashToken(token);
  const { streams } = parts.feed;
  streams.refuseTooMany(session, person.id);
  const mayListen = (): Promise<boolean> =>
    inTransaction(parts.db, async (work) => admit(work, 'reader', await callerOf(work, parts, token), project)).then(
      () => true,
      (error: unknown) => {
        if (error instanceof Refused) return false;
        throw error;
      },
    );
  let remove = (): void => undefined;
  const stream = eventStream(parts.feed, { project, mayListen, onEnd: () => remove() });
  remove = streams.add({ session, person: person.id, end: () => stream.end() });
  return new Response(stream.body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache', 'x-accel-buffering': 'no' } });
}
