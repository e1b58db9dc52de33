import { arranged, itemLines, matrixOf, meeting, type AxisLine, type Matrix } from '@caderno/core/matrix';
import { useMemo } from 'react';
import { useMatrixCells } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import type { MatrixView, Side } from './matrixView.ts';
import { useAxes, type Axes, type Cells, type MatrixItem } from './useAxes.ts';

export type MatrixLine = AxisLine<MatrixItem>;

/** What a line is told apart by, wherever it stands. */
export function lineName(line: MatrixLine): string {
  return line.kind === 'heading' ? `/${line.group}` : line.item.id;
}

/** The matrix as it is drawn, with what is said of it. */
export interface DrawnMatrix {
  readonly down: readonly MatrixLine[];
  readonly across: readonly MatrixLine[];
  readonly matrix: Matrix;
  readonly axes: Axes;
  /** What of each side meets anything in the whole project. */
  readonly meeting: Readonly<Record<Side, ReadonlySet<string>>>;
}

/** Which side stands at the left, and which across. */
export function sidesOf({ turned }: Pick<MatrixView, 'turned'>): readonly [down: Side, across: Side] {
  return turned ? ['tests', 'basis'] : ['basis', 'tests'];
}

export function useMatrix(view: MatrixView): { readonly drawn: DrawnMatrix | undefined; readonly error: unknown } {
  const { project } = useFrame();
  const across = view.tests === 'suites' ? 'suites' : 'covering';
  const { data: cells, error } = useMatrixCells(project, across);
  const axes = useAxes(view, cells);
  const drawn = useMemo(() => (axes === undefined || cells === undefined ? undefined : drawnMatrix(view, cells, axes)), [axes, cells, view]);
  return { drawn, error };
}

function drawnMatrix(view: MatrixView, cells: Cells, axes: Axes): DrawnMatrix {
  const { basis, tests } = view.onlyMet ? metAxes(cells, axes) : axes;
  const lines = {
    basis: arranged(cells, basis, tests, view.sides.basis, false),
    tests: arranged(cells, tests, basis, view.sides.tests, true),
  };
  const [downSide, acrossSide] = sidesOf(view);
  const [down, across] = [lines[downSide], lines[acrossSide]];
  return { down, across, matrix: matrixOf(cells, down, across, view.turned), axes, meeting: { basis: meeting(cells, axes.basis.found, axes.tests.all, false), tests: meeting(cells, axes.tests.found, axes.basis.all, true) } };
}

/** What meets anything of what queries leave. */
function metAxes(cells: Cells, { basis, tests }: Axes): Axes {
  const { rows, met } = matrixOf(cells, itemLines(basis.found), itemLines(tests.found));
  return { basis: { ...basis, found: basis.found.filter((_, i) => (rows[i]?.length ?? 0) > 0) }, tests: { ...tests, found: tests.found.filter((_, i) => (met[i] ?? 0) > 0) } };
}
