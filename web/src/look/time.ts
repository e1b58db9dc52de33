import { format, formatDistanceToNowStrict, parseISO } from 'date-fns';
import { locale } from './locale.ts';

/** `4 minutes ago`. */
export function ago(iso: string): string {
  return formatDistanceToNowStrict(parseISO(iso), { addSuffix: true });
}

/** Date and time in the reader's locale. */
export function dateAndTime(iso: string): string {
  return parseISO(iso).toLocaleString(locale(), { dateStyle: 'medium', timeStyle: 'short' });
}

/** `Tuesday, 24 November 2026`, for headings. */
export function dayName(iso: string): string {
  return format(parseISO(iso), 'EEEE, d MMMM yyyy');
}
