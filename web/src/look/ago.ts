import { differenceInSeconds, formatDistanceToNowStrict, parseISO } from 'date-fns';

/** `4 minutes ago`; within the last minute `just now`, as well as what a clock ahead of this one says is still to come. */
export function ago(iso: string): string {
  const at = parseISO(iso);
  return differenceInSeconds(new Date(), at) < 60 ? 'just now' : formatDistanceToNowStrict(at, { addSuffix: true });
}
