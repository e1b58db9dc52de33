export { find, listByQuery } from './find.ts';
