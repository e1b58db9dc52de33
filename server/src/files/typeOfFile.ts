import { isAttachmentType, type AttachmentType } from '@caderno/core/attachments';
import { fileTypeFromBuffer } from 'file-type';

/** A page, a drawing or a list of values as much as a letter: what is made of letters only. */
const TEXTS: ReadonlySet<string> = new Set(['application/xml', 'image/svg+xml', 'text/vcard', 'text/calendar']);

/** What a file is, by its bytes and whatever it is called; null when it is empty or of no kind that is kept. */
export async function typeOfFile(bytes: Uint8Array): Promise<AttachmentType | null> {
  if (bytes.length === 0) return null;
  const mime = await typeByBeginning(bytes);
  if (mime === null || TEXTS.has(mime)) return isText(bytes) ? 'text/plain' : null;
  return isAttachmentType(mime) ? mime : null;
}

async function typeByBeginning(bytes: Uint8Array): Promise<string | null> {
  try {
    return (await fileTypeFromBuffer(bytes))?.mime ?? null;
  } catch {
    // A file that only begins like one of a kind: it is refused unless it is text.
    return null;
  }
}

/** Control characters that no text has, in UTF-8 as in any older way of writing letters. */
const UNWRITTEN = new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 11, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 28, 29, 30, 31, 127]);

function isText(bytes: Uint8Array): boolean {
  const isUtf16 = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  return isUtf16 || !bytes.some((byte) => UNWRITTEN.has(byte));
}
