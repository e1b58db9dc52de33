import type { ArtefactId } from '@caderno/core/artefacts';
import type { InboxEntry } from './inbox.ts';
import { STATE_WORD } from './words.ts';

/** What happened, as the part of a sentence behind who did it, on screens and in mails; of an import and a mail of one's own nobody else did anything. */
export function inboxEntryWords({ reason, state, toVersion, count, because, text }: InboxEntry): string {
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
    case 'unsent':
      return `Your mail could not be sent: ${text ?? ''}`;
  }
}

/** An address that leads to an artefact's page, whatever its kind. */
export function artefactLink(server: string, project: string, id: ArtefactId): string {
  return `${server}/${project}/open/${id}`;
}
