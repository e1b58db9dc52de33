import type { BodyOf } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { inTransaction, modelsOf, selectRows } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { hasAccounts } from './accounts.ts';
import { countAttempt, forgetAttempts } from './attempts.ts';
import { notePersonEvent } from './events.ts';
import { passwordMatches } from './password.ts';
import { startSession, type DemoSignIn } from './session.ts';

/** Where somebody signs in from. */
export interface Entrance {
  readonly db: Sequelize;
  readonly demoSignIn: DemoSignIn;
  readonly address: string;
  readonly agent: string;
}

/** Starts a session for whoever may; answers its token and its person. Nothing is held while the password is looked at. */
export async function signIn(entrance: Entrance, body: BodyOf<'signIn'>): Promise<{ readonly token: string; readonly person: string }> {
  return 'demoPerson' in body ? enterDemo(entrance, body.demoPerson) : enterByPassword(entrance, body.email.toLowerCase(), body.password);
}

async function enterDemo({ db, demoSignIn, agent }: Entrance, id: string): Promise<{ token: string; person: string }> {
  return inTransaction(db, async (work) => {
    const person = await modelsOf(db).Person.findByPk(id, { transaction: work.transaction });
    if (person === null || person.demoJob === null) throw new DomainError({ code: 'sign_in_failed' });
    if (demoSignIn === 'never' || (demoSignIn === 'whileAlone' && (await hasAccounts(work)))) throw new DomainError({ code: 'demo_closed' });
    return { token: await startSession(work, id, agent), person: id };
  });
}

const signInRow = z.object({ id: z.string(), passwordHash: z.string().nullable(), active: z.boolean() });

async function enterByPassword({ db, address, agent }: Entrance, email: string, password: string): Promise<{ token: string; person: string }> {
  await inTransaction(db, (work) => countAttempt(work, email, address));
  const account = await inTransaction(db, async (work) => {
    const [found] = await selectRows(work, signInRow, 'SELECT id, password_hash AS "passwordHash", active FROM person WHERE email = $1', [email]);
    return found ?? null;
  });
  // Of an account that is not active nobody learns more than of one that is not there.
  const right = await passwordMatches(account?.active === true ? account.passwordHash : null, password);
  if (!right || account === null) {
    if (account !== null) await inTransaction(db, (work) => notePersonEvent(work, { action: 'signInRefused', by: null, about: account.id, detail: address }));
    throw new DomainError({ code: 'sign_in_failed' });
  }
  return inTransaction(db, async (work) => {
    await forgetAttempts(work, account.id, email, address);
    await notePersonEvent(work, { action: 'signedIn', by: account.id, detail: address });
    return { token: await startSession(work, account.id, agent), person: account.id };
  });
}
