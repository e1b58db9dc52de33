import { STATE_WORD, type InboxEntry, type InboxReason } from '@caderno/contract';
import { address } from '../frame/index.ts';

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
  unsent: 'Your mails that could not be sent',
};

/** How it is now, where more than the words says something: `v1 → v3, agreed`. */
export function standingWords({ reason, fromVersion, toVersion, state }: InboxEntry): string {
  if (reason !== 'changed' || toVersion === null) return '';
  return [`v${fromVersion ?? 1} → v${toVersion}`, ...(state === null ? [] : [STATE_WORD[state].toLowerCase()])].join(', ');
}

/** Where it leads: to the difference of what changed, the place of what was said, the review, the journal. */
export function entryAddress(project: string, { reason, artefact, review, fromVersion, toVersion }: InboxEntry): string {
  if (review !== null) return address.review(project, review.number as never);
  if (reason === 'unsent') return address.mails(project);
  if (artefact === null) return address.journal(project);
  if (reason === 'changed' && fromVersion !== null && toVersion !== null) return `${address.versions(project, artefact.id)}?from=${fromVersion}&to=${toVersion}`;
  return address.artefact(project, artefact.id);
}
