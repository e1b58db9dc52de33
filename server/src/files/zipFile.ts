import { createWriteStream, type WriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { promisify } from 'node:util';
import { deflateRaw } from 'node:zlib';
import { Zip, ZipPassThrough } from 'fflate';

/** The same in every time zone: a zip has local times. */
const ALWAYS = new Date(1980, 0, 1);

/** Node packs several times as fast as a packer in JavaScript, and while whoever writes works out what comes next. */
const pack = promisify(deflateRaw);

/** Entries, and bytes of them, that are packed at a time or wait for one before them. */
const MOST_AHEAD = 32;
const MOST_BYTES_AHEAD = 4 * 1024 * 1024;

/** An entry whose bytes are all there at once, and packed already. */
class Packed extends ZipPassThrough {
  override compression = 8;
  readonly #packed: Uint8Array<ArrayBuffer>;

  constructor(path: string, packed: Uint8Array<ArrayBuffer>) {
    super(path);
    this.#packed = packed;
  }

  protected override process(_chunk: Uint8Array, final: boolean): void {
    this.ondata(null, this.#packed, final);
  }
}

/** A zip that is written piece by piece, in the order in which its files are added; the same files make the same bytes. */
export class ZipFile {
  readonly #stream: WriteStream;
  readonly #zip: Zip;
  /** What is not written yet, the oldest first; each waits for those before it. */
  readonly #ahead: { readonly bytes: number; readonly written: Promise<void> }[] = [];

  constructor(path: string) {
    this.#stream = createWriteStream(path, { flags: 'wx', mode: 0o600 });
    // Told to whoever adds next, and by `end`.
    this.#stream.on('error', () => undefined);
    this.#zip = new Zip((error, chunk) => {
      if (error !== null) this.#stream.destroy(error);
      else this.#stream.write(chunk);
    });
  }

  /** Waits while the packers or the disk are behind; a failure of theirs is told by a later call, at last by {@link end}. The bytes are not to be changed afterwards. */
  async add(path: string, bytes: Uint8Array): Promise<void> {
    const written = this.#write(path, bytes, pack(bytes), this.#ahead.at(-1)?.written);
    // Told where it is waited for; until then it is nobody's.
    written.catch(() => undefined);
    this.#ahead.push({ bytes: bytes.length, written });
    while (this.#ahead.length >= MOST_AHEAD || this.#ahead.reduce((sum, { bytes: of }) => sum + of, 0) > MOST_BYTES_AHEAD) await this.#ahead.shift()?.written;
  }

  async #write(path: string, bytes: Uint8Array, packing: Promise<Uint8Array<ArrayBuffer>>, before: Promise<void> | undefined): Promise<void> {
    // Both are waited for together: of two that fail, the second is nobody's else.
    const [packed] = await Promise.all([packing, before]);
    if (this.#stream.errored !== null) throw this.#stream.errored;
    const entry = new Packed(path, packed);
    entry.mtime = ALWAYS;
    this.#zip.add(entry);
    entry.push(bytes, true);
    if (this.#stream.writableNeedDrain) await once(this.#stream, 'drain');
  }

  /** Lets go of a file that is not written to its end, as something of it was refused. */
  abandon(): void {
    this.#stream.destroy();
  }

  async end(): Promise<void> {
    await Promise.all(this.#ahead.map(({ written }) => written));
    this.#zip.end();
    this.#stream.end();
    await finished(this.#stream);
  }
}
