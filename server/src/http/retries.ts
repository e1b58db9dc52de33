import type { AnyEndpoint, Operation } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Admitted } from './context.ts';

/** A command as its sender names it: the same person with the same operation and id means the same command. */
export interface NamedCommand {
  readonly id: string;
  readonly person: string;
  readonly operation: string;
}

/** Answers that hold what is stored nowhere readable. */
const NEVER_KEPT: ReadonlySet<Operation> = new Set(['revealConstant', 'makeResetLink']);

/** The command a call carries out, when its answer is to be kept for whoever sends it again. */
export function commandOf({ commandId, person }: Pick<Admitted, 'commandId' | 'person'>, name: Operation, endpoint: AnyEndpoint): NamedCommand | null {
  if (endpoint.method === 'GET' || commandId === null || person === null || NEVER_KEPT.has(name)) return null;
  return { id: commandId, person: person.id, operation: name };
}

/**
 * Carries a command out once: whoever sends it again, whatever happened meanwhile, gets the answer of the first time.
 * Of several at the same moment the others wait for the first. The answer is kept in the command's own transaction.
 * @throws {DomainError} when the id belongs to another command.
 */
export async function answerOnce(work: UnitOfWork, command: NamedCommand, carryOut: () => Promise<string>): Promise<string> {
  await execute(work, 'SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [command.id]);
  const earlier = await keptAnswer(work, command);
  if (earlier !== null) return earlier;
  const answer = await carryOut();
  await keepAnswer(work, command, answer);
  return answer;
}

const answerRow = z.object({ person: z.string(), operation: z.string(), answer: z.string() });

/** What the command was answered before; null when it is new. @throws {DomainError} when the id belongs to another command. */
export async function keptAnswer(work: UnitOfWork, { id, person, operation }: NamedCommand): Promise<string | null> {
  const [kept] = await selectRows(work, answerRow, 'SELECT person_id AS person, operation, answer FROM command_answer WHERE command_id = $1', [id]);
  if (kept === undefined) return null;
  if (kept.person !== person || kept.operation !== operation) throw new DomainError({ code: 'command_id_taken' });
  return kept.answer;
}

export async function keepAnswer(work: UnitOfWork, { id, person, operation }: NamedCommand, answer: string): Promise<void> {
  await execute(work, 'INSERT INTO command_answer (command_id, person_id, operation, answer) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING', [id, person, operation, answer]);
}
