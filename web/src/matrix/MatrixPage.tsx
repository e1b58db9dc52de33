import { useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { tellFailure } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { rowsFile } from '../files/index.ts';
import { useFrame } from '../frame/index.ts';
import { Empty, locale, saveFile, usePrinting } from '../look/index.ts';
import type { Cursor } from './cursor.ts';
import { idAddress } from './idAddress.ts';
import { MatrixFoot } from './MatrixFoot.tsx';
import { MatrixGrid } from './MatrixGrid.tsx';
import { MatrixHead } from './MatrixHead.tsx';
import { SHEET_LIMITS, matrixTable, tooLarge } from './matrixTable.ts';
import { useMatrixView, type MatrixViewing, type Side } from './matrixView.ts';
import { OrderChoice } from './OrderChoice.tsx';
import { PrintedMatrix } from './PrintedMatrix.tsx';
import { lineName, sidesOf, useMatrix, type DrawnMatrix, type MatrixLine } from './useMatrix.ts';

/** What hangs on what: requirements or conditions against cases, scenarios or suites, on graph paper over the whole spread. */
export function MatrixPage() {
  const viewing = useMatrixView();
  const { drawn, error } = useMatrix(viewing.view);
  return (
    <div className="flex h-full flex-col overflow-y-auto print:block print:h-auto">
      <MatrixHead viewing={viewing} drawn={drawn} onExport={() => drawn !== undefined && exportMatrix(drawn, viewing)} />
      {drawn === undefined ? <Loading error={error} /> : <Sheet viewing={viewing} drawn={drawn} />}
    </div>
  );
}

function Sheet({ viewing, drawn }: { readonly viewing: MatrixViewing; readonly drawn: DrawnMatrix }) {
  const { view, setParameters, setSide } = viewing;
  const { project } = useFrame();
  const navigate = useNavigate();
  const printing = usePrinting();
  const foot = useId();
  const [hovered, setHovered] = useState<Cursor | null>(null);
  const [at, setAt] = useState<{ readonly row: string; readonly column: string }>({ row: view.at[0], column: view.at[1] });
  // By what it is on, not by its place: that stays where it is when the matrix is sorted, or somebody saves.
  const cursor = placeOf(drawn, at);
  const seen = hovered ?? cursor;
  const [downSide, acrossSide] = sidesOf(view);
  const fold = (side: Side, group: string): void => {
    const { folded } = view.sides[side];
    setSide(side, { folded: folded.has(group) ? new Set([...folded].filter((g) => g !== group)) : new Set([...folded, group]) });
  };
  const enter = ({ row, column }: Cursor): void => {
    const [line, side] = column >= 0 ? [drawn.across[column], acrossSide] : [drawn.down[row], downSide];
    if (line?.kind === 'heading') return fold(side, line.group);
    if (line === undefined) return;
    // Whoever comes back stands where they were.
    setParameters({ row: at.row, column: at.column });
    void navigate(idAddress(project, line.item.id));
  };
  if (printing) return <PrintedMatrix {...drawn} />;
  if (drawn.down.length === 0 || drawn.across.length === 0) return <Nothing viewing={viewing} drawn={drawn} />;
  return (
    <>
      <MatrixGrid
        label={`${view[downSide]} against ${view[acrossSide]}`}
        describedBy={foot}
        drawn={drawn}
        seen={seen}
        cursor={cursor}
        onPoint={(point) => setHovered((before) => (before?.row === point?.row && before?.column === point?.column ? before : point))}
        onCursor={(to) => setAt({ row: nameOf(drawn.down[to.row]), column: nameOf(drawn.across[to.column]) })}
        onEnter={enter}
        corner={
          <div className="flex flex-col items-start gap-2">
            <OrderChoice label="Rows" side={downSide} viewing={viewing} />
            <OrderChoice label="Columns" side={acrossSide} viewing={viewing} />
          </div>
        }
      />
      <MatrixFoot id={foot} drawn={drawn} viewing={viewing} seen={seen} onFold={fold} />
    </>
  );
}

function Nothing({ viewing: { view }, drawn }: { readonly viewing: MatrixViewing; readonly drawn: DrawnMatrix }) {
  const none = sidesOf(view).find((side) => drawn.axes[side].all.length === 0);
  if (none !== undefined) return <Empty title={`There are no ${view[none]} yet`}>The matrix shows which {view.basis} which {view.tests} show. It fills as soon as there are both.</Empty>;
  return <Empty title="Nothing is left in view">Change the queries above, or show all again.</Empty>;
}

function nameOf(line: MatrixLine | undefined): string {
  return line === undefined ? '' : lineName(line);
}

/** Where what the cursor is on stands now; null where it is out of view. */
function placeOf({ down, across }: DrawnMatrix, at: { readonly row: string; readonly column: string }): Cursor | null {
  const find = (lines: readonly MatrixLine[], name: string): number => (name === '' ? -1 : lines.findIndex((line) => lineName(line) === name));
  const [row, column] = [find(down, at.row), find(across, at.column)];
  return row === -1 && column === -1 ? null : { row, column };
}

function exportMatrix(drawn: DrawnMatrix, { view }: MatrixViewing): void {
  const why = tooLarge(drawn);
  if (why !== null) {
    const limit = SHEET_LIMITS[why].toLocaleString(locale());
    toast(why === 'columns' ? `A sheet has ${limit} columns at most. Turn the matrix, or narrow it by a query.` : `${limit} squares are written at most. Narrow the matrix by a query, or fold modules.`);
    return;
  }
  rowsFile()
    .workbook(matrixTable(drawn))
    .then((bytes) => saveFile(`${sidesOf(view).map((side) => view[side]).join(' by ')}.xlsx`, new Blob([bytes])), tellFailure);
}
