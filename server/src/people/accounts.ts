import type { NewAccount } from '@caderno/contract';
import { answersAny, modelsOf, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** Whether anybody has an account with a password. */
export async function hasAccounts(work: UnitOfWork): Promise<boolean> {
  return answersAny(work, 'SELECT 1 FROM person WHERE password_hash IS NOT NULL LIMIT 1');
}

/** Makes an account; its password was hashed before, while nothing was held. @throws {DomainError} when the address has one. */
export async function createAccount(work: UnitOfWork, account: Pick<NewAccount, 'name' | 'email'>, passwordHash: string, administrator: boolean): Promise<string> {
  const { Person } = modelsOf(work.db);
  const email = account.email.toLowerCase();
  // Two at once would both find that there is none.
  await work.db.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 1))', { bind: [email], transaction: work.transaction });
  if ((await Person.count({ where: { email }, transaction: work.transaction })) > 0) throw new DomainError({ code: 'person_exists', email });
  const person = await Person.create({ name: account.name, email, passwordHash, administrator, demoJob: null }, { transaction: work.transaction });
  return person.id;
}

/** A person of the demo: no password, signed in as by a click. */
export async function createDemoPerson(work: UnitOfWork, person: { name: string; email: string; job: string; administrator: boolean }): Promise<string> {
  const row = await modelsOf(work.db).Person.create(
    { name: person.name, email: person.email, passwordHash: null, administrator: person.administrator, demoJob: person.job },
    { transaction: work.transaction },
  );
  return row.id;
}
