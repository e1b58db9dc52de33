import type { CoveringId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { Button, Dialog, TextButton, countOf } from '../look/index.ts';
import { AddToSuite, TickMembers } from '../suiteMembers/index.ts';
import type { Outside } from './useOutside.ts';

interface Props {
  readonly outside: readonly Outside[];
  readonly onClose: () => void;
}

/** Cases and scenarios that are in no suite; some of them are ticked and put into one. */
export function OutsideDialog({ outside, onClose }: Props) {
  const [ticked, setTicked] = useState<ReadonlySet<CoveringId>>(new Set());
  const [adding, setAdding] = useState(false);
  const all = ticked.size === outside.length;
  if (adding) return <AddToSuite members={outside.flatMap((o) => (ticked.has(o.id) ? [o.id] : []))} onClose={onClose} />;
  return (
    <Dialog title="In no suite" onClose={onClose} wide>
      <TickMembers label="Cases and scenarios in no suite" offered={outside} ticked={ticked} onTick={setTicked} />
      <p className="mt-4 flex items-center gap-3">
        <TextButton onClick={() => setTicked(all ? new Set() : new Set(outside.map((o) => o.id)))}>{all ? 'none' : `all ${outside.length}`}</TextButton>
        <span className="ml-auto flex gap-2">
          <Button onClick={onClose}>Close</Button>
          <Button look="accent" disabled={ticked.size === 0} onClick={() => setAdding(true)}>
            Add {countOf(ticked.size, 'member')} to a suite
          </Button>
        </span>
      </p>
    </Dialog>
  );
}
