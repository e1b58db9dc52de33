import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import pLimit from 'p-limit';
import { DomainError } from '../domainError.ts';

/** Each takes 19 MiB and a core: strangers must not have many at work at once. */
const atWork = pLimit(2);

/** Argon2id with the package's defaults, which follow the OWASP recommendation (19 MiB, 2 passes, 1 lane). */
export function hashPassword(password: string): Promise<string> {
  return atWork(() => hash(password));
}

// Checked when there is no such account, so that the answer takes as long as for a wrong password.
const NOBODY = hash('nobody has this password');

export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  const nobody = await NOBODY;
  const matches = await atWork(() => verify(passwordHash ?? nobody, password));
  return matches && passwordHash !== null;
}

/** Made at first use: its word lists take some megabytes. */
let judge: ZxcvbnFactory | null = null;

/** 0 to 4; below, a million guesses suffice. */
const WEAKEST = 2;
/** The judge takes time with the length; what is longer is not among the common ones. */
const LONGEST_JUDGED = 64;

/** @throws {DomainError} when a password is among the first that others try: common ones, keyboard walks, repetitions, the person's own name. */
export function refuseWeakPassword(password: string, own: readonly string[]): void {
  judge ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const { score } = judge.check(password.slice(0, LONGEST_JUDGED), own.flatMap((text) => [text, ...text.split(/[\s@.]+/)]).filter((word) => word.length > 2));
  if (score < WEAKEST) throw new DomainError({ code: 'password_weak' });
}
