export { chosenIds, find, findByWords, listByQuery } from './find.ts';
export { findPlaces, finderOrRefused } from './findPlaces.ts';
