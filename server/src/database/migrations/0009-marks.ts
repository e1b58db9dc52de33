import type { Migration } from './migration.ts';

/** When something was last done to the whole of it, for whoever looks after the server. */
export const marks: Migration = {
  name: '0009-marks',
  sql: 'CREATE TABLE server_mark (name text PRIMARY KEY, at timestamptz NOT NULL)',
};
