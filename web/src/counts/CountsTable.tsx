import type { Counted, Counts, Listed } from '@caderno/core/listing';
import type { CountsView } from '@caderno/contract';
import { useRef, type KeyboardEvent, type ReactNode } from 'react';
import { useOwnFields } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { columnWord } from '../listing/index.ts';
import { countOf } from '../look/index.ts';
import { figureWords } from './countsWords.ts';
import { useNames } from './useNames.ts';

/** A line or column of a table of counts; undefined: all of them. */
export type Place = { readonly line: string | null | undefined; readonly column: string | null | undefined };

interface Props {
  readonly counts: Counts<Listed>;
  readonly view: CountsView;
  readonly chosen: Place | null;
  /** Absent where the table is only read. */
  readonly onChoose?: (place: Place) => void;
  readonly most?: { readonly lines: number; readonly columns: number };
}

/** What is drawn at most: more is found by a query, and stands in the sums all the same. */
const MOST = { lines: 300, columns: 40 };

const ARROWS: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

/** Counts as a table; each figure opens to those it counts. Arrows move through it. */
export function CountsTable({ counts, view, chosen, onChoose, most = MOST }: Props) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const nameOf = useNames();
  const table = useRef<HTMLTableElement>(null);
  const across = view.across === null ? [] : counts.across.slice(0, most.columns);
  const lines = counts.lines.slice(0, most.lines);
  const [linesLeft, columnsLeft] = [counts.lines.length - lines.length, counts.across.length - across.length];
  const cell = (key: string, counted: Counted<Listed>, place: Place, words: string, at: readonly [number, number], look = ''): ReactNode => (
    <Cell key={key} counted={counted} words={words} isChosen={chosen !== null && chosen.line === place.line && chosen.column === place.column} at={at} look={look} isFirst={at[0] === 0 && at[1] === 0} {...(onChoose === undefined ? {} : { onChoose: () => onChoose(place) })} />
  );
  return (
    <>
      <div className="overflow-x-auto" tabIndex={-1}>
        <table ref={table} className="w-full border-collapse text-sm tabular-nums" onKeyDown={(event) => move(event, table.current)}>
          <thead>
            <tr className="border-b border-ink text-left align-bottom text-xs text-ink2">
              <th scope="col" className="py-1 pr-3 font-normal">
                {columnWord(view.down, fields)}
              </th>
              {across.map(({ value }) => (
                <th key={value ?? ''} scope="col" className="max-w-40 px-2 py-1 text-right font-normal break-words">
                  {view.across === null ? '' : nameOf(view.across, value)}
                </th>
              ))}
              <th scope="col" className="py-1 pl-2 text-right font-semibold text-ink">
                All
              </th>
            </tr>
          </thead>
          <tbody className="divide-y divide-rule">
            {lines.map((line, row) => (
              <tr key={line.value ?? ''}>
                <th scope="row" className="max-w-64 py-0.5 pr-3 text-left font-normal break-words">
                  {nameOf(view.down, line.value)}
                </th>
                {across.map(({ value }, i) => cell(value ?? '', line.cells[i] ?? NOBODY, { line: line.value, column: value }, `${nameOf(view.down, line.value)}, ${view.across === null ? '' : nameOf(view.across, value)}`, [row, i]))}
                {cell(' all', line, { line: line.value, column: undefined }, nameOf(view.down, line.value), [row, across.length], 'font-semibold')}
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="border-t border-ink">
              <th scope="row" className="py-0.5 pr-3 text-left font-semibold">
                All
              </th>
              {across.map((column, i) => cell(column.value ?? '', column, { line: undefined, column: column.value }, view.across === null ? '' : nameOf(view.across, column.value), [lines.length, i], 'font-semibold'))}
              {cell(' all', counts.whole, { line: undefined, column: undefined }, 'All', [lines.length, across.length], 'font-semibold')}
            </tr>
          </tfoot>
        </table>
      </div>
      {(linesLeft > 0 || columnsLeft > 0) && (
        <p className="mt-1 text-xs text-ink2">
          Not shown: {[...(linesLeft > 0 ? [countOf(linesLeft, 'line')] : []), ...(columnsLeft > 0 ? [countOf(columnsLeft, 'column')] : [])].join(' and ')}. They are in the sums.
        </p>
      )}
    </>
  );
}

const NOBODY: Counted<Listed> = { members: [], figure: null };

interface CellProps {
  readonly counted: Counted<Listed>;
  readonly words: string;
  readonly isChosen: boolean;
  readonly at: readonly [number, number];
  readonly isFirst: boolean;
  readonly look: string;
  readonly onChoose?: () => void;
}

function Cell({ counted: { members, figure }, words, isChosen, at: [row, column], isFirst, look, onChoose }: CellProps) {
  const isNobody = members.length === 0;
  const text = isNobody ? '·' : figureWords(figure);
  return (
    <td className={`p-0 text-right ${look} ${isChosen ? 'bg-blue-wash' : ''}`}>
      {onChoose === undefined ? (
        <span className={`block px-2 py-0.5 ${isNobody ? 'text-ink3' : ''}`}>{text}</span>
      ) : (
        <button
          type="button"
          data-at={`${row}:${column}`}
          tabIndex={isChosen || isFirst ? 0 : -1}
          aria-pressed={isChosen}
          aria-label={`${words}: ${isNobody ? 'none' : figureWords(figure)}`}
          className={`block min-h-6 w-full min-w-10 px-2 py-0.5 text-right hover:bg-page2 ${isNobody ? 'text-ink3' : ''} ${isChosen ? 'font-semibold text-blue' : ''}`}
          onClick={onChoose}
        >
          {text}
        </button>
      )}
    </td>
  );
}

function move(event: KeyboardEvent, table: HTMLTableElement | null): void {
  const by = ARROWS[event.key];
  const at = event.target instanceof HTMLElement ? event.target.dataset.at : undefined;
  if (by === undefined || at === undefined || event.ctrlKey || event.altKey || event.metaKey) return;
  const [row = 0, column = 0] = at.split(':').map(Number);
  event.preventDefault();
  table?.querySelector<HTMLButtonElement>(`[data-at="${row + by[0]}:${column + by[1]}"]`)?.focus();
}
