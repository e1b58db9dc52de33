export { layOutGraph } from './elk.ts';
export { pathThrough, type Point } from './paths.ts';
