import type { TokenScope } from '../accounts.ts';
import type { Role } from '../people.ts';
import type { Refusals } from './refusals.ts';

/** What is refused of accounts, sessions, roles, and links that open something. */
export type PeopleRefusal =
  | { readonly code: 'not_signed_in' }
  | { readonly code: 'sign_in_failed' }
  | { readonly code: 'too_many_attempts'; readonly seconds: number }
  | { readonly code: 'role_too_low'; readonly needed: Role; readonly have: Role }
  | { readonly code: 'person_unknown' }
  /** Somebody sees only some modules, and asked for the whole. */
  | { readonly code: 'part_only' }
  | { readonly code: 'part_of_readers'; readonly who: string }
  | { readonly code: 'set_up_already' }
  | { readonly code: 'set_up_word_wrong' }
  | { readonly code: 'demo_closed' }
  | { readonly code: 'demo_person' }
  | { readonly code: 'demo_alone' }
  | { readonly code: 'password_wrong' }
  | { readonly code: 'password_weak' }
  | { readonly code: 'reset_link_ended' }
  | { readonly code: 'invitation_ended' }
  | { readonly code: 'address_link_ended' }
  | { readonly code: 'read_link_ended' }
  | { readonly code: 'account_unknown'; readonly who: string }
  | { readonly code: 'member_already'; readonly who: string }
  | { readonly code: 'last_administrator' }
  | { readonly code: 'session_unknown' }
  | { readonly code: 'token_unknown' }
  /** `needed`: what a token must allow; null: nobody does this with a token. */
  | { readonly code: 'token_not_enough'; readonly needed: TokenScope | null }
  | { readonly code: 'tokens_too_many'; readonly limit: number }
  | { readonly code: 'person_exists'; readonly email: string }
  | { readonly code: 'name_taken'; readonly name: string };

/** Their statuses, and what is said of each. */
export const PEOPLE_REFUSALS: Refusals<PeopleRefusal> = {
  not_signed_in: { status: 401, sentence: () => 'You are not signed in, or the session has ended. Sign in and try again; drafts are kept.' },
  sign_in_failed: { status: 401, sentence: () => 'No account has this address and password. Check both and try again.' },
  too_many_attempts: { status: 429, sentence: (refusal) => `Too many attempts. Wait ${refusal.seconds} seconds and try again.` },
  role_too_low: { status: 403, sentence: (refusal) => `This takes the role of ${refusal.needed}; yours here is ${refusal.have}. Nothing was changed; ask an administrator of the project.` },
  person_unknown: { status: 422, sentence: () => 'One of these people is no longer in the project. Nothing was changed; choose again.' },
  part_only: { status: 403, sentence: () => 'You see some modules of this project only, and this is not among them. Open the project again from its first page.' },
  part_of_readers: { status: 409, sentence: (refusal) => `Only readers can be kept to some modules. Nothing was changed; make ${refusal.who} a reader first, or let them see everything.` },
  set_up_already: { status: 409, sentence: () => 'Caderno has an administrator already. Sign in.' },
  set_up_word_wrong: { status: 403, sentence: () => 'This is not the word that Caderno printed when it was started. Look at its output and try again; a new start prints a new word.' },
  demo_closed: { status: 403, sentence: () => 'This server has people with accounts or is on a network, so nobody signs in by a click. Sign in with an account, or have the server started with --demo.' },
  demo_person: { status: 422, sentence: () => 'The people of the demo have no passwords and stay in the demo’s projects. Nothing was changed; make an account.' },
  demo_alone: { status: 409, sentence: () => 'Accounts with passwords and the demo’s sign-in by a click exclude each other. Nobody was added; start Caderno with --empty for real work, or with --demo to have both.' },
  password_wrong: { status: 422, sentence: () => 'This is not your present password. Nothing was changed.' },
  password_weak: { status: 422, sentence: () => 'This password is among the first that others would try. Nothing was changed; choose a longer or less usual one.' },
  reset_link_ended: { status: 410, sentence: () => 'This link has been used or has ended. Ask an administrator of the server for a new one.' },
  invitation_ended: { status: 410, sentence: () => 'This invitation was taken up, withdrawn, or has ended. Ask whoever invited you for a new one.' },
  address_link_ended: { status: 410, sentence: () => 'This link has been used or has ended. Your e-mail address is as it was; ask for the new one again on your account.' },
  read_link_ended: { status: 410, sentence: () => 'This link opens nothing any more: it was ended, has run out, or what it showed was withdrawn. Ask whoever gave it to you.' },
  account_unknown: { status: 404, sentence: (refusal) => `There is no account of ${refusal.who} here. Nothing was changed.` },
  member_already: { status: 409, sentence: (refusal) => `${refusal.who} belongs to this project already. Nothing was changed.` },
  last_administrator: { status: 409, sentence: () => 'Nobody could administrate this any more. Nothing was changed; make somebody else an administrator first.' },
  session_unknown: { status: 404, sentence: () => 'This session has ended already.' },
  token_unknown: { status: 404, sentence: () => 'There is no such access token of yours any more. Nothing was changed.' },
  token_not_enough: { status: 403, sentence: (refusal) => tokenSentence(refusal.needed) },
  tokens_too_many: { status: 409, sentence: (refusal) => `Nobody has more than ${refusal.limit} access tokens. Nothing was changed; withdraw one that is not used any more.` },
  name_taken: { status: 409, sentence: (refusal) => `Somebody in the project is called ${refusal.name} already, and nobody could tell the two apart. Nothing was changed; another name will do, perhaps one with more of it.` },
  person_exists: { status: 409, sentence: (refusal) => `There is an account with the address ${refusal.email} already. Add it to the project as it is.` },
};

function tokenSentence(needed: TokenScope | null): string {
  if (needed === null) return 'This is not done with an access token. Nothing was changed; sign in with a browser.';
  return `The access token does not allow to ${needed} in this project. Nothing was changed; make one that does, on the page of your account.`;
}
