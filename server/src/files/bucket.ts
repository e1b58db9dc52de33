import type { S3Client } from '@aws-sdk/client-s3';
import { DomainError } from '../domainError.ts';

/** Where a bucket is. Who we are there, the client reads from the environment, as its own documentation says. */
export interface BucketPlace {
  readonly bucket: string;
  /** Null: that of the region. */
  readonly endpoint: string | null;
  readonly region: string;
}

/** One that does not answer holds nobody up for long: the person is told, and tries again. */
const MOST_MS = 20_000;
const ATTEMPTS = 3;

/** Read only where there is a bucket: every thread would wait for it. */
const clientPackage = () => import('@aws-sdk/client-s3');
type ClientPackage = Awaited<ReturnType<typeof clientPackage>>;

interface Opened {
  readonly client: S3Client;
  readonly commands: Pick<ClientPackage, 'DeleteObjectCommand' | 'GetObjectCommand' | 'PutObjectCommand' | 'NoSuchKey'>;
}

/** Files in a bucket of an S3-compatible store, under their hashes. */
export class Bucket {
  readonly #place: BucketPlace;
  #opened: Promise<Opened> | null = null;

  constructor(place: BucketPlace) {
    this.#place = place;
  }

  async put(hash: string, bytes: Uint8Array): Promise<void> {
    await this.#asked(({ client, commands }) => client.send(new commands.PutObjectCommand({ Bucket: this.#place.bucket, Key: hash, Body: bytes, ContentLength: bytes.length }), patience()));
  }

  /** The bytes piece by piece; null: there are none under this hash. */
  async get(hash: string): Promise<ReadableStream<Uint8Array> | null> {
    return this.#asked(async ({ client, commands }) => {
      try {
        const { Body } = await client.send(new commands.GetObjectCommand({ Bucket: this.#place.bucket, Key: hash }), patience());
        return Body?.transformToWebStream() ?? null;
      } catch (error) {
        if (error instanceof commands.NoSuchKey) return null;
        throw error;
      }
    });
  }

  async remove(hash: string): Promise<void> {
    await this.#asked(({ client, commands }) => client.send(new commands.DeleteObjectCommand({ Bucket: this.#place.bucket, Key: hash }), patience()));
  }

  async close(): Promise<void> {
    (await this.#opened)?.client.destroy();
  }

  async #asked<T>(ask: (opened: Opened) => Promise<T>): Promise<T> {
    try {
      return await ask(await (this.#opened ??= open(this.#place)));
    } catch (cause) {
      throw new DomainError({ code: 'files_unavailable' }, { cause });
    }
  }
}

async function open({ endpoint, region }: BucketPlace): Promise<Opened> {
  const commands = await clientPackage();
  // Stores other than the first of their kind have their buckets below the address, not before it, and know no newer checksums.
  const other = endpoint === null ? {} : { endpoint, forcePathStyle: true, requestChecksumCalculation: 'WHEN_REQUIRED' as const, responseChecksumValidation: 'WHEN_REQUIRED' as const };
  return { commands, client: new commands.S3Client({ region, maxAttempts: ATTEMPTS, ...other }) };
}

function patience(): { readonly abortSignal: AbortSignal } {
  return { abortSignal: AbortSignal.timeout(MOST_MS) };
}
