import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** Attempts a minute: on an account from one place, from one place on any account, on an account from places it never came from. */
const MOST_ATTEMPTS = { there: 10, address: 60, strangers: 20 } as const;
const WINDOW_SECONDS = 60;

const attemptsRow = z.object({ there: z.number(), address: z.number(), strangers: z.number(), known: z.boolean() });

/**
 * Counts an attempt to sign in before its password is looked at, so that of any number at once only these many are
 * tried. Whoever signs in from where they did before is not held up by what strangers try.
 * @throws {DomainError} when there were too many in the last minute.
 */
export async function countAttempt(work: UnitOfWork, account: string, address: string): Promise<void> {
  for (const key of [account, address].sort()) await execute(work, 'SELECT pg_advisory_xact_lock(hashtextextended($1, 2))', [key]);
  const [counts] = await selectRows(
    work,
    attemptsRow,
    `SELECT count(*) FILTER (WHERE account = $1 AND address = $2)::int AS there, count(*) FILTER (WHERE address = $2)::int AS address,
       count(*) FILTER (WHERE account = $1 AND NOT (address IN (SELECT k.address FROM known_address k JOIN person ON person.id = k.person_id WHERE person.email = $1)))::int AS strangers,
       EXISTS (SELECT 1 FROM known_address k JOIN person ON person.id = k.person_id WHERE person.email = $1 AND k.address = $2) AS known
     FROM sign_in_attempt WHERE (account = $1 OR address = $2) AND at > now() - interval '${WINDOW_SECONDS} seconds'`,
    [account, address],
  );
  if (counts === undefined) throw new Error('Attempts are counted: expected a row, got none');
  const tooMany = counts.there >= MOST_ATTEMPTS.there || counts.address >= MOST_ATTEMPTS.address || (!counts.known && counts.strangers >= MOST_ATTEMPTS.strangers);
  if (tooMany) throw new DomainError({ code: 'too_many_attempts', seconds: WINDOW_SECONDS });
  await execute(work, 'INSERT INTO sign_in_attempt (account, address, at) VALUES ($1, $2, now())', [account, address]);
}

/** The right password: what failed before from there counts no more, and the place is known from now on. */
export async function forgetAttempts(work: UnitOfWork, personId: string, account: string, address: string): Promise<void> {
  await execute(work, 'DELETE FROM sign_in_attempt WHERE account = $1 AND address = $2', [account, address]);
  await execute(work, 'INSERT INTO known_address (person_id, address, at) VALUES ($1, $2, now()) ON CONFLICT (person_id, address) DO UPDATE SET at = now()', [personId, address]);
}
