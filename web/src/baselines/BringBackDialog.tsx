import type { BaselineNumber } from '@caderno/core/baselines';
import { BROUGHT_BACK, type BringBack, type BringBackPlan, type BroughtBack } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, failureSentence, tellFailure } from '../api/index.ts';
import { leftSentence } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Busy, Button, Dialog, countOf, locale, Tick } from '../look/index.ts';

interface Props {
  readonly from: BaselineNumber;
  readonly of: BringBack['of'];
  readonly onClose: () => void;
}

const DOES_WORDS: Record<BroughtBack, string> = { content: 'get back what they said, as a new version', return: 'are there again, as drafts', withdraw: 'are withdrawn, as they were not there then' };
const DOES_WORDS_ONE: Record<BroughtBack, string> = { content: 'gets back what it said, as a new version', return: 'is there again, as a draft', withdraw: 'is withdrawn, as it was not there then' };

/** What bringing back would change, and the button that does it. */
export function BringBackDialog({ from, of: asked, onClose }: Props) {
  const { project } = useFrame();
  const [withdraw, setWithdraw] = useState(false);
  const [busy, setBusy] = useState(false);
  const [commandId] = useState(() => crypto.randomUUID());
  const isEverything = 'everything' in asked;
  const of: BringBack['of'] = isEverything ? { everything: true, withdraw } : asked;
  const { data: plan, error } = useQuery({
    queryKey: [project, 'frozenChanges', from, 'back', of],
    queryFn: () => call('planBringBack', { params: { project, baseline: from }, body: { of } }),
    placeholderData: keepPreviousData,
  });
  const count = plan === undefined ? 0 : BROUGHT_BACK.reduce((sum, does) => sum + plan.counts[does], 0);
  const bring = async (): Promise<void> => {
    setBusy(true);
    try {
      const { changed, left } = await call('bringBack', { params: { project, baseline: from }, body: { of } }, { commandId });
      if (left.length > 0) toast.warning(leftSentence(left), { duration: 9000 });
      if (changed > 0) toast.success(`${changed.toLocaleString(locale())} brought back to B-${from}. The journal can undo it.`);
      onClose();
    } catch (failure) {
      tellFailure(failure);
      setBusy(false);
    }
  };
  return (
    <Dialog title={`Bring ${isEverything ? 'everything' : 'what is selected'} back to B-${from}`} onClose={onClose}>
      {plan === undefined ? <p className="text-ink2">{error === null ? 'Looking at what that changes …' : failureSentence(error)}</p> : <Plan plan={plan} count={count} />}
      {isEverything && (
        <Tick checked={withdraw} onChange={setWithdraw} className="mt-3 text-sm">
          Withdraw what was added since, too
        </Tick>
      )}
      <div className="mt-4 flex items-center justify-end gap-2">
        {busy && <Busy>Bringing it back …</Busy>}
        <Button onClick={onClose}>Cancel</Button>
        <Button look="accent" disabled={busy || count === 0} onClick={() => void bring()}>
          Bring {count === 1 ? 'it' : count.toLocaleString(locale())} back
        </Button>
      </div>
    </Dialog>
  );
}

function Plan({ plan, count }: { readonly plan: BringBackPlan; readonly count: number }) {
  if (count === 0) return <p className="text-ink2">All of it is as it was: nothing would change.</p>;
  const more = count - plan.lines.length;
  return (
    <div className="text-sm">
      <div className="max-h-[45vh] overflow-y-auto border-b border-rule" tabIndex={0} role="region" aria-label="What would change">
        {BROUGHT_BACK.map((does) => {
          const lines = plan.lines.filter((l) => l.does === does);
          return plan.counts[does] === 0 ? null : (
            <section key={does} className="mb-2">
              <h3 className="font-semibold">
                {plan.counts[does].toLocaleString(locale())} {(plan.counts[does] === 1 ? DOES_WORDS_ONE : DOES_WORDS)[does]}
              </h3>
              <ul>
                {lines.map(({ id, title, alongWith }) => (
                  <li key={id} className="flex items-baseline gap-2 border-t border-rule py-1">
                    <span className="w-11 shrink-0 font-mono text-xs text-ink2">{id}</span>
                    <span className="min-w-0 flex-1">{title}</span>
                    {alongWith !== null && <span className="shrink-0 text-xs text-ochre-ink">needed by {alongWith}</span>}
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
        {more > 0 && <p className="py-1 text-ink2">and {more.toLocaleString(locale())} more</p>}
      </div>
      <ul className="mt-2 space-y-0.5 text-ink2">
        {plan.agreed > 0 && <li>{plan.agreed === 1 ? 'One of them is agreed now and becomes a draft.' : `${plan.agreed.toLocaleString(locale())} of them are agreed now and become drafts.`}</li>}
        {plan.drafts > 0 && <li>Somebody is writing in {plan.drafts === 1 ? 'one' : plan.drafts.toLocaleString(locale())} of them: that is kept, and shown beside what comes back.</li>}
        {plan.users.length > 0 && <li>Used by {usersWords(plan.users)}, which {plan.users.length === 1 ? 'stays as it is' : 'stay as they are'}.</li>}
        <li>It is one entry of the journal, which can undo it.</li>
      </ul>
    </div>
  );
}

const MOST_NAMED = 6;

function usersWords(users: BringBackPlan['users']): string {
  const rest = users.length - MOST_NAMED;
  return users.slice(0, MOST_NAMED).join(', ') + (rest > 0 ? ` and ${countOf(rest, 'other')}` : '');
}
