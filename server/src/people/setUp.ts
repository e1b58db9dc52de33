import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import type { SetUp } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { createAccount, hasAccounts } from './accounts.ts';
import { notePersonEvent } from './events.ts';
import { hashPassword, refuseWeakPassword } from './password.ts';

const WORD = 'set-up word';
/** No letters that are taken for others. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A new word for the first administrator, of which the database holds the hash; null when there are accounts already. */
export async function makeSetUpWord(db: Sequelize): Promise<string | null> {
  const word = Array.from({ length: 3 }, () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join('')).join('-');
  return inTransaction(db, async (work) => {
    if (await hasAccounts(work)) return null;
    await execute(work, 'INSERT INTO installation (name, value) VALUES ($1, $2) ON CONFLICT (name) DO UPDATE SET value = excluded.value', [WORD, hashed(word)]);
    return word;
  });
}

function hashed(word: string): string {
  return createHash('sha256').update(word).digest('hex');
}

/** Makes the first administrator; answers their id. @throws {DomainError} when there is an account already, or the word is not the one that was printed. */
export async function setUp(db: Sequelize, { word, ...account }: SetUp): Promise<string> {
  await inTransaction(db, (work) => refuseSetUp(work, word));
  refuseWeakPassword(account.password, [account.name, account.email]);
  const passwordHash = await hashPassword(account.password);
  return inTransaction(db, async (work) => {
    await work.db.query('LOCK TABLE person IN EXCLUSIVE MODE', { transaction: work.transaction });
    await refuseSetUp(work, word);
    const id = await createAccount(work, account, passwordHash, true);
    await execute(work, 'DELETE FROM installation WHERE name = $1', [WORD]);
    await notePersonEvent(work, { action: 'setUp', by: id });
    return id;
  });
}

const wordRow = z.object({ value: z.string() });

async function refuseSetUp(work: UnitOfWork, word: string): Promise<void> {
  if (await hasAccounts(work)) throw new DomainError({ code: 'set_up_already' });
  const [kept] = await selectRows(work, wordRow, 'SELECT value FROM installation WHERE name = $1', [WORD]);
  if (kept === undefined || !timingSafeEqual(Buffer.from(hashed(word.trim().toLowerCase())), Buffer.from(kept.value))) throw new DomainError({ code: 'set_up_word_wrong' });
}
