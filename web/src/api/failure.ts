import { refusalSentence, type RefusalCode } from '@caderno/contract';
import { notify } from '../look/index.ts';
import { RefusedCall, Unreachable } from './client.ts';

/** What went wrong, what was kept and what to do, in words. */
export function failureSentence(error: unknown): string {
  if (error instanceof RefusedCall) return refusalSentence(error.refusal);
  if (error instanceof Unreachable) return 'The server does not answer. What you typed is kept here; it is sent as soon as the server is back.';
  return `Something went wrong on this page: ${error instanceof Error ? error.message : String(error)}. What you typed is kept; reload the page.`;
}

export function tellFailure(error: unknown): void {
  notify((notices) => notices.error(failureSentence(error), { duration: 9000 }));
}

/** Refusals that say nothing of what was sent: the same may be taken a little later. */
const PASSING: ReadonlySet<RefusalCode> = new Set(['database_unavailable', 'server_stopping', 'disk_full', 'too_much_at_once', 'project_busy']);

/** Whether trying again later may help: the server, its database or its disk is not there for the moment. */
export function isPassing(error: unknown): boolean {
  return error instanceof Unreachable || (error instanceof RefusedCall && PASSING.has(error.refusal.code));
}

/** Whether the server no longer knows who asks. */
export function isSignedOut(error: unknown): boolean {
  return error instanceof RefusedCall && error.refusal.code === 'not_signed_in';
}

/** Whether somebody sees more of a project, or less, than they did when they came. */
export function isSeenOtherwise(error: unknown): boolean {
  return error instanceof RefusedCall && (error.refusal.code === 'part_only' || error.refusal.code === 'moment_unknown');
}
