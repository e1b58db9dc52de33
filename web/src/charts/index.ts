export { Curves } from './Curves.tsx';
export type { Curve, CurveColour } from './curve.ts';
