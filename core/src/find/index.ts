export { HAS_VALUES, QUERY_FIELDS, parseQuery, type HasValue, type Query, type QueryField, type QueryProblem, type QueryTerm } from './query.ts';
export { matchesQuery, wordsToFind, type Findable, type FoundByWords } from './matching.ts';
