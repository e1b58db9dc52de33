export { LIST_COLUMNS, columnsOf, fieldOfColumn, groupsOf, isOwnColumn, orderIn, ownColumn, valueIn, type BuiltInColumn, type ListColumn, type ListProject, type Listed, type ListValue, type OwnColumn } from './columns.ts';
export { sorted, type Sorting } from './sorting.ts';
export { AGES, grouped, type Age, type ListGroup } from './grouping.ts';
export { MOST_CELLS, countsOf, drawnFigure, figureOf, isCounted, measuresOf, type Counted, type Counts, type CountsAsked, type CountsLine, type Figure, type Measure } from './counting.ts';
export { groupQuery } from './groupQuery.ts';
