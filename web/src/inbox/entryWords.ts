import type { InboxEntry, InboxReason } from '@caderno/contract';
import { address } from '../frame/index.ts';
import { STATE_WORD } from '../look/index.ts';

/** What reaches one, to choose it. */
export const REASON_WORD: Record<InboxReason, string> = {
  named: 'Somebody names you with @',
  answered: 'Answers where you said something',
  asked: 'Questions you are asked',
  review: 'Reviews that ask you',
  objected: 'Objections in reviews you asked for',
  remarked: 'Remarks on what you follow',
  suspect: 'Suspect links in what you own',
  changed: 'Changes of what you follow',
  changedMany: 'Changes of many at once',
  imported: 'Your imports, when they end',
};

/** What happened, as the part of a sentence behind who did it; of an import nobody else did anything. */
export function entryWords({ reason, state, toVersion, count, because }: InboxEntry): string {
  switch (reason) {
    case 'named':
      return 'named you on';
    case 'answered':
      return 'answered on';
    case 'asked':
      return 'asks you';
    case 'review':
      return 'asks you to agree to';
    case 'objected':
      return 'objected in';
    case 'remarked':
      return 'said something of';
    case 'suspect':
      return `changed ${because ?? 'something'}, so a link is suspect in`;
    case 'changed':
      return toVersion === null && state !== null ? `set to ${STATE_WORD[state].toLowerCase()}` : 'changed';
    case 'changedMany':
      return `changed ${count.toLocaleString()} that you follow at once`;
    case 'imported':
      return 'Your import ended.';
  }
}

/** How it is now, where more than the words says something: `v1 → v3, agreed`. */
export function standingWords({ reason, fromVersion, toVersion, state }: InboxEntry): string {
  if (reason !== 'changed' || toVersion === null) return '';
  return [`v${fromVersion ?? 1} → v${toVersion}`, ...(state === null ? [] : [STATE_WORD[state].toLowerCase()])].join(', ');
}

/** Where it leads: to the difference of what changed, the place of what was said, the review, the journal. */
export function entryAddress(project: string, { reason, artefact, review, fromVersion, toVersion }: InboxEntry): string {
  if (review !== null) return address.review(project, review.number as never);
  if (artefact === null) return address.journal(project);
  if (reason === 'changed' && fromVersion !== null && toVersion !== null) return `${address.versions(project, artefact.id)}?from=${fromVersion}&to=${toVersion}`;
  return address.artefact(project, artefact.id);
}
