export { Curves } from './Curves.tsx';
export type { Curve } from './curve.ts';
