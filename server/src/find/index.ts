export { find, findByWords, listByQuery } from './find.ts';
