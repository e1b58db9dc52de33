import type { CoverageItem } from '@caderno/core/conditions';
import type { Parameter, Row, RowId } from '@caderno/core/cases';
import { useMemo } from 'react';
import { countOf, locale } from '../look/index.ts';

interface Props {
  readonly rows: readonly Row[];
  readonly columns: readonly Parameter[];
  readonly gained: (rows: readonly Row[]) => ReadonlyMap<RowId, readonly CoverageItem[]>;
  readonly estimate: number | null;
}

const MOST_LISTED = 50;

/** Rows before they are added: what each would show that nothing shows yet, and what they come to. */
export function MadeRows({ rows, columns, gained, estimate }: Props) {
  const gains = useMemo(() => gained(rows), [gained, rows]);
  const items = [...gains.values()].reduce((n, list) => n + list.length, 0);
  return (
    <>
      <p className="text-sm text-ink2">
        {items === 0 ? 'They would show nothing that is not shown.' : `They would show ${countOf(items, 'item')} that nothing shows yet.`} {countOf(rows.length, 'row')} more to run
        {estimate !== null && `: about ${Math.round(estimate * rows.length).toLocaleString(locale())} minutes`}.
      </p>
      <div className="mt-2 max-h-52 overflow-auto border-y border-rule">
        <table className="w-full text-left text-sm" aria-label="Rows to be added">
          <thead className="sticky top-0 bg-page text-xs text-ink2">
            <tr>
              {columns.map((p) => (
                <th key={p.id} className="py-1 pr-3 font-mono font-medium">{`<${p.name}>`}</th>
              ))}
              <th className="font-medium">would show</th>
            </tr>
          </thead>
          <tbody className="divide-y divide-rule">
            {rows.slice(0, MOST_LISTED).map((row) => (
              <tr key={row.id}>
                {columns.map((p) => (
                  <td key={p.id} className="max-w-44 truncate py-1 pr-3 font-mono text-xs">
                    {row.cells[p.id]}
                  </td>
                ))}
                <td className="text-pine">{(gains.get(row.id) ?? []).map((i) => i.name).join(' · ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length > MOST_LISTED && <p className="text-xs text-ink2">and {(rows.length - MOST_LISTED).toLocaleString(locale())} more</p>}
    </>
  );
}
