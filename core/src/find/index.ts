export { HAS_VALUES, IS_VALUES, QUERY_FIELDS, fieldNamed, parseQuery, queryFieldsOf, queryNameOf, queryValuesFor, type HasValue, type IsValue, type NumberField, type OwnNode, type Query, type QueryField, type QueryNode, type QueryProblem, type TextField } from './query.ts';
export { isClosed, leavesOf, matchesQuery, soughtKey, speaksOfState, wordsToFind, type Asking, type Findable, type FoundByWords, type Sought } from './matching.ts';
export { daysOf, spanOf, type Moment, type Span } from './moment.ts';
export type { Comparison } from './tokens.ts';
export { completed, partAt, type QueryPart } from './completion.ts';
