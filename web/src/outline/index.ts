export { Outline } from './Outline.tsx';
export { useMovable } from './useMovable.ts';
