export { Curves } from './Curves.tsx';
export type { Curve, CurveColour, CurvesShown } from './curve.ts';
export { Bars } from './Bars.tsx';
export type { BarPart } from './bars.ts';
