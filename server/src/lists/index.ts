export { listSavedQueries, removeQuery, saveQuery, type Asker } from './savedQueries.ts';
export { readListViews, saveListView } from './listViews.ts';
