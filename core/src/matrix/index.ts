export { axisLines, groupedLike, itemLines, type AxisItem, type AxisLine } from './axis.ts';
export { byPartner, cellAt, cellStanding, firstFrom, matrixOf, type Matrix, type MatrixCell } from './matrix.ts';
export { PLAIN_VIEW, arranged, meeting, type Axis, type AxisOrder, type AxisView } from './arranged.ts';
