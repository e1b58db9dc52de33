export { readReuse } from './reuse.ts';
export { takeOut } from './takeOut.ts';
export { renameParameter } from './rename.ts';
export { readReuseGraph } from './reuseGraph.ts';
