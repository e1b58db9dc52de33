import { refusalSentence } from '@caderno/contract';
import { toast } from 'sonner';
import { RefusedCall, Unreachable } from './client.ts';

/** What went wrong, what was kept and what to do, in words. */
export function failureSentence(error: unknown): string {
  if (error instanceof RefusedCall) return refusalSentence(error.refusal);
  if (error instanceof Unreachable) return 'The server does not answer. What you typed is kept here; it is sent as soon as the server is back.';
  return `Something went wrong on this page: ${error instanceof Error ? error.message : String(error)}. What you typed is kept; reload the page.`;
}

export function tellFailure(error: unknown): void {
  toast.error(failureSentence(error), { duration: 9000 });
}

/** Whether trying again later may help: the server or its database is away for the moment. */
export function isPassing(error: unknown): boolean {
  return error instanceof Unreachable || (error instanceof RefusedCall && error.refusal.code === 'database_unavailable');
}
