import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';

const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** Seals short texts with AES-256-GCM (NIST SP 800-38D): who reads the database without the key reads nothing. */
export class SecretBox {
  readonly #key: Buffer;

  /** @throws RangeError when the key has not 32 bytes. */
  constructor(key: Buffer) {
    if (key.length !== KEY_BYTES) throw new RangeError(`The key has ${KEY_BYTES} bytes: got ${key.length}`);
    this.#key = key;
  }

  /** For a thread of this server, and nobody else. */
  get key(): Buffer {
    return this.#key;
  }

  /** `place`: where it is kept. What is sealed for one place opens nowhere else. */
  seal(text: string, place: string): Buffer {
    const nonce = randomBytes(NONCE_BYTES);
    const cipher = createCipheriv('aes-256-gcm', this.#key, nonce).setAAD(Buffer.from(place));
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), sealed]);
  }

  /** Null when it was sealed with another key, for another place, or changed since. */
  open(sealed: Buffer, place: string): string | null {
    try {
      const decipher = createDecipheriv('aes-256-gcm', this.#key, sealed.subarray(0, NONCE_BYTES)).setAAD(Buffer.from(place)).setAuthTag(sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
      return Buffer.concat([decipher.update(sealed.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8');
    } catch {
      // The tag does not fit; that is the answer.
      return null;
    }
  }
}

/** The key from the environment (base64) or from a file, which is made with a new key when it is not there. */
export async function readSecretKey(given: string | null, file: string | null): Promise<Buffer> {
  if (given !== null) return Buffer.from(given, 'base64');
  if (file === null) return randomBytes(KEY_BYTES);
  try {
    await writeFile(file, randomBytes(KEY_BYTES).toString('base64'), { flag: 'wx', mode: 0o600 });
  } catch (error) {
    const isThere = typeof error === 'object' && error !== null && 'code' in error && error.code === 'EEXIST';
    if (!isThere) throw error;
  }
  return Buffer.from(await readFile(file, 'utf8'), 'base64');
}
