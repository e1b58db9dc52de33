export { JOBS_SCHEMA, inSnapshot, inTransaction, inTrial, openDatabase, plainUrl, type UnitOfWork } from './connection.ts';
export { answersAny, execute, selectRows } from './query.ts';
export { meanwhile } from './meanwhile.ts';
export { refreshStatistics } from './statistics.ts';
export { modelsOf, type ArtefactRow, type ChangeRow, type Models, type PersonRow, type ProjectRow } from './models.ts';
export { DatabaseNewer, migrate, removeAll } from './migrate.ts';
export { artefactKeyRow, countRow, idRow, numberRow } from './rows.ts';
