import type { FeatureFile } from '@caderno/core/scenarios';
import { LIMITS, featurePathSchema, isText, type FeatureLeftReason } from '@caderno/contract';
import { unzipSync, type UnzipFileInfo } from 'fflate';
import { DomainError } from '../../domainError.ts';
import type { BroughtFile } from '../importFile.ts';

/** What came: the features of a file or a zip, and what of it is none. */
export interface ReadFeatures {
  readonly files: readonly FeatureFile[];
  readonly left: readonly { readonly path: string; readonly reason: FeatureLeftReason }[];
}

/** Bytes of one feature, of all together when they are unpacked, and how many files. */
const MOST = { file: 6 * 1024 * 1024, all: 100 * 1024 * 1024, files: 5_000 };

/** @throws {DomainError} when the bytes are neither a feature nor a zip with some, or are more than is read. */
export function readFeatureFiles({ name, bytes }: BroughtFile): ReadFeatures {
  const brought = isZip(bytes) ? unzipped(bytes) : [{ path: name, bytes }];
  const files: FeatureFile[] = [];
  const left: { path: string; reason: FeatureLeftReason }[] = [];
  const seen = new Set<string>();
  for (const { path: asked, bytes: content } of brought) {
    const path = plainPath(asked);
    const text = textOf(content);
    const reason = whyLeft(path, content, text, seen);
    seen.add(path);
    if (reason === null && text !== null) files.push({ path, text });
    else left.push({ path: asked, reason: reason ?? 'not_text' });
  }
  if (files.length + left.length === 0) throw new DomainError({ code: 'features_unreadable', wrong: 'none' });
  return { files: files.toSorted((a, b) => (a.path < b.path ? -1 : 1)), left };
}

function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);
}

function unzipped(bytes: Uint8Array): { path: string; bytes: Uint8Array }[] {
  let [count, total] = [0, 0];
  const wanted = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (!isFeature(name)) return false;
    count += 1;
    total += originalSize;
    // Told before anything is unpacked: a small zip can hold very much.
    if (count > MOST.files || total > MOST.all) throw new DomainError({ code: 'features_unreadable', wrong: 'too_many' });
    return true;
  };
  try {
    return Object.entries(unzipSync(bytes, { filter: wanted })).map(([path, content]) => ({ path, bytes: content }));
  } catch (cause) {
    if (cause instanceof DomainError) throw cause;
    throw new DomainError({ code: 'features_unreadable', wrong: 'damaged' }, { cause });
  }
}

/** Features only; what systems put into archives for themselves is none. */
function isFeature(path: string): boolean {
  return /\.feature$/i.test(path) && !path.split(/[\\/]/).some((name) => /^\.(?!\.?$)/.test(name) || name === '__MACOSX');
}

function plainPath(path: string): string {
  return path.replaceAll('\\', '/').replace(/^(?:\.?\/)+/, '').normalize('NFC');
}

function whyLeft(path: string, bytes: Uint8Array, text: string | null, seen: ReadonlySet<string>): FeatureLeftReason | null {
  if (!featurePathSchema.safeParse(path).success) return 'bad_path';
  if (seen.has(path)) return 'twice';
  if (bytes.length > MOST.file || (text ?? '').split('\n').some((line) => line.length > LIMITS.text)) return 'too_large';
  return text === null || !isText(text) ? 'not_text' : null;
}

/** The text with its byte order mark; null: it is not UTF-8, and what is no UTF-8 would not go out as it came in. */
function textOf(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch (error) {
    if (error instanceof TypeError) return null;
    throw error;
  }
}
