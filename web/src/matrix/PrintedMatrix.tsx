import { Fragment } from 'react';
import { locale } from '../look/index.ts';
import { groupName } from './Heads.tsx';
import { cellWords, figureWords } from './matrixWords.ts';
import type { DrawnMatrix } from './useMatrix.ts';

/** Rows that are put on paper. */
const MOST_PRINTED = 3_000;

/** On paper each row says what it meets, as a sheet is never as wide as a matrix. */
export function PrintedMatrix({ down, across, matrix }: DrawnMatrix) {
  return (
    <table className="mx-6 mb-6 text-xs">
      <tbody>
        {down.slice(0, MOST_PRINTED).map((line, row) => {
          if (line.kind === 'heading' && !line.folded) {
            return (
              <tr key={`heading ${line.group}`}>
                <th colSpan={3} className="pb-1 pt-3 text-left font-semibold">{groupName(line.group)}</th>
              </tr>
            );
          }
          const [id, title, figure] = line.kind === 'heading' ? ['', groupName(line.group), ''] : [line.item.id, line.item.title, figureWords(line.item.figure)];
          return (
            <tr key={`${id} ${title}`} className="break-inside-avoid border-b border-rule align-top">
              <td className="whitespace-nowrap py-1 pr-3 font-mono">{id}</td>
              <td className="w-2/5 py-1 pr-3">
                {title} <span className="font-mono text-ink2">{figure}</span>
              </td>
              <td className="py-1">
                {(matrix.rows[row] ?? []).map((cell, i) => {
                  const column = across[cell.at];
                  if (column === undefined) return null;
                  return (
                    <Fragment key={cell.at}>
                      {i > 0 && '; '}
                      <span className="whitespace-nowrap">
                        <span className="font-mono">{column.kind === 'heading' ? groupName(column.group) : column.item.id}</span>: {cellWords(cell)}
                      </span>
                    </Fragment>
                  );
                })}
                {(matrix.rows[row] ?? []).length === 0 && '–'}
              </td>
            </tr>
          );
        })}
        {down.length > MOST_PRINTED && (
          <tr>
            <td colSpan={3} className="py-2">
              {(down.length - MOST_PRINTED).toLocaleString(locale())} more lines are not printed. Narrow the matrix by a query, or export it.
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
