import type { CoveringId } from '@caderno/core/artefacts';
import { isMost, withNeeds, type Most } from '@caderno/core/covering';
import { costOf, costWord, inTimeProblem, type ShowingMembers } from '@caderno/core/suites';
import { useEffect, useMemo, useState } from 'react';
import { Busy, TextButton, countOf, locale, minutesOf, Tick, NumberBox } from '../look/index.ts';
import { useWorkedOut, type WorkedOut } from './useWorkedOut.ts';

interface Props {
  readonly showing: ShowingMembers;
  /** Null: nothing is asked yet. */
  readonly minutes: number | null;
  readonly onMinutes: (minutes: number | null) => void;
  readonly onRemove: (members: readonly CoveringId[]) => void;
  /** Makes another suite of these. */
  readonly onMake: (members: readonly CoveringId[], minutes: number) => void;
}

/** What of a suite fits in some minutes so that most risk is shown. */
export function InTime({ showing, minutes, onMinutes, onRemove, onMake }: Props) {
  const all = Math.ceil(costWord(showing.members.reduce((sum, m) => sum + costOf(m, 'minutes'), 0), 'minutes'));
  const settled = useResting(minutes);
  const byRule = showing.members.filter((m) => m.kept).length;
  const [keepsFound, setKeepsFound] = useState(byRule < showing.members.length);
  return (
    <section aria-label="What fits" className="mt-3 border-t border-rule pt-2.5 text-sm">
      <p className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          There are only
          <NumberBox min={0} max={all} withParts value={minutes} onChange={onMinutes} className="w-20 text-right" />
          minutes
        </label>
        <input type="range" aria-label="Minutes there are" min={0} max={all} value={minutes ?? all} onChange={(e) => onMinutes(e.target.valueAsNumber)} className="h-6 min-w-40 flex-1 accent-blue" />
        <span className="text-ink2">of {minutesOf(all)}</span>
      </p>
      {byRule > 0 && settled !== null && (
        <Tick checked={keepsFound} onChange={setKeepsFound} className="mt-1">
          what rules found stays in it
        </Tick>
      )}
      {settled !== null && <Fits showing={showing} minutes={settled} keepsFound={keepsFound} onRemove={onRemove} onMake={onMake} />}
    </section>
  );
}

/** How long is looked for a choice that shows more before what was found is taken. */
const SECONDS = 60;

function Fits({ showing, minutes, keepsFound, onRemove, onMake }: Pick<Props, 'showing' | 'onRemove' | 'onMake'> & { readonly minutes: number; readonly keepsFound: boolean }) {
  const fits = useWorkedOut(useMemo(() => ({ kind: 'inTime' as const, problem: inTimeProblem(showing, minutes, keepsFound), seconds: SECONDS }), [keepsFound, minutes, showing]));
  const { found, state } = fits;
  const chosen = new Set(found?.chosen);
  const others = showing.members.filter((_, place) => !chosen.has(place));
  const unknown = showing.members.filter((m) => m.minutes === null).length;
  return (
    <>
      <p role="status" className="mt-2">
        {fitsWords(fits, showing)}
      </p>
      {unknown > 0 && <p className="mt-1 text-xs text-ink2">Nobody said the minutes of {countOf(unknown, 'member')}: {unknown === 1 ? 'it counts' : 'they count'} as one minute an instance.</p>}
      <p className="mt-1 flex items-center gap-4">
        {chosen.size > 0 && others.length > 0 && (
          <>
            {others.every((m) => !m.kept) && <TextButton onClick={() => onRemove(others.map((m) => m.of))}>take the other {countOf(others.length, 'member')} out</TextButton>}
            <TextButton onClick={() => onMake(showing.members.flatMap((m, place) => (chosen.has(place) ? [m.of] : [])), minutes)}>make a suite of {chosen.size === 1 ? 'this one' : `these ${chosen.size.toLocaleString(locale())}`}</TextButton>
          </>
        )}
        {state === 'working' && (
          <>
            <Busy>Looking for what shows more …</Busy>
            <TextButton onClick={fits.stop}>stop</TextButton>
          </>
        )}
      </p>
    </>
  );
}

function fitsWords({ found, state }: WorkedOut<Most | null>, showing: ShowingMembers): string {
  if (state === 'failed') return 'What fits could not be worked out here. Nothing was changed; try it again.';
  if (found === undefined) return 'Working it out …';
  if (found === null) return 'What rules found, with what it depends on, takes longer than that. Change the rules, or give it more time.';
  if (found.chosen.length === 0) return `Nothing of it fits: the shortest that shows anything takes ${minutesOf(shortest(showing))}, with what it depends on.`;
  const all = showing.weights.reduce((sum, weight) => sum + weight, 0);
  const share = (weight: number): string => `${Math.floor((100 * weight) / all)}\u00a0%`;
  const said = `${share(found.shown)} of the risk it shows, by ${found.chosen.length.toLocaleString(locale())} of ${countOf(showing.members.length, 'member')} in ${minutesOf(costWord(found.cost, 'minutes'))}.`;
  if (isMost(found)) return `${said} Proved: nothing shows more in that time.`;
  return `${said} At most ${share(found.bound)} could be${state === 'working' ? '.' : '; whether that can be was not proved.'}`;
}

/** With what it depends on: that is what has to fit. */
function shortest(showing: ShowingMembers): number {
  const { candidates } = inTimeProblem(showing, 0, false);
  const costs = candidates.flatMap(({ items }, place) => (items.length > 0 ? [[...withNeeds({ candidates }, [place])].reduce((sum, p) => sum + (candidates[p]?.cost ?? 0), 0)] : []));
  return costWord(costs.reduce((least, cost) => Math.min(least, cost), Number.POSITIVE_INFINITY), 'minutes');
}

const RESTS = 250;

/** A value once it has not changed for a moment: what is asked with it takes long. */
function useResting<T>(value: T): T {
  const [resting, setResting] = useState(value);
  useEffect(() => {
    const later = setTimeout(() => setResting(value), RESTS);
    return () => clearTimeout(later);
  }, [value]);
  return resting;
}
