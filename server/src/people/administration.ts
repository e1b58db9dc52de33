import { accountSchema, type Account, type BodyOf, type PersonAction } from '@caderno/contract';
import { z } from 'zod';
import { countRow, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { notePersonEvent } from './events.ts';
import { endSessionsOf, type SignedIn } from './session.ts';

const SELECT = `
  SELECT person.id, person.name, person.email, person.administrator, person.active, person.demo_job IS NOT NULL AS demo,
    (SELECT count(*)::int FROM member WHERE member.person_id = person.id) AS projects,
    (SELECT max(at) FROM person_event WHERE by_id = person.id AND action = 'signedIn') AS "lastSignIn"
  FROM person`;

const accountRow = accountSchema.extend({ lastSignIn: z.date().nullable() });
type AccountRow = z.infer<typeof accountRow>;

/** All accounts of the server, by name. */
export async function listAccounts(work: UnitOfWork): Promise<Account[]> {
  return (await selectRows(work, accountRow, `${SELECT} ORDER BY person.name, person.id`)).map(toAccount);
}

function toAccount(row: AccountRow): Account {
  return { ...row, lastSignIn: row.lastSignIn?.toISOString() ?? null };
}

/** Deactivates an account or brings it back, makes or unmakes an administrator. @throws {DomainError} when nobody could administrate any more. */
export async function changeAccount(work: UnitOfWork, by: SignedIn, id: string, { active, administrator }: BodyOf<'changeAccount'>): Promise<Account> {
  await execute(work, 'SELECT pg_advisory_xact_lock(hashtextextended($1, 3))', ['administrators']);
  const before = await accountOf(work, id);
  if (before.demo) throw new DomainError({ code: 'demo_person' });
  const after = { active: active ?? before.active, administrator: administrator ?? before.administrator };
  await execute(work, 'UPDATE person SET active = $2, administrator = $3 WHERE id = $1', [id, after.active, after.administrator]);
  const [left] = await selectRows(work, countRow, 'SELECT count(*)::int AS count FROM person WHERE administrator AND active AND password_hash IS NOT NULL');
  if ((left?.count ?? 0) === 0) throw new DomainError({ code: 'last_administrator' });
  const note = (action: PersonAction): Promise<void> => notePersonEvent(work, { action, by: by.id, about: id });
  if (after.active !== before.active) await note(after.active ? 'activated' : 'deactivated');
  if (after.administrator !== before.administrator) await note(after.administrator ? 'administratorMade' : 'administratorUnmade');
  if (!after.active) await endSessionsOf(work, id);
  return accountOf(work, id);
}

async function accountOf(work: UnitOfWork, id: string): Promise<Account> {
  const [row] = await selectRows(work, accountRow, `${SELECT} WHERE person.id = $1`, [id]);
  if (row === undefined) throw new DomainError({ code: 'account_unknown', who: 'this person' });
  return toAccount(row);
}
