import { drawnFigure, type Counts, type Listed } from '@caderno/core/listing';
import type { CountsView } from '@caderno/contract';
import { useCallback, useMemo } from 'react';
import { Bars, type BarPart, type CurveColour } from '../charts/index.ts';
import { countOf, locale } from '../look/index.ts';
import type { Place } from './CountsTable.tsx';
import { useNames } from './useNames.ts';

interface Props {
  readonly counts: Counts<Listed>;
  readonly view: CountsView;
  readonly title: string;
  readonly onChoose?: (place: Place) => void;
  readonly most?: number;
}

const MOST_BARS = 40;
const COLOURS: readonly CurveColour[] = ['blue', 'ochre', 'pine', 'plum', 'brick', 'ink2'];
/** The highest stands out. */
const RISK_COLOURS: readonly CurveColour[] = ['brick', 'ochre', 'pine', 'ink2'];

/** Counts as bars, each divided by what stands across; shares do not add up, and are not divided. */
export function CountsBars({ counts, view, title, onChoose, most = MOST_BARS }: Props) {
  const nameOf = useNames();
  const { down, across, measure } = view;
  const lines = useMemo(() => counts.lines.slice(0, most), [counts, most]);
  const names = useMemo(() => lines.map((line) => nameOf(down, line.value)), [down, lines, nameOf]);
  const divided = useMemo(() => (across === null || measure === 'coverage' ? [] : counts.across), [across, counts, measure]);
  // More parts than colours: the last stands for all others.
  const alone = divided.length > COLOURS.length ? COLOURS.length - 1 : divided.length;
  const parts = useMemo((): readonly BarPart[] => {
    if (across === null || divided.length === 0) return [{ name: '', colour: 'blue', values: lines.map((line) => drawnFigure(line.figure)) }];
    const colours = across === 'risk' ? RISK_COLOURS : COLOURS;
    const own = divided.slice(0, alone).map(({ value }, i): BarPart => ({ name: nameOf(across, value), colour: colours[i] ?? 'ink2', values: lines.map((line) => drawnFigure(line.cells[i]?.figure ?? null)) }));
    const others = lines.map((line) => line.cells.slice(alone).reduce((sum, cell) => sum + (drawnFigure(cell.figure) ?? 0), 0));
    return alone === divided.length ? own : [...own, { name: `${divided.length - alone} others`, colour: 'ink2', values: others }];
  }, [across, alone, divided, lines, nameOf]);
  const valueWords = useCallback((value: number) => (measure === 'coverage' ? `${value} %` : value.toLocaleString(locale())), [measure]);
  const onBar = useCallback(
    (bar: number, part: number) => {
      const line = lines[bar];
      if (line !== undefined) onChoose?.({ line: line.value, column: part < alone ? divided[part]?.value : undefined });
    },
    [alone, divided, lines, onChoose],
  );
  const left = counts.lines.length - lines.length;
  return (
    <>
      <Bars words={title} names={names} parts={parts} valueWords={valueWords} {...(onChoose === undefined ? {} : { onBar })} />
      {parts.length > 1 && (
        <ul aria-label="Colours" className="mt-1 flex flex-wrap gap-x-4 gap-y-1 text-xs text-ink2">
          {parts.map(({ name, colour }) => (
            <li key={name} className="inline-flex items-center gap-1.5">
              <span aria-hidden="true" className="inline-block size-2.5 rounded-[2px]" style={{ background: `var(--color-${colour})` }} />
              {name}
            </li>
          ))}
        </ul>
      )}
      {left > 0 && <p className="mt-1 text-xs text-ink2">Not drawn: {countOf(left, 'more line', 'more lines')}. The table has them.</p>}
    </>
  );
}
