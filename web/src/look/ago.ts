import { formatDistanceToNowStrict, parseISO } from 'date-fns';

/** `4 minutes ago`. */
export function ago(iso: string): string {
  return formatDistanceToNowStrict(parseISO(iso), { addSuffix: true });
}
