import { createWriteStream, type WriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { deflateRawSync } from 'node:zlib';
import { Zip, ZipPassThrough } from 'fflate';

/** The same in every time zone: a zip has local times. */
const ALWAYS = new Date(1980, 0, 1);

/** What is this small is packed in half the time when no more memory is laid out for it than it needs, into as few bytes. */
const SMALL = 8 * 1024;
const FOR_SMALL = { memLevel: 5, windowBits: 13, chunkSize: 4 * 1024 } as const;
/** Pieces smaller than this go to the disk together. */
const TOGETHER = 256 * 1024;

/** An entry whose bytes are all there at once; Node packs several times as fast as a packer in JavaScript. */
class Packed extends ZipPassThrough {
  override compression = 8;

  protected override process(chunk: Uint8Array, final: boolean): void {
    this.ondata(null, deflateRawSync(chunk, chunk.length < SMALL ? FOR_SMALL : {}), final);
  }
}

/** A zip that is written piece by piece; the same files make the same bytes. */
export class ZipFile {
  readonly #stream: WriteStream;
  readonly #zip: Zip;
  #pieces: Uint8Array[] = [];
  #size = 0;

  constructor(path: string) {
    this.#stream = createWriteStream(path, { flags: 'wx', mode: 0o600 });
    // Told to whoever adds next, and by `end`.
    this.#stream.on('error', () => undefined);
    this.#zip = new Zip((error, chunk) => {
      if (error !== null) this.#stream.destroy(error);
      else this.#take(chunk);
    });
  }

  /** Waits while the disk is behind. */
  async add(path: string, bytes: Uint8Array): Promise<void> {
    if (this.#stream.errored !== null) throw this.#stream.errored;
    const entry = new Packed(path);
    entry.mtime = ALWAYS;
    this.#zip.add(entry);
    entry.push(bytes, true);
    if (this.#stream.writableNeedDrain) await once(this.#stream, 'drain');
  }

  /** Lets go of a file that is not written to its end, as something of it was refused. */
  abandon(): void {
    this.#stream.destroy();
  }

  #take(chunk: Uint8Array): void {
    this.#pieces.push(chunk);
    this.#size += chunk.length;
    if (this.#size >= TOGETHER) this.#write();
  }

  #write(): void {
    this.#stream.write(Buffer.concat(this.#pieces));
    this.#pieces = [];
    this.#size = 0;
  }

  async end(): Promise<void> {
    this.#zip.end();
    this.#write();
    this.#stream.end();
    await finished(this.#stream);
  }
}
