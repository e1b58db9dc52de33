import type { Context } from 'hono';
import { getCookie } from 'hono/cookie';
import { inSnapshot, inTransaction } from '../database/index.ts';
import { readChangesSince } from '../log/index.ts';
import { SESSION_COOKIE, hashToken } from '../people/index.ts';
import { DomainError } from '../domainError.ts';
import type { Parts } from './context.ts';
import { eventStream } from './events.ts';
import { admit } from './guard.ts';
import { changesItem } from './projectNews.ts';
import { personBehind } from './held.ts';

/** Who may read a project may listen to it. */
const READING = { access: 'reader', method: 'GET' } as const;

/** Opens the event stream of a project for a member; it ends with the session, and with the membership. */
export async function openStream(c: Context, parts: Parts): Promise<Response> {
  if (parts.stopping.begun) throw new DomainError({ code: 'server_stopping' });
  const key = c.req.param('project') ?? '';
  const token = getCookie(c, SESSION_COOKIE) ?? null;
  const admitted = await inTransaction(parts.db, async (work) => {
    const person = await personBehind(work, token, parts.demoSignIn);
    return { person, membership: await admit(work, READING, person, key) };
  });
  const { person, membership } = admitted;
  if (token === null || person === null || membership === null) throw new DomainError({ code: 'not_signed_in' });
  const session = hashToken(token);
  const { streams } = parts.feed;
  streams.refuseTooMany(session, person.id);
  const mayListen = (): Promise<boolean> =>
    inTransaction(parts.db, async (work) => admit(work, READING, await personBehind(work, token, parts.demoSignIn), key)).then(
      () => true,
      (error: unknown) => {
        if (error instanceof DomainError) return false;
        throw error;
      },
    );
  const since = revisionOf(c);
  const missed = async () => (since === null ? null : changesItem(await inSnapshot(parts.db, (work) => readChangesSince(work, membership.projectId, since))));
  let remove = (): void => undefined;
  const stream = eventStream(parts.news, { project: { id: membership.projectId, key }, missed, mayListen, onEnd: () => remove() });
  remove = streams.add({ session, person: person.id, end: () => stream.end() });
  return new Response(stream.body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache', 'x-accel-buffering': 'no' } });
}

/** The revision that a page which comes back was told of last, as browsers say it. */
function revisionOf(c: Context): number | null {
  const last = /^\d{1,9}$/.exec(c.req.header('last-event-id') ?? '')?.[0];
  return last === undefined ? null : Number(last);
}
