import type { Migration } from './migration.ts';

/** Suites: ordered choices of cases and scenarios. */
export const suites: Migration = {
  name: '0025-suites',
  sql: `
    ALTER TABLE artefact DROP CONSTRAINT artefact_kind_check,
      ADD CHECK (kind IN ('requirement', 'condition', 'case', 'question', 'shared', 'dataSet', 'feature', 'suite'));
  `,
};
