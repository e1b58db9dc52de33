export { Curves } from './Curves.tsx';
export type { Curve, CurveColour, CurvesShown } from './curve.ts';
