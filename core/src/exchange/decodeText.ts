import { error, warning, type FileProblem } from './problem.ts';

export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

export interface Decoded {
  readonly text: string;
  readonly encoding: Encoding;
  readonly problems: readonly FileProblem[];
}

const REPLACEMENT = '\uFFFD';

/** What the bytes 80 to 9F stand for in Windows-1252; five stand for nothing. Source: WHATWG Encoding, index windows-1252. */
const FROM_80 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';
const SAMPLE = 4_000;

/**
 * Bytes as text: by the byte order mark, else UTF-8 when all of it is, else UTF-16 when every other byte is zero,
 * else Windows-1252, said as a guess. `wanted` overrides the guess. A byte order mark is no part of the text.
 */
export function decodeText(bytes: Uint8Array, wanted: Encoding | null = null): Decoded {
  const marked = markedEncoding(bytes);
  const encoding = wanted ?? marked ?? guessedEncoding(bytes);
  const text = decoded(bytes, encoding);
  const broken = text.split(REPLACEMENT).length - 1;
  const problems: FileProblem[] = [];
  if (broken > 0) problems.push(error({ code: 'encoding_broken', encoding, count: broken }, { line: lineOf(text, text.indexOf(REPLACEMENT)), column: null }));
  else if (wanted === null && marked === null && encoding !== 'utf-8') problems.push(warning({ code: 'encoding_guessed', encoding }));
  return { text, encoding, problems };
}

function decoded(bytes: Uint8Array, encoding: Encoding): string {
  const text = new TextDecoder(encoding).decode(bytes);
  // Node 20 takes it for Latin-1: what a spreadsheet writes as quotation marks, dashes and € would be control characters that nobody sees.
  return encoding === 'windows-1252' ? text.replace(/[\u0080-\u009f]/g, (c) => FROM_80.charAt(c.charCodeAt(0) - 0x80)) : text;
}

function markedEncoding(bytes: Uint8Array): Encoding | null {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  return null;
}

function guessedEncoding(bytes: Uint8Array): Encoding {
  const zeros = [0, 0];
  const sample = bytes.subarray(0, SAMPLE);
  sample.forEach((byte, i) => {
    if (byte === 0) zeros[i % 2] = (zeros[i % 2] ?? 0) + 1;
  });
  const half = sample.length / 2;
  if ((zeros[1] ?? 0) > half * 0.6) return 'utf-16le';
  if ((zeros[0] ?? 0) > half * 0.6) return 'utf-16be';
  return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch (cause) {
    // By its name: the decoder may throw the TypeError of another realm.
    if (typeof cause === 'object' && cause !== null && 'name' in cause && cause.name === 'TypeError') return false;
    throw cause;
  }
}

/** The line, from 1, that a place of a text is on; line ends of all three kinds. */
export function lineOf(text: string, index: number): number {
  let line = 1;
  for (let i = 0; i < index; i += 1) {
    const c = text.charCodeAt(i);
    if (c === 10 || (c === 13 && text.charCodeAt(i + 1) !== 10)) line += 1;
  }
  return line;
}
