import type { CoveringId } from '@caderno/core/artefacts';
import { leftOut, smallerProblem, type ShowingMembers, type SmallerBy } from '@caderno/core/suites';
import { useMemo, useState } from 'react';
import { failureSentence } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Busy, Button, Choose, Dialog, TextButton, countOf } from '../look/index.ts';
import { TickMembers, useMemberTitle, type Ticked } from '../suiteMembers/index.ts';
import { useShowing, type WrittenSuite } from './suiteQueries.ts';
import { BY, SmallestSaid } from './SmallestSaid.tsx';
import { useWorkedOut } from './useWorkedOut.ts';

interface Props {
  readonly suite: WrittenSuite;
  readonly onRemove: (members: readonly CoveringId[]) => void;
  readonly onClose: () => void;
}

/** How long is looked for something smaller before what was found is taken. */
const SECONDS = 60;

/** The smallest suite that shows the same: who would be left out, and why that takes nothing away. */
export function SmallerDialog({ suite, onRemove, onClose }: Props) {
  // What is worked out is of the suite as it was when it was asked for.
  const [asked] = useState(suite);
  const { data, error } = useShowing(asked);
  const [by, setBy] = useState<SmallerBy>('cases');
  return (
    <Dialog title="Make it smaller" onClose={onClose} wide>
      <p className="mb-3 flex flex-wrap items-center gap-3 text-sm">
        <Choose label="As small as possible" showLabel value={by} options={BY} onChange={setBy} />
        <span className="text-ink2">It is to show the same items as now, with what its members depend on.</span>
      </p>
      {data === undefined ? (
        <>
          <p className="text-ink2">{error === null ? 'Reading …' : failureSentence(error)}</p>
          <p className="mt-4 text-right">
            <Button onClick={onClose}>Cancel</Button>
          </p>
        </>
      ) : (
        <Found key={by} showing={data} by={by} onRemove={onRemove} onClose={onClose} />
      )}
    </Dialog>
  );
}

function Found({ showing, by, onRemove, onClose }: Pick<Props, 'onRemove' | 'onClose'> & { readonly showing: ShowingMembers; readonly by: SmallerBy }) {
  const { project } = useFrame();
  const titleOf = useMemberTitle(project);
  const smallest = useWorkedOut(useMemo(() => ({ kind: 'smallest' as const, problem: smallerProblem(showing, by), seconds: SECONDS }), [by, showing]));
  const { found: cover, state } = smallest;
  const left = useMemo(() => (cover === undefined ? [] : leftOut(showing, cover.chosen)), [cover, showing]);
  const [stays, setStays] = useState<ReadonlySet<CoveringId>>(new Set());
  const offered = left.map(({ of, items, shownBy }): Ticked => ({ id: of, title: titleOf(of) ?? '', note: items === 0 ? 'it shows nothing' : `${items === 1 ? 'its item is' : `its ${countOf(items, 'item')} are`} shown by ${shownBy.slice(0, 4).join(', ')}${shownBy.length > 4 ? ' …' : ''}` }));
  const ticked = new Set(offered.flatMap((o) => (stays.has(o.id) ? [] : [o.id])));
  const byRule = showing.members.filter((m) => m.kept).length;
  const unknown = by === 'minutes' ? showing.members.filter((m) => m.minutes === null).length : 0;
  return (
    <>
      <SmallestSaid smallest={smallest} showing={showing} by={by} what="the same" />
      {offered.length > 0 && (
        <>
          <p className="mb-1 mt-3 text-sm font-semibold">Would be left out</p>
          <TickMembers label="Members that would be left out, with who shows their items" offered={offered} ticked={ticked} onTick={(next) => setStays(new Set(offered.flatMap((o) => (next.has(o.id) ? [] : [o.id]))))} />
        </>
      )}
      {byRule > 0 && <p className="mt-2 text-xs text-ink2">{countOf(byRule, 'member that a rule found stays', 'members that rules found stay')}: change the rule to leave {byRule === 1 ? 'it' : 'some'} out.</p>}
      {unknown > 0 && <p className="mt-2 text-xs text-ink2">Nobody said the minutes of {countOf(unknown, 'member')}: {unknown === 1 ? 'it counts' : 'they count'} as one minute an instance.</p>}
      <p className="mt-4 flex items-center justify-end gap-2">
        {state === 'working' && (
          <span className="mr-auto flex items-center gap-3 text-sm">
            <Busy>Looking for something smaller …</Busy>
            <TextButton onClick={smallest.stop}>stop</TextButton>
          </span>
        )}
        <Button onClick={onClose}>Cancel</Button>
        <Button
          look="accent"
          disabled={ticked.size === 0}
          onClick={() => {
            onRemove([...ticked]);
            onClose();
          }}
        >
          Take {countOf(ticked.size, 'member')} out
        </Button>
      </p>
    </>
  );
}
