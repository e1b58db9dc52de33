import type { Migration } from './migration.ts';

/** What a head says of the fields that a project has made for itself. */
export const ownFields: Migration = {
  name: '0012-own-fields',
  sql: `ALTER TABLE artefact ADD own jsonb NOT NULL DEFAULT '{}'`,
};
