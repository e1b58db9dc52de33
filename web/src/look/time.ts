import { parseISO } from 'date-fns';
import { locale } from './locale.ts';

/** Date and time in the reader's locale. */
export function dateAndTime(iso: string): string {
  return parseISO(iso).toLocaleString(locale(), { dateStyle: 'medium', timeStyle: 'short' });
}

/** `Tuesday, 24 November 2026` in the reader's locale, for headings. */
export function dayName(iso: string): string {
  return parseISO(iso).toLocaleDateString(locale(), { dateStyle: 'full' });
}
