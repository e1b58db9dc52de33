import { randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Context } from 'hono';
import pLimit from 'p-limit';
import { DomainError } from '../domainError.ts';

/** A body this large is read only when no other of its kind is: its text takes several times its bytes. */
const LARGE = 4 * 1024 * 1024;
const largeOnes = pLimit(1);

/** Whoever sends slower than this is not waited for. */
const PATIENCE_MS = 120_000;

/** How many bytes a request says it has; infinite when it does not say. */
export function announcedLength(c: Context): number {
  const said = c.req.header('content-length');
  if (said !== undefined) return Number(said);
  return c.req.header('transfer-encoding') === undefined && c.req.raw.body === null ? 0 : Number.POSITIVE_INFINITY;
}

/** @throws {DomainError} when a request says that it has more than it may. */
export function refuseAnnounced(c: Context, limit: number, tooLarge: () => DomainError): void {
  const said = c.req.header('content-length');
  if (said !== undefined && !(Number(said) <= limit)) throw tooLarge();
}

/** The whole body as text, counted and decoded while it is read. @throws {DomainError} as soon as it has more bytes than it may, or is no UTF-8. */
export function readBody(c: Context, limit: number, tooLarge: () => DomainError): Promise<string> {
  const read = async (): Promise<string> => {
    const decoder = new TextDecoder('utf-8', { fatal: true });
    let text = '';
    for await (const chunk of counted(c, limit, tooLarge)) text += decoded(decoder, chunk);
    return text + decoded(decoder, null);
  };
  return Math.min(announcedLength(c), limit) > LARGE ? largeOnes(read) : read();
}

function decoded(decoder: InstanceType<typeof TextDecoder>, chunk: Uint8Array | null): string {
  try {
    return chunk === null ? decoder.decode() : decoder.decode(chunk, { stream: true });
  } catch (cause) {
    throw new DomainError({ code: 'body_unreadable' }, { cause });
  }
}

/** A body written to disk piece by piece, never held as a whole. */
export interface SavedBody {
  readonly path: string;
  remove(): Promise<void>;
}

/** The body of an operation that takes bytes. */
export function savedBody(saved: SavedBody | null): SavedBody {
  if (saved === null) throw new Error('An operation that takes bytes has a saved body');
  return saved;
}

/** Writes the body to a file of its own. @throws {DomainError} as soon as it has more bytes than it may; nothing is left then. */
export async function saveBody(c: Context, folder: string, limit: number, tooLarge: () => DomainError, patienceMs = PATIENCE_MS): Promise<SavedBody> {
  const path = join(folder, `upload-${randomUUID()}`);
  const remove = (): Promise<void> => rm(path, { force: true });
  const file = await open(path, 'wx', 0o600);
  try {
    for await (const chunk of counted(c, limit, tooLarge, patienceMs)) await file.writeFile(chunk);
  } catch (error) {
    await remove();
    throw error;
  } finally {
    await file.close();
  }
  return { path, remove };
}

async function* counted(c: Context, limit: number, tooLarge: () => DomainError, patienceMs = PATIENCE_MS): AsyncGenerator<Uint8Array> {
  const reader = c.req.raw.body?.getReader();
  if (reader === undefined) return;
  let isLate = false;
  const late = setTimeout(() => {
    isLate = true;
    void reader.cancel();
  }, patienceMs);
  try {
    for (let size = 0; ; ) {
      const { done, value } = await reader.read();
      // What was cut off ends like what is whole: half a file must not pass for one.
      if (isLate) throw new DomainError({ code: 'body_too_slow', seconds: Math.ceil(patienceMs / 1_000) });
      if (done) return;
      size += value.length;
      if (size > limit) throw tooLarge();
      yield value;
    }
  } finally {
    clearTimeout(late);
    // What is still to come is not read: the connection is closed behind the answer.
    reader.releaseLock();
  }
}
