import type { Row } from '@caderno/core/cases';
import { useMemo, useState } from 'react';
import { Button, Dialog, countOf, Tick, TextBox } from '../look/index.ts';
import { cellsWith, withReplaced, type FoundCell } from './rowEdits.ts';
import { cellOf, columnName, type EditTable, type GridColumn } from './table.ts';

interface Props {
  readonly rows: readonly Row[];
  readonly columns: readonly GridColumn[];
  readonly update: EditTable;
  readonly onGo: (at: FoundCell) => void;
  readonly onClose: () => void;
}

const MOST_SHOWN = 8;

/** Finds words in the cells and puts others in their place: in all of them as one edit, or goes to one. */
export function FindReplace({ rows, columns, update, onGo, onClose }: Props) {
  const [words, setWords] = useState('');
  const [by, setBy] = useState('');
  const [wholeCell, setWholeCell] = useState(false);
  const [sameCase, setSameCase] = useState(false);
  const search = useMemo(() => ({ words, wholeCell, sameCase }), [sameCase, wholeCell, words]);
  const found = useMemo(() => cellsWith(rows, columns, search), [columns, rows, search]);
  return (
    <Dialog title="Find and replace in the data" keepsAtOnce onClose={onClose}>
      <div className="grid grid-cols-[6rem_1fr] items-center gap-y-2 text-sm">
        <label htmlFor="find">Find</label>
        <TextBox id="find" autoFocus className="w-full font-mono" value={words} onChange={setWords} />
        <label htmlFor="replace">Replace with</label>
        <TextBox id="replace" className="w-full font-mono" value={by} onChange={setBy} />
      </div>
      <p className="mt-2 flex gap-5 text-sm">
        <Tick checked={wholeCell} onChange={setWholeCell}>
          whole cells only
        </Tick>
        <Tick checked={sameCase} onChange={setSameCase}>
          capitals matter
        </Tick>
      </p>
      <p role="status" className="mt-2 text-sm text-ink2">
        {words === '' ? '' : found.length === 0 ? 'No cell has it.' : `${countOf(found.length, 'cell')}:`}
      </p>
      <ul className="text-sm">
        {found.slice(0, MOST_SHOWN).map(({ row, column }) => (
          <li key={`${row}/${column}`} className="border-b border-rule">
            <button
              type="button"
              className="flex min-h-7 w-full items-center gap-3 text-left hover:bg-page2"
              onClick={() => {
                onGo({ row, column });
                onClose();
              }}
            >
              <span className="w-14 shrink-0 text-xs text-ink2">row {row + 1}</span>
              <span className="w-32 shrink-0 truncate font-mono text-xs text-ink2">{columns[column] === undefined ? '' : columnName(columns[column])}</span>
              <span className="min-w-0 truncate font-mono text-xs">{rows[row] === undefined || columns[column] === undefined ? '' : cellOf(rows[row], columns[column])}</span>
            </button>
          </li>
        ))}
        {found.length > MOST_SHOWN && <li className="py-1 text-xs text-ink2">and {found.length - MOST_SHOWN} more</li>}
      </ul>
      <div className="mt-4 flex gap-3">
        <Button
          look="accent"
          disabled={found.length === 0}
          onClick={() => {
            update((data) => withReplaced(data, columns, search, by));
            onClose();
          }}
        >
          Replace in {countOf(found.length, 'cell')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
