import type { ShownSoFar } from '@caderno/core/covering';
import { costWord } from '@caderno/core/suites';
import { useMemo } from 'react';
import { Curves, type Curve } from '../charts/index.ts';
import { minutesOf } from '../look/index.ts';

interface Props {
  readonly now: readonly ShownSoFar[];
  /** In the order that is proposed; null while that is worked out. */
  readonly then: readonly ShownSoFar[] | null;
  /** Minutes at which a line stands. */
  readonly at: number | null;
}

/** How much of the risk that a suite shows is shown after how many minutes, now and in the order that is proposed. */
export function RiskCurves({ now, then, at }: Props) {
  const minutes = costWord(now.at(-1)?.cost ?? 0, 'minutes');
  const curves = useMemo((): Curve[] => {
    const all = now.at(-1)?.shown ?? 0;
    const points = (curve: readonly ShownSoFar[]) => curve.map(({ cost, shown }) => ({ x: costWord(cost, 'minutes'), y: all === 0 ? 0 : (100 * shown) / all }));
    return [{ name: 'as it is now', colour: 'ink3', drawn: 'stair', dashed: true, points: points(now) }, ...(then === null ? [] : [{ name: 'most risk soonest', colour: 'blue', drawn: 'stair', points: points(then) } as const])];
  }, [now, then]);
  return (
    <>
      <Curves className="h-56" words={`Risk that is shown, by the minutes it takes. ${then === null ? '' : soonerWords(now, then)}`} curves={curves} xName="minutes" yName="% of the risk it shows" xMost={minutes} yMost={100} {...(at === null ? {} : { at })} />
      <p aria-hidden="true" className="flex gap-5 text-xs text-ink2">
        <span><span className="mr-1.5 inline-block w-6 border-t-2 border-blue align-middle" />most risk soonest</span>
        <span><span className="mr-1.5 inline-block w-6 border-t-2 border-dashed border-ink3 align-middle" />as it is now</span>
      </p>
    </>
  );
}

/** Half and nine tenths: when most is shown, and when nearly all is. */
const SHARES = [50, 90] as const;

/** How much sooner the one curve gets where the other gets. */
export function soonerWords(now: readonly ShownSoFar[], then: readonly ShownSoFar[]): string {
  const parts = SHARES.map((share) => {
    const [before, after] = [until(now, share), until(then, share)].map(minutesOf);
    return `${share}\u00a0% of the risk it shows after ${after}${before === after ? ', as now' : `, now after ${before}`}`;
  });
  return `In the order proposed: ${parts.join('; ')}.`;
}

/** Minutes until so much of all is shown. */
function until(curve: readonly ShownSoFar[], share: number): number {
  const all = curve.at(-1)?.shown ?? 0;
  return costWord(curve.find(({ shown }) => 100 * shown >= share * all)?.cost ?? 0, 'minutes');
}
