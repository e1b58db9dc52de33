import { CELL_STANDINGS } from '@caderno/core/coverage';
import { cellAt, type MatrixCell } from '@caderno/core/matrix';
import { Link } from 'react-router';
import { useFrame } from '../frame/index.ts';
import { StandingShape, TextButton } from '../look/index.ts';
import type { Cursor } from './cursor.ts';
import { groupName } from './Heads.tsx';
import { idAddress } from './idAddress.ts';
import { cellWords, countedAs, figureSaid } from './matrixWords.ts';
import { orderText, type MatrixViewing, type Side } from './matrixView.ts';
import type { MatrixItem } from './useAxes.ts';
import { sidesOf, type DrawnMatrix, type MatrixLine } from './useMatrix.ts';

interface Props {
  readonly id: string;
  readonly drawn: DrawnMatrix;
  readonly viewing: MatrixViewing;
  readonly seen: Cursor | null;
  readonly onFold: (side: Side, group: string) => void;
}

/** What one points at, in words, and what can be done with it. */
export function MatrixFoot({ id, drawn, viewing, seen, onFold }: Props) {
  return (
    <div id={id} role="status" aria-label="What is pointed at" className="flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule px-6 py-1.5 text-sm print:hidden">
      {seen === null ? <span className="text-ink2">Point at a square, or move to it by the arrow keys, to read what it says. Choose a name to sort or narrow the other side by it.</span> : <Seen drawn={drawn} viewing={viewing} seen={seen} onFold={onFold} />}
    </div>
  );
}

function Seen({ drawn, viewing, seen, onFold }: Omit<Props, 'id' | 'seen'> & { readonly seen: Cursor }) {
  const [downSide, acrossSide] = sidesOf(viewing.view);
  const [row, column] = [drawn.down[seen.row], drawn.across[seen.column]];
  if (row !== undefined && column !== undefined) return <Pair row={row} column={column} cell={cellAt(drawn.matrix.rows[seen.row] ?? [], seen.column)} />;
  const [line, side, met] = row === undefined ? [column, acrossSide, drawn.matrix.met[seen.column] ?? 0] : [row, downSide, drawn.matrix.rows[seen.row]?.length ?? 0];
  if (line === undefined) return null;
  if (line.kind === 'heading') {
    return (
      <>
        <strong>{groupName(line.group)}</strong>
        <span className="text-ink2">{countedAs(line.items, viewing.view[side])}</span>
        <TextButton onClick={() => onFold(side, line.group)}>{line.folded ? 'unfold' : 'fold'}</TextButton>
      </>
    );
  }
  return <Head item={line.item} side={side} met={met} viewing={viewing} />;
}

/** What fits in the foot of the squares of a cell. */
const MOST_SQUARES = 24;

function Pair({ row, column, cell }: { readonly row: MatrixLine; readonly column: MatrixLine; readonly cell: MatrixCell | undefined }) {
  const squares = cell === undefined ? [] : CELL_STANDINGS.flatMap((standing, i) => Array.from({ length: Math.min(MOST_SQUARES, cell.counts[i] ?? 0) }, () => standing)).slice(0, MOST_SQUARES);
  return (
    <>
      <span className="min-w-0 max-w-[62%] truncate">
        <Name line={row} /> <span className="text-ink2">×</span> <Name line={column} />
      </span>
      {cell === undefined ? (
        <span className="text-ink2">nothing to do with each other</span>
      ) : (
        <span className="inline-flex items-center gap-2">
          <span className="inline-flex gap-px">
            {squares.map((standing, i) => (
              <StandingShape key={i} standing={standing} />
            ))}
          </span>
          {cellWords(cell)}
        </span>
      )}
      <span className="ml-auto inline-flex gap-4">
        {[row, column].map((line) => (line.kind === 'item' ? <Open key={line.item.id} item={line.item} /> : null))}
      </span>
    </>
  );
}

function Name({ line }: { readonly line: MatrixLine }) {
  if (line.kind === 'heading') return <strong>{groupName(line.group)}</strong>;
  return (
    <>
      <span className="font-mono text-xs">{line.item.id}</span> {line.item.title}
    </>
  );
}

function Open({ item }: { readonly item: MatrixItem }) {
  const { project } = useFrame();
  return (
    <Link className="inline-flex min-h-6 items-center whitespace-nowrap underline decoration-rule2 underline-offset-2" to={idAddress(project, item.id)}>
      Open {item.id}
    </Link>
  );
}

/** Something of one side: the other side is sorted and filtered by it. */
function Head({ item, side, met, viewing }: { readonly item: MatrixItem; readonly side: Side; readonly met: number; readonly viewing: MatrixViewing }) {
  const { view, setSide } = viewing;
  const other: Side = side === 'basis' ? 'tests' : 'basis';
  const { order, meets } = view.sides[other];
  const many = view[other];
  const isOrdered = orderText(order) === item.id;
  return (
    <>
      <span className="min-w-0 max-w-[50%] truncate">
        <span className="font-mono text-xs">{item.id}</span> {item.title}
      </span>
      <span className="text-ink2">
        {figureSaid(item.figure)} · meets {countedAs(met, many)} in view
      </span>
      <span className="ml-auto inline-flex gap-4">
        <TextButton onClick={() => setSide(other, { order: isOrdered ? { kind: 'own' } : { kind: 'partner', id: item.id } })}>{isOrdered ? `${many} in their own order` : `its ${many} first`}</TextButton>
        <TextButton onClick={() => setSide(other, { meets: meets === item.id ? null : item.id })}>{meets === item.id ? `all ${many} again` : `only its ${many}`}</TextButton>
        <Open item={item} />
      </span>
    </>
  );
}
