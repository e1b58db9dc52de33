import { entriesOf, outcomeOf, smallestTable, type DecisionTableModel, type Rule } from '@caderno/core/conditions';
import { useMemo } from 'react';
import { Button, Dialog, countOf } from '../../look/index.ts';

interface Props {
  readonly model: DecisionTableModel;
  readonly onClose: () => void;
  readonly onTake: (rules: readonly Rule[]) => void;
}

/** The smallest table that decides the same, with the rules each of its rules takes up, before anything is changed. */
export function SmallerTableDialog({ model, onClose, onTake }: Props) {
  const smaller = useMemo(() => smallestTable(model), [model]);
  const numberOf = (id: string): number => model.rules.findIndex((r) => r.id === id) + 1;
  const impossible = model.rules.filter((r) => r.impossible);
  return (
    <Dialog title="The smallest table that does the same" onClose={onClose} wide>
      {smaller.kind === 'contradictory' && <p>Rules contradict each other. No table is equivalent to that: say first which of them is right.</p>}
      {smaller.kind === 'already' && <p>{smaller.proven ? 'No table with fewer rules does the same.' : 'No smaller table was found. The table is large, so there may be one.'}</p>}
      {smaller.kind === 'smaller' && (
        <>
          <p className="mb-2 text-sm text-ink2">
            {countOf(smaller.rules.length, 'rule')} instead of {model.rules.length - impossible.length}
            {smaller.proven ? ', and there is no smaller table.' : '. The table is large, so there may be a still smaller one.'} Rules that change are other coverage items: what was left out of them has to be looked at again.
          </p>
          <table className="w-full text-left text-sm" aria-label="Rules of the smaller table">
            <thead className="border-b border-ink text-xs text-ink2">
              <tr>
                <th className="py-1 pr-3 font-semibold">rules now</th>
                <th className="pr-3 font-semibold">become one for</th>
                <th className="font-semibold">then</th>
              </tr>
            </thead>
            <tbody className="divide-y divide-rule">
              {smaller.rules.map(({ rule, from }) => (
                <tr key={rule.id}>
                  <td className={`py-1.5 pr-3 font-mono text-xs ${from.length > 1 ? 'font-semibold text-blue' : 'text-ink2'}`}>{from.map(numberOf).join(' + ')}</td>
                  <td className="pr-3">{entriesOf(model, rule)}</td>
                  <td>{outcomeOf(model, rule)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <div className="mt-5 flex gap-2">
        {smaller.kind === 'smaller' && (
          <Button look="accent" onClick={() => (onTake([...smaller.rules.map((r) => r.rule), ...impossible]), onClose())}>
            Take it
          </Button>
        )}
        <Button onClick={onClose}>{smaller.kind === 'smaller' ? 'Cancel' : 'Done'}</Button>
      </div>
    </Dialog>
  );
}
