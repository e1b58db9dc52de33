import { move, transferableSymbol, valueSymbol, workerData } from 'piscina';
import { openDatabase } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { SecretBox } from '../secrets/index.ts';
import { carryOutHeld, isHeld } from './held.ts';
import type { LaneGiven, LaneJob, LaneReply } from './heavyLane.ts';

const { databaseUrl, key, demoSignIn, mail } = workerData as LaneGiven;
const db = openDatabase(databaseUrl, { most: 2 });
const secrets = new SecretBox(Buffer.from(key));

/** Carries out one request as the server itself would. */
export default async function carryOut({ request, at }: LaneJob): Promise<LaneReply> {
  try {
    if (!isHeld(request)) throw new Error(`A thread carries out what works in one transaction: got ${request.name}`);
    const answer = await carryOutHeld(db, { demoSignIn, mail, secrets, now: () => at }, request, noSession, false);
    if (typeof answer !== 'string') throw new Error(`A thread answers with JSON: expected it of ${request.name}, got a file`);
    const bytes = new TextEncoder().encode(answer);
    // Piscina moves what is named and hands over the value beside it: the reply itself.
    return move({ [transferableSymbol]: bytes.buffer, [valueSymbol]: { ok: true, bytes } }) as unknown as LaneReply;
  } catch (error) {
    if (error instanceof DomainError) return { ok: false, refusal: error.refusal };
    throw error;
  }
}

function noSession(): void {
  throw new Error('A session is opened and closed by the server itself');
}
