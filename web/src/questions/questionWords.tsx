import type { QuestionStatus } from '@caderno/core/basis';
import type { QuestionSummary } from '@caderno/contract';
import type { RowsKnown } from '../api/index.ts';

const QUESTION_STATUS_WORD: Record<QuestionStatus, string> = { open: 'open', answered: 'answered', withdrawn: 'withdrawn' };
const INK: Record<QuestionStatus, string> = { open: 'text-plum', answered: 'text-pine', withdrawn: 'text-ink2' };

export function StatusWord({ status }: { readonly status: QuestionStatus }) {
  return <span className={`font-semibold ${INK[status]}`}>{QUESTION_STATUS_WORD[status]}</span>;
}

/** Open ones first, of them those that hold up most; then the newest. Questions that were withdrawn as a whole are left out. */
export function byHeldUp(questions: readonly QuestionSummary[], known: RowsKnown | null): QuestionSummary[] {
  const rank: Record<QuestionStatus, number> = { open: 0, answered: 1, withdrawn: 2 };
  return [...questions].sort((a, b) => rank[a.status] - rank[b.status] || (known?.heldUp(b.id) ?? 0) - (known?.heldUp(a.id) ?? 0) || (a.at < b.at ? 1 : -1));
}
