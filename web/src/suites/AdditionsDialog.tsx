import type { CoveringId } from '@caderno/core/artefacts';
import type { AskedItems } from '@caderno/core/coverage';
import { useState } from 'react';
import { failureSentence } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, RISK_WORD, TextButton, countOf } from '../look/index.ts';
import { TickMembers, useMemberTitle, type Ticked } from '../suiteMembers/index.ts';
import { useAdditions, type WrittenSuite } from './suiteQueries.ts';

interface Props {
  readonly suite: WrittenSuite;
  readonly missed: AskedItems;
  readonly onAdd: (members: readonly CoveringId[]) => void;
  readonly onClose: () => void;
}

/** What would show what the suite misses: few, the one that adds most first; those that stay ticked are added. */
export function AdditionsDialog({ suite, missed, onAdd, onClose }: Props) {
  const { project } = useFrame();
  const titleOf = useMemberTitle(project);
  // What is proposed stays as it was when it was asked for.
  const [asked] = useState(suite);
  const { data, error } = useAdditions(asked, missed);
  const [without, setWithout] = useState<ReadonlySet<CoveringId>>(new Set());
  const offered = (data?.proposed ?? []).map(({ id, adds }): Ticked => ({ id, title: titleOf(id) ?? '', note: `${countOf(adds, 'item')} more` }));
  const ticked = new Set(offered.flatMap((o) => (without.has(o.id) ? [] : [o.id])));
  const add = (): void => {
    onAdd([...ticked]);
    onClose();
  };
  return (
    <Dialog title={missed.risk === undefined ? 'Add what is missing' : `Add what is missing of ${RISK_WORD[missed.risk].toLowerCase()}`} onClose={onClose} wide>
      {data === undefined && <p className="text-ink2">{error === null ? 'Looking …' : failureSentence(error)}</p>}
      {data !== undefined && offered.length === 0 && <p>Nothing in the project shows more of it.</p>}
      {offered.length > 0 && (
        <>
          <p className="mb-2 text-sm text-ink2">Together these show all that anything in the project shows. The first adds most; each next one says what it adds to those above it.</p>
          <TickMembers label="What would show what is missing" offered={offered} ticked={ticked} onTick={(next) => setWithout(new Set(offered.flatMap((o) => (next.has(o.id) ? [] : [o.id]))))} />
        </>
      )}
      {data !== undefined && data.shownByNothing > 0 && <p className="mt-2 text-sm text-ink2">{countOf(data.shownByNothing, 'item is', 'items are')} shown by nothing yet: no suite can show {data.shownByNothing === 1 ? 'it' : 'them'}.</p>}
      <p className="mt-4 flex items-center justify-end gap-2">
        {offered.length > 0 && (
          <span className="mr-auto">
            <TextButton onClick={() => setWithout(ticked.size === 0 ? new Set() : new Set(offered.map((o) => o.id)))}>{ticked.size === 0 ? 'all' : 'none'}</TextButton>
          </span>
        )}
        <Button onClick={onClose}>Cancel</Button>
        <Button look="accent" disabled={ticked.size === 0} onClick={add}>
          Add {countOf(ticked.size, 'member')}
        </Button>
      </p>
    </Dialog>
  );
}
