export { readReuse } from './reuse.ts';
export { takeOut } from './takeOut.ts';
