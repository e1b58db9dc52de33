import type { CoveringId } from '@caderno/core/artefacts';
import { EMPTY_SUITE, TOUCHES, ownerOf, touchOf, touchedEntries, type Touch, type TouchedMember } from '@caderno/core/suites';
import type { AskTouched } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, failureSentence } from '../api/index.ts';
import { useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, countOf } from '../look/index.ts';
import { newEntryId } from './newEntryId.ts';
import { TickMembers, type Ticked } from './TickMembers.tsx';
import { useMemberTitle } from './memberTitle.ts';

interface Props {
  readonly of: AskTouched;
  /** Named for a suite of them, as `B-1 until now`. */
  readonly change: string;
  readonly onClose: () => void;
}

/** The cases and scenarios that a change touches, each with why; those that are ticked become a suite. */
export function TouchedDialog({ of, change, onClose }: Props) {
  const { project } = useFrame();
  const { data, error } = useQuery({ queryKey: [project, 'list', 'suite', 'touched', of], queryFn: () => call('findTouched', { params: { project }, body: of }), gcTime: 0 });
  return (
    <Dialog title="Cases it touches" onClose={onClose} wide>
      {data === undefined || data.touched.length === 0 ? (
        <>
          <p className="text-ink2">{data !== undefined ? nothingWords(data.changed + data.constants.length) : error === null ? 'Looking …' : failureSentence(error)}</p>
          <p className="mt-4 text-right">
            <Button onClick={onClose}>Close</Button>
          </p>
        </>
      ) : (
        <Touched touched={data.touched} change={change} onClose={onClose} />
      )}
    </Dialog>
  );
}

function nothingWords(changed: number): string {
  return changed === 0 ? 'Nothing changed what it means, so no case has to be looked at again.' : 'No case or scenario uses or covers any of it.';
}

const TOUCH_WORD: Record<Touch, string> = { itself: 'Changed themselves', uses: 'Use what changed', covers: 'Cover what changed' };

function Touched({ touched, change, onClose }: Pick<Props, 'change' | 'onClose'> & { readonly touched: readonly TouchedMember[] }) {
  const { project, canEdit } = useFrame();
  const titleOf = useMemberTitle(project);
  const write = useWrite(project);
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<CoveringId>>(() => new Set(touched.map((t) => t.of)));
  const chosen = touched.filter((t) => ticked.has(t.of));
  const make = async (): Promise<void> => {
    setBusy(true);
    const entries = touchedEntries(chosen, (touch) => TOUCH_WORD[touch], newEntryId);
    const made = await write({ made: [{ kind: 'suite', content: { ...EMPTY_SUITE, title: `Touched by ${change}`, entries }, under: null }], detail: `a suite of ${countOf(chosen.length, 'member')}` });
    setBusy(false);
    const [id] = made ?? [];
    if (id === undefined) return;
    onClose();
    await navigate(address.artefact(project, id));
  };
  return (
    <>
      {TOUCHES.map((touch) => {
        const offered = touched.filter((t) => touchOf(t) === touch).map((t): Ticked => ({ id: t.of, title: titleOf(t.of) ?? '', note: throughWords(t) }));
        return (
          offered.length > 0 && (
            <section key={touch} aria-label={TOUCH_WORD[touch]} className="mb-3">
              <h3 className="text-sm font-semibold">
                {TOUCH_WORD[touch]} <span className="font-normal text-ink2">{countOf(offered.length, 'member')}</span>
              </h3>
              <TickMembers label={TOUCH_WORD[touch]} offered={offered} ticked={ticked} onTick={(next) => setTicked(new Set([...[...ticked].filter((id) => !offered.some((o) => o.id === id)), ...next]))} />
            </section>
          )
        );
      })}
      <p className="text-xs text-ink2">What a secret constant or another setting changes is not among them.</p>
      <p className="mt-4 flex items-center justify-end gap-2">
        <Button onClick={onClose}>{canEdit ? 'Cancel' : 'Close'}</Button>
        {canEdit && (
          <Button look="accent" disabled={busy || chosen.length === 0} onClick={() => void make()}>
            Make a suite of {countOf(chosen.length, 'member')}
          </Button>
        )}
      </p>
    </>
  );
}

const MOST_NAMED = 4;

/** What of the change does, but for what is said by the heading. */
function throughWords({ of, through, constants, rows }: TouchedMember): string {
  const others = [...through.filter((id) => id !== ownerOf(of)), ...constants.map((name) => `<${name}>`)];
  return [...(others.length === 0 ? [] : [fewNamed(others)]), ...(rows === null ? [] : [rows.length === 0 ? 'only rows were taken away' : `only ${rows.length === 1 ? 'the row' : 'the rows'} ${fewNamed(rows)}`])].join(': ');
}

function fewNamed(names: readonly string[]): string {
  return names.length > MOST_NAMED ? `${names.slice(0, MOST_NAMED).join(', ')} …` : names.join(', ');
}
