import { randomBytes } from 'node:crypto';

/** A word that nobody guesses, for a session, a token or a link that opens something. The database holds its hash only. */
export function newSecretWord(): string {
  return randomBytes(32).toString('base64url');
}
