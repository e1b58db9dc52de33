import { DeleteObjectCommand, GetObjectCommand, NoSuchKey, PutObjectCommand, S3Client } from '@aws-sdk/client-s3';
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

/** Files in a bucket of an S3-compatible store, under their hashes. */
export class Bucket {
  readonly #bucket: string;
  readonly #client: S3Client;

  constructor({ bucket, endpoint, region }: BucketPlace) {
    this.#bucket = bucket;
    // Stores other than the first of their kind have their buckets below the address, not before it, and know no newer checksums.
    const other = endpoint === null ? {} : { endpoint, forcePathStyle: true, requestChecksumCalculation: 'WHEN_REQUIRED' as const, responseChecksumValidation: 'WHEN_REQUIRED' as const };
    this.#client = new S3Client({ region, maxAttempts: ATTEMPTS, ...other });
  }

  async put(hash: string, bytes: Uint8Array): Promise<void> {
    await asked(() => this.#client.send(new PutObjectCommand({ Bucket: this.#bucket, Key: hash, Body: bytes, ContentLength: bytes.length }), patience()));
  }

  /** The bytes piece by piece; null: there are none under this hash. */
  async get(hash: string): Promise<ReadableStream<Uint8Array> | null> {
    return asked(async () => {
      try {
        const { Body } = await this.#client.send(new GetObjectCommand({ Bucket: this.#bucket, Key: hash }), patience());
        return Body?.transformToWebStream() ?? null;
      } catch (error) {
        if (error instanceof NoSuchKey) return null;
        throw error;
      }
    });
  }

  async remove(hash: string): Promise<void> {
    await asked(() => this.#client.send(new DeleteObjectCommand({ Bucket: this.#bucket, Key: hash }), patience()));
  }

  close(): void {
    this.#client.destroy();
  }
}

function patience(): { readonly abortSignal: AbortSignal } {
  return { abortSignal: AbortSignal.timeout(MOST_MS) };
}

async function asked<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (cause) {
    throw new DomainError({ code: 'files_unavailable' }, { cause });
  }
}
