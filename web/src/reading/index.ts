export { ReadThrough } from './ReadThrough.tsx';
