import type { PersonAction, PersonEvent } from '@caderno/contract';

/** What happened, in words: who, what, whom, where. */
export function personEventSentence({ action, by, about, project, detail }: PersonEvent): string {
  const who = by ?? 'Somebody';
  const whom = about ?? 'somebody';
  const where = project === null ? '' : ` in ${project}`;
  return SENTENCE[action]({ who, whom, where, detail });
}

interface Parts {
  readonly who: string;
  readonly whom: string;
  readonly where: string;
  readonly detail: string;
}

const SENTENCE: Record<PersonAction, (parts: Parts) => string> = {
  setUp: ({ who }) => `${who} made the first account and administrates the server`,
  added: ({ who, whom, where, detail }) => `${who} made an account for ${whom}, ${detail}${where}`,
  joined: ({ who, whom, where, detail }) => `${who} added ${whom} as ${detail}${where}`,
  removed: ({ who, whom, where, detail }) => `${who} removed ${whom}, who was ${detail}${where}`,
  roleChanged: ({ who, whom, where, detail }) => `${who} changed the role of ${whom}${where}: ${detail}`,
  seenModulesChanged: ({ who, whom, where, detail }) => `${who} said what ${whom} sees${where}: ${detail}`,
  signedIn: ({ who, detail }) => `${who} signed in from ${detail}`,
  signInRefused: ({ whom, detail }) => `A wrong password for ${whom} from ${detail}`,
  signedOut: ({ who }) => `${who} signed out`,
  passwordChanged: ({ who }) => `${who} changed their password`,
  resetLinkMade: ({ who, whom }) => `${who} made a link by which ${whom} sets a new password`,
  passwordReset: ({ who }) => `${who} set a new password by a link`,
  deactivated: ({ who, whom }) => `${who} deactivated ${whom}`,
  activated: ({ who, whom }) => `${who} brought ${whom} back`,
  administratorMade: ({ who, whom }) => `${who} made ${whom} an administrator of the server`,
  administratorUnmade: ({ who, whom }) => `${whom} is no administrator of the server any more; ${who} said so`,
  sessionEnded: ({ who }) => `${who} ended one of their sessions`,
  secretRevealed: ({ who, where, detail }) => `${who} looked at the secret constant ‘${detail}’${where}`,
  tokenMade: ({ who, where, detail }) => `${who} made the access token ‘${detail}’${where}`,
  tokenWithdrawn: ({ who, where, detail }) => `${who} withdrew the access token ‘${detail}’${where}`,
  invited: ({ who, where, detail }) => `${who} invited ${detail}${where}`,
  readLinkMade: ({ who, where, detail }) => `${who} gave a link to read ${detail}${where}`,
  readLinkEnded: ({ who, where, detail }) => `${who} ended a link to read ${detail}${where}`,
  invitationWithdrawn: ({ who, where, detail }) => `${who} withdrew the invitation of ${detail}${where}`,
  invitationAccepted: ({ who, where, detail }) => `${who} came by an invitation, as ${detail}${where}`,
  passwordForgotten: ({ whom }) => `A link for a new password was mailed to ${whom}, whose password was said to be forgotten`,
  emailChanged: ({ who, detail }) => `${who} changed their e-mail address: ${detail}`,
  renamed: ({ who, detail }) => `${who} changed their name: ${detail}`,
  hostsChanged: ({ who, detail }) => `${who} changed the hosts that trackers may have: ${detail === '' ? 'none' : detail}`,
};
