import type { OwnField } from '@caderno/core/fields';
import { drawnFigure, type Counts, type Figure, type ListColumn, type Listed } from '@caderno/core/listing';
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
  const drawn = drawnFigure(figure);
  return drawn === null ? '' : figure?.kind === 'share' ? `${drawn}%` : String(drawn);
}
