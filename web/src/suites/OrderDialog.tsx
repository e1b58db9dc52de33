import type { CoveringId } from '@caderno/core/artefacts';
import { EMPTY_SUITE, entriesInOrder, riskCurve, runsInAround, type Ordering, type ShowingMember, type ShowingMembers, type SuiteEntry } from '@caderno/core/suites';
import { useMemo, useState } from 'react';
import { failureSentence } from '../api/index.ts';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, locale, Tick } from '../look/index.ts';
import { newEntryId } from '../suiteMembers/index.ts';
import { InTime } from './InTime.tsx';
import { RiskCurves, soonerWords } from './RiskCurves.tsx';
import { useShowing, type WrittenSuite } from './suiteQueries.ts';
import { useWorkedOut } from './useWorkedOut.ts';

interface Props {
  readonly suite: WrittenSuite;
  readonly edit: (change: (entries: readonly SuiteEntry[]) => readonly SuiteEntry[]) => void;
  readonly onRemove: (members: readonly CoveringId[]) => void;
  readonly onClose: () => void;
}

/** How soon a suite shows what it shows: the order it is in beside one that shows most risk soonest, and what fits in some minutes. */
export function OrderDialog({ suite, edit, onRemove, onClose }: Props) {
  // What is worked out is of the suite as it was when it was asked for.
  const [asked] = useState(suite);
  const { data, error } = useShowing(asked);
  const nothing = data !== undefined && data.weights.length === 0;
  return (
    <Dialog title="Order and time" onClose={onClose} wide>
      {data !== undefined && !nothing ? (
        <Found showing={data} asked={asked} edit={edit} onRemove={onRemove} onClose={onClose} />
      ) : (
        <>
          <p className="text-ink2">{nothing ? 'Its members show no coverage items yet, so nothing is worth more than the rest.' : error === null ? 'Reading …' : failureSentence(error)}</p>
          <p className="mt-4 text-right">
            <Button onClick={onClose}>{nothing ? 'Close' : 'Cancel'}</Button>
          </p>
        </>
      )}
    </Dialog>
  );
}

/** Makes a suite of some members, each at the version that was picked and in the configurations in which it runs, named by the minutes they were chosen for, and opens it. */
function useMake({ entries: asked, configurations }: WrittenSuite): (members: readonly ShowingMember[], minutes: number) => void {
  const { project } = useFrame();
  const makeAndOpen = useMakeAndOpen(project);
  return (members, minutes) => {
    const entries = members.map(({ of, part }): SuiteEntry => {
      const picked = asked.find((e) => e.kind === 'member' && e.of === of);
      const place = picked ?? asked.find((e) => e.id === part);
      return { kind: 'member', id: newEntryId(), of, pinned: picked?.kind === 'member' ? picked.pinned : null, runsIn: place === undefined ? null : (place.runsIn ?? runsInAround(asked, place.id)) };
    });
    void makeAndOpen({ kind: 'suite', content: { ...EMPTY_SUITE, title: `What fits in ${minutes.toLocaleString(locale())} minutes`, configurations, entries } });
  };
}

const PLACES = [{ value: 'parts', name: 'stay in their parts' }, { value: 'list', name: 'one list, without headings' }] as const;

function Found({ showing, asked, edit, onRemove, onClose }: Omit<Props, 'suite'> & { readonly showing: ShowingMembers; readonly asked: WrittenSuite }) {
  const [ordering, setOrdering] = useState<Ordering>({ inParts: true, together: false });
  const [minutes, setMinutes] = useState<number | null>(null);
  const { found: order, state } = useWorkedOut(useMemo(() => ({ kind: 'order' as const, showing, ordering }), [ordering, showing]));
  const now = useMemo(() => riskCurve(showing, showing.members.map((m) => m.of)), [showing]);
  const then = useMemo(() => (order === undefined ? null : riskCurve(showing, order)), [order, showing]);
  const make = useMake(asked);
  const isSame = order !== undefined && showing.members.every((m, i) => m.of === order[i]);
  const setUps = showing.members.map((m) => m.setUp).filter((s) => s !== null);
  return (
    <>
      <p className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
        {asked.entries.some((e) => e.kind === 'part') && <Choose label="Members" showLabel value={ordering.inParts ? 'parts' : 'list'} options={PLACES} onChange={(place) => setOrdering({ ...ordering, inParts: place === 'parts' })} />}
        {new Set(setUps).size < setUps.length && (
          <Tick checked={ordering.together} onChange={(ticked) => setOrdering({ ...ordering, together: ticked })}>
            those with the same preconditions, or of one feature, together
          </Tick>
        )}
      </p>
      <RiskCurves now={now} then={then} at={minutes} />
      <p role="status" className="mt-1 text-sm">
        {state === 'failed' ? 'The order could not be worked out here. Nothing was changed; try it again.' : then === null ? 'Working it out …' : isSame ? (showing.members.every((m) => m.kept) ? 'What rules find stays in the order of its numbers.' : 'It is in the order in which most risk is shown soonest.') : soonerWords(now, then)}
      </p>
      <InTime showing={showing} minutes={minutes} onMinutes={setMinutes} onRemove={(members) => (onRemove(members), onClose())} onMake={(members, limit) => make((order ?? []).filter((of) => members.includes(of)).flatMap((of) => showing.members.find((m) => m.of === of) ?? []), limit)} />
      <p className="mt-4 flex items-center justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button
          look="accent"
          disabled={order === undefined || isSame}
          onClick={() => {
            if (order !== undefined) edit((entries) => entriesInOrder(entries, order, ordering));
            onClose();
          }}
        >
          Put them in this order
        </Button>
      </p>
    </>
  );
}
