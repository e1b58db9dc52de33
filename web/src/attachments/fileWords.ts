import { attachmentForm, type Attachment } from '@caderno/core/attachments';
import { locale } from '../look/index.ts';

/** `2.3 MB`, in the reader's numbers; empty where it is not known. */
export function sizeWords(size: number | null): string {
  if (size === null) return '';
  if (size < 1_000) return `${size.toLocaleString(locale())} B`;
  const [value, unit] = size < 999_500 ? [size / 1e3, 'kB'] : [size / 1e6, 'MB'];
  return `${value.toLocaleString(locale(), { maximumFractionDigits: value < 10 ? 1 : 0 })} ${unit}`;
}

/** Files that are seen in place. */
export function isSeenInPlace({ type }: Attachment): boolean {
  return attachmentForm(type) !== 'file';
}

/** The files there and new ones, each once; null when that is more than there may be. */
export function withFiles(there: readonly Attachment[], more: readonly Attachment[], most: number): readonly Attachment[] | null {
  const all = [...there, ...more.filter((m, i) => !there.some((a) => a.id === m.id) && more.findIndex((o) => o.id === m.id) === i)];
  return all.length > most ? null : all;
}
