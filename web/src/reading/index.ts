export { ReadThrough } from './ReadThrough.tsx';
export { ReadSelection } from './ReadSelection.tsx';
