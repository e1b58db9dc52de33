import { percentDown } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import type { Counts, Figure, ListColumn, Listed } from '@caderno/core/listing';
import { formatDecimal } from '@caderno/core/values';
import type { CountsView } from '@caderno/contract';
import { columnWord } from '../listing/index.ts';

/** Counts as the lines of a sheet; where nobody is there is nothing. */
export function countsSheet({ lines, across, whole }: Counts<Listed>, { down, across: by }: CountsView, fields: readonly OwnField[], nameOf: (column: ListColumn, value: string | null) => string): string[][] {
  return [
    [columnWord(down, fields), ...across.map(({ value }) => (by === null ? '' : nameOf(by, value))), 'All'],
    ...lines.map((line) => [nameOf(down, line.value), ...line.cells.map((c) => (c.members.length === 0 ? '' : written(c.figure))), written(line.figure)]),
    ['All', ...across.map((c) => written(c.figure)), written(whole.figure)],
  ];
}

/** As any spreadsheet reads it, whoever wrote it. */
function written(figure: Figure): string {
  if (figure === null) return '';
  return figure.kind === 'share' ? `${percentDown(figure.share)}%` : formatDecimal(figure.amount);
}
