import type { Sequelize } from 'sequelize';
import { sweepAttachments } from '../artefacts/index.ts';
import { sweepMoments } from '../moments/index.ts';
import { execute, inTransaction } from '../database/index.ts';
import { sweepFiles } from '../exchange/index.ts';
import type { Files } from '../files/index.ts';
import { sweepMails } from '../mail/index.ts';

const EVERY_MS = 60 * 60_000;

/** How long the answer of a command is kept for whoever sends it again. */
const ANSWERS_DAYS = 14;

/** Removes what has served its time. Any number of servers may do so at once. */
export async function sweep(db: Sequelize, files: Files): Promise<void> {
  const statements = [
    `DELETE FROM command_answer WHERE at < now() - interval '${ANSWERS_DAYS} days'`,
    'DELETE FROM session WHERE expires_at < now()',
    'DELETE FROM reset_link WHERE expires_at < now()',
    'DELETE FROM email_link WHERE expires_at < now()',
    'DELETE FROM invitation WHERE expires_at < now()',
    `DELETE FROM sign_in_attempt WHERE at < now() - interval '1 hour'`,
    `DELETE FROM known_address WHERE at < now() - interval '180 days'`,
  ];
  for (const sql of statements) await inTransaction(db, (work) => execute(work, sql));
  await inTransaction(db, sweepFiles);
  await inTransaction(db, sweepMoments);
  await inTransaction(db, sweepMails);
  await inTransaction(db, sweepAttachments);
  await files.sweep();
}

/** Sweeps now and every hour; answers how to stop. What fails is told and tried again. */
export function startUpkeep(db: Sequelize, files: Files, onFailure: (error: unknown) => void): () => void {
  const run = (): void => void sweep(db, files).catch(onFailure);
  const timer = setInterval(run, EVERY_MS).unref();
  run();
  return () => clearInterval(timer);
}
