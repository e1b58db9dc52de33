/** A file that is kept with the project; an artefact or a step names it. */
export interface Attachment {
  readonly id: AttachmentId;
  /** As the file was called. */
  readonly name: string;
  /** What its bytes say that it is; null: kept before that was noted, and a picture. */
  readonly type: AttachmentType | null;
  /** In bytes; null: kept before that was noted. */
  readonly size: number | null;
}

/** The SHA-256 of the bytes, in hexadecimal digits. */
export type AttachmentId = string & { readonly __brand: 'AttachmentId' };

/** The one maker of attachment ids. */
export function attachmentId(text: string): AttachmentId {
  return text as AttachmentId;
}

/** The kinds of picture that every browser shows and that hold no script. */
export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'] as const;
export type PictureType = (typeof PICTURE_TYPES)[number];

/** The kinds of file that may be attached, as IANA registers them, and how the names of such files end; the first is given to one that ends otherwise. */
export const ENDINGS = {
  'image/png': ['png'],
  'image/jpeg': ['jpg', 'jpeg'],
  'image/gif': ['gif'],
  'image/webp': ['webp'],
  'application/pdf': ['pdf'],
  // Whatever is text and no more; a page or a drawing that could run something is called a text when it is saved.
  'text/plain': ['txt', 'csv', 'tsv', 'md', 'markdown', 'log', 'json', 'xml', 'yaml', 'yml', 'feature', 'sql', 'ini', 'properties', 'eml', 'diff', 'patch'],
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': ['xlsx'],
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': ['docx'],
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': ['pptx'],
  'application/vnd.oasis.opendocument.spreadsheet': ['ods'],
  'application/vnd.oasis.opendocument.text': ['odt'],
  'application/vnd.oasis.opendocument.presentation': ['odp'],
  // Spreadsheets, texts and mails of older office programs.
  'application/x-cfb': ['doc', 'xls', 'ppt', 'msg'],
  'application/zip': ['zip', 'reqifz'],
  'application/gzip': ['gz', 'tgz'],
  'application/x-7z-compressed': ['7z'],
  'application/x-tar': ['tar'],
} as const satisfies Readonly<Record<string, readonly string[]>>;

export type AttachmentType = keyof typeof ENDINGS;
export const ATTACHMENT_TYPES = Object.keys(ENDINGS) as readonly AttachmentType[];

export function isAttachmentType(type: string): type is AttachmentType {
  return Object.hasOwn(ENDINGS, type);
}

/** How a file is seen: a picture and a PDF in place, everything else when it is saved. */
export type AttachmentForm = 'picture' | 'pdf' | 'file';

export function attachmentForm(type: AttachmentType | null): AttachmentForm {
  if (type === null || PICTURE_TYPES.some((p) => p === type)) return 'picture';
  return type === 'application/pdf' ? 'pdf' : 'file';
}

const MOST_NAME = 200;
/** What parts a path, what no file system takes, and what turns the direction of reading so that a name looks like another. */
const UNFIT = /[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff"*/:<>?\\|]+/gu;

/**
 * The name a file is kept and saved under: without a path, control and direction marks, and with an ending that tells
 * what it is. Never empty; at most 200 characters and the ending.
 */
export function safeFileName(name: string, type: AttachmentType): string {
  const last = name.split(/[/\\]/).at(-1) ?? '';
  const clean = last.replaceAll(UNFIT, ' ').replaceAll(/\s+/g, ' ').replace(/^[\s.]+/, '').replace(/[\s.]+$/, '');
  const endings: readonly string[] = ENDINGS[type];
  const dot = clean.lastIndexOf('.');
  const isRight = dot > 0 && endings.includes(clean.slice(dot + 1).toLowerCase());
  const stem = [...(isRight ? clean.slice(0, dot) : clean)].slice(0, MOST_NAME).join('').trim() || 'file';
  return `${stem}.${isRight ? clean.slice(dot + 1) : endings[0]}`;
}
