import type { Parameter, Row } from '@caderno/core/cases';
import { locale } from '../look/index.ts';

/** Rows that stand on paper. */
const MOST_ROWS = 200;
/** Columns that are read side by side on A4; more follow in a band below. */
const COLUMNS_A_BAND = 6;

/** Rows of data, band below band where there are many columns, each with the names of its rows. */
export function RowsTable({ parameters, rows }: { readonly parameters: readonly Parameter[]; readonly rows: readonly Row[] }) {
  const shown = rows.slice(0, MOST_ROWS);
  const bands = Array.from({ length: Math.max(1, Math.ceil(parameters.length / COLUMNS_A_BAND)) }, (_, i) => parameters.slice(i * COLUMNS_A_BAND, (i + 1) * COLUMNS_A_BAND));
  return (
    <>
      {bands.map((columns, band) => (
        <table key={band} className="mt-2 w-full table-fixed text-xs" aria-label="Rows">
          <thead>
            <tr className="border-b border-ink text-left text-ink2">
              <th scope="col" className="py-0.5 pr-3 font-normal">row</th>
              {columns.map((p) => (
                <th key={p.id} scope="col" className="break-words py-0.5 pr-3 font-mono font-normal">
                  {p.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <tr key={row.id} className={`border-b border-rule align-top ${row.aside ? 'text-ink2 line-through' : ''}`}>
                <th scope="row" className="break-words py-0.5 pr-3 text-left font-normal">{row.name}</th>
                {columns.map((p) => (
                  <td key={p.id} className="whitespace-pre-line break-words py-0.5 pr-3 font-mono">
                    {row.cells[p.id] ?? ''}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {rows.length > MOST_ROWS && <p className="text-xs text-ink2">and {(rows.length - MOST_ROWS).toLocaleString(locale())} more rows</p>}
    </>
  );
}
