import { hash, verify } from '@node-rs/argon2';

/** Argon2id with the package's defaults, which follow the OWASP recommendation (19 MiB, 2 passes, 1 lane). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

// Checked when there is no such account, so that the answer takes as long as for a wrong password.
const NOBODY = hash('nobody has this password');

export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  const matches = await verify(passwordHash ?? (await NOBODY), password);
  return matches && passwordHash !== null;
}
