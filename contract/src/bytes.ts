import { z } from 'zod';

/** The body of an upload: bytes as they are, not JSON. */
export const bytesBody = z.instanceof(Uint8Array);

/** An answer that is a file to be saved. */
export interface FileAnswer {
  readonly name: string;
  readonly type: string;
  readonly bytes: Uint8Array | ReadableStream<Uint8Array>;
  /** Its address names it by its hash: the same address never answers anything else. */
  readonly neverChanges?: boolean;
}
/** Marks an operation that answers a file instead of JSON. */
export const fileResponse = z.custom<FileAnswer>();
