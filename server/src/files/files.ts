import { createHash } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { Bucket, type BucketPlace } from './bucket.ts';

/** Where bytes are kept: null: in the database. */
export type FilesPlace = BucketPlace | null;

export type FileHash = string & { readonly __brand: 'FileHash' };

export function fileHash(bytes: Uint8Array): FileHash {
  return createHash('sha256').update(bytes).digest('hex') as FileHash;
}

/** How long a file is kept that nothing names: somebody may be about to. */
const UNUSED_HOURS = 48;
const SWEPT_AT_ONCE = 100;

const storedRow = z.object({ bytes: z.instanceof(Buffer).nullable() });
const hashRow = z.object({ hash: z.string() });

/**
 * Pictures and files by the hash of their bytes, the same ones once. Every file has a row in `stored_file`; its bytes
 * are in the row, or in the bucket when the server has one. What was kept before there was a bucket stays readable.
 */
export class Files {
  readonly #db: Sequelize;
  readonly #bucket: Bucket | null;

  constructor(db: Sequelize, place: FilesPlace) {
    this.#db = db;
    this.#bucket = place === null ? null : new Bucket(place);
  }

  /** Keeps bytes until something names their hash, and from then on for as long as something does. @throws {DomainError} when the bucket does not answer. */
  async keep(bytes: Uint8Array): Promise<FileHash> {
    const hash = fileHash(bytes);
    // The row first: from now on no sweep takes the file away.
    await inTransaction(this.#db, (work) =>
      execute(
        work,
        `INSERT INTO stored_file (hash, size, kept_at, bytes) VALUES ($1, $2, now(), $3) ON CONFLICT (hash) DO UPDATE SET kept_at = now(), bytes = coalesce(stored_file.bytes, excluded.bytes)`,
        [hash, bytes.length, this.#bucket === null ? Buffer.from(bytes) : null],
      ),
    );
    await this.#bucket?.put(hash, bytes);
    return hash;
  }

  /** The bytes of a file, from the bucket piece by piece; null: there are none. @throws {DomainError} when the bucket does not answer. */
  async read(hash: string): Promise<Uint8Array | ReadableStream<Uint8Array> | null> {
    const [stored] = await inTransaction(this.#db, (work) => selectRows(work, storedRow, 'SELECT bytes FROM stored_file WHERE hash = $1', [hash]));
    if (stored === undefined) return null;
    return stored.bytes ?? (await this.#bucket?.get(hash)) ?? null;
  }

  /** All bytes of a file at once. @throws {Error} when something names a file that is not there. */
  async readWhole(hash: string): Promise<Uint8Array> {
    const found = await this.read(hash);
    if (found === null) throw new Error(`A file that is named is kept: expected the bytes of ${hash}, got none`);
    return found instanceof ReadableStream ? new Uint8Array(await new Response(found).arrayBuffer()) : found;
  }

  /** Removes files that nothing has named for long. Answers how many. */
  async sweep(): Promise<number> {
    let all = 0;
    for (;;) {
      const swept = await inTransaction(this.#db, (work) => this.#sweepSome(work));
      all += swept;
      if (swept < SWEPT_AT_ONCE) return all;
    }
  }

  /** The rows are held while the bucket is asked: whoever keeps the same file again at this moment waits, and then brings it anew. */
  async #sweepSome(work: UnitOfWork): Promise<number> {
    const unused = await selectRows(
      work,
      hashRow,
      `SELECT hash FROM stored_file f WHERE kept_at < now() - interval '${UNUSED_HOURS} hours'
         AND NOT EXISTS (SELECT 1 FROM attachment WHERE attachment.id = f.hash) AND NOT EXISTS (SELECT 1 FROM import_file WHERE import_file.hash = f.hash)
       LIMIT ${SWEPT_AT_ONCE} FOR UPDATE SKIP LOCKED`,
    );
    for (const { hash } of unused) await this.#bucket?.remove(hash);
    await execute(work, 'DELETE FROM stored_file WHERE hash = ANY($1)', [unused.map((f) => f.hash)]);
    return unused.length;
  }

  async close(): Promise<void> {
    await this.#bucket?.close();
  }
}
