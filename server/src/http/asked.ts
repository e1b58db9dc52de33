import type { AnswerTo, Question } from '../coverage/index.ts';
import { membershipOf, type Admitted } from './context.ts';

/** Asks the thread that has the coverage of the project that is called. */
export function ask<Q extends Question>(call: Admitted, question: Q): Promise<AnswerTo[Q['kind']]> {
  return call.parts.coverage.ask(membershipOf(call).projectId, question);
}
