import { COLUMN_ROLES, stepsOfTable, type ColumnRole, type PastedStep, type PastedTable } from '@caderno/core/cases';
import { useState } from 'react';
import { Button, Choose, Dialog, countOf, options } from '../look/index.ts';

interface Props {
  readonly table: PastedTable;
  readonly onPaste: (steps: readonly PastedStep[]) => void;
  readonly onClose: () => void;
}

const ROLE_WORD: Record<ColumnRole, string> = { action: 'Action', data: 'Data', expected: 'Expected result', number: 'Number, left out', leave: 'Left out' };
const MOST_SHOWN = 6;

/** Asks what the columns of a pasted table hold, and shows the steps that come of it. */
export function PastedTableDialog({ table, onPaste, onClose }: Props) {
  const [roles, setRoles] = useState(table.roles);
  const steps = stepsOfTable(table, roles);
  return (
    <Dialog title="Paste a table as steps" onClose={onClose} wide>
      <p className="text-sm text-ink2">Say what each column holds. Data is written behind its action.</p>
      <div className="mt-3 overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead className="border-b border-ink2">
            <tr>
              {roles.map((role, i) => (
                <th key={i} className="py-1.5 pr-3 align-bottom font-normal">
                  <span className="block truncate text-xs text-ink2">{table.heads?.[i] ?? `Column ${i + 1}`}</span>
                  <Choose label={`Column ${i + 1}`} value={role} options={options(ROLE_WORD).filter((o) => COLUMN_ROLES.includes(o.value))} onChange={(next) => setRoles(roles.map((r, at) => (at === i ? next : r)))} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.slice(0, MOST_SHOWN).map((row, line) => (
              <tr key={line} className="border-b border-rule">
                {row.map((cell, i) => (
                  <td key={i} className={`max-w-64 truncate py-1.5 pr-3 ${roles[i] === 'leave' || roles[i] === 'number' ? 'text-ink2 line-through' : ''}`} title={cell}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {table.rows.length > MOST_SHOWN && <p className="mt-1 text-xs text-ink2">and {countOf(table.rows.length - MOST_SHOWN, 'more row')}</p>}
      <p role="status" className="mt-3 text-sm">
        {steps[0] === undefined ? 'No column is an action yet.' : `The first step: ${steps[0].action}${steps[0].expected === '' ? '' : ` ⇒ ${steps[0].expected}`}`}
      </p>
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={steps.length === 0} onClick={() => onPaste(steps)}>
          Paste {countOf(steps.length, 'step')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
