import type { BodyOf } from '@caderno/contract';
import { execute, modelsOf, selectRows, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { passwordMatches } from './password.ts';

const MOST_FAILURES = 10;
const FAILURE_WINDOW_SECONDS = 60;

/** The id of the person who may sign in with what was given; counts failures per address. */
export async function checkSignIn(work: Work, body: BodyOf<'signIn'>): Promise<string> {
  const { Person } = modelsOf(work.db);
  if ('demoPerson' in body) {
    const person = await Person.findByPk(body.demoPerson, { transaction: work.transaction });
    if (person === null || person.demoJob === null) throw new Refused({ code: 'sign_in_failed' });
    return person.id;
  }
  const person = await Person.findOne({ where: { email: body.email.toLowerCase() }, transaction: work.transaction });
  if (!(await passwordMatches(person?.passwordHash ?? null, body.password)) || person === null) throw new Refused({ code: 'sign_in_failed' });
  return person.id;
}

/** @throws Refused when an address failed too often in the last minute. */
export async function refuseTooManyFailures(work: Work, who: string): Promise<void> {
  const [row] = await selectRows<{ failures: number }>(
    work,
    `SELECT count(*)::int AS failures FROM sign_in_failure WHERE who = $1 AND at > now() - interval '${FAILURE_WINDOW_SECONDS} seconds'`,
    [who],
  );
  if ((row?.failures ?? 0) >= MOST_FAILURES) throw new Refused({ code: 'too_many_attempts', seconds: FAILURE_WINDOW_SECONDS });
}

export async function noteFailure(work: Work, who: string): Promise<void> {
  await execute(work, `DELETE FROM sign_in_failure WHERE at < now() - interval '1 hour'`);
  await execute(work, 'INSERT INTO sign_in_failure (who, at) VALUES ($1, now())', [who]);
}
