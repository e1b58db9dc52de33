/** A picture that is kept with the project; a step names it. */
export interface Attachment {
  readonly id: AttachmentId;
  /** As the file was called. */
  readonly name: string;
}

/** The SHA-256 of the bytes, in hexadecimal digits. */
export type AttachmentId = string & { readonly __brand: 'AttachmentId' };

/** The one maker of attachment ids. */
export function attachmentId(text: string): AttachmentId {
  return text as AttachmentId;
}

/** The kinds of picture that every browser shows and that hold no script. */
export type PictureType = 'image/png' | 'image/jpeg' | 'image/gif' | 'image/webp';

const SIGNATURES: readonly { readonly type: PictureType; readonly at: number; readonly bytes: readonly number[] }[] = [
  { type: 'image/png', at: 0, bytes: [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] },
  { type: 'image/jpeg', at: 0, bytes: [0xff, 0xd8, 0xff] },
  { type: 'image/gif', at: 0, bytes: [0x47, 0x49, 0x46, 0x38] },
  // RIFF, four bytes of length, WEBP.
  { type: 'image/webp', at: 8, bytes: [0x57, 0x45, 0x42, 0x50] },
];

/** What picture these bytes are, by how they begin and whatever the file is called; null when they are none. */
export function pictureType(bytes: Uint8Array): PictureType | null {
  return SIGNATURES.find(({ at, bytes: signature }) => signature.every((byte, i) => bytes[at + i] === byte))?.type ?? null;
}
