export { axisLines, itemLines, type AxisItem, type AxisLine } from './axis.ts';
export { byPartner, cellAt, cellStanding, firstFrom, matrixOf, type Matrix, type MatrixCell } from './matrix.ts';
