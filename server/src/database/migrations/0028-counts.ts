import type { Migration } from './migration.ts';

/** A query that is kept may be a table of counts: by what down and across, what of them, and how it is seen. */
export const counts: Migration = {
  name: '0028-counts',
  sql: 'ALTER TABLE saved_query ADD COLUMN counts jsonb;',
};
