import { Choose } from '../look/index.ts';
import { orderText, readOrder, type MatrixViewing, type Side } from './matrixView.ts';

/** The order of the rows or the columns. */
export function OrderChoice({ label, side, viewing: { view, setSide } }: { readonly label: string; readonly side: Side; readonly viewing: MatrixViewing }) {
  const { order } = view.sides[side];
  const own = side === 'basis' ? 'in outline order' : view.tests === 'suites' ? 'in folders' : view.tests === 'cases' ? 'in modules' : 'in features';
  const options = [
    { value: '', name: own },
    { value: 'most', name: 'fullest first' },
    { value: 'fewest', name: 'emptiest first' },
    ...(order.kind === 'partner' ? [{ value: order.id, name: `by ${order.id}` }] : []),
  ];
  return <Choose label={label} showLabel value={orderText(order)} options={options} onChange={(text) => setSide(side, { order: readOrder(text) })} />;
}
