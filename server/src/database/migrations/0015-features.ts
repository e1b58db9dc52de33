import type { Migration } from './migration.ts';

/** Features: files of scenarios. */
export const features: Migration = {
  name: '0015-features',
  sql: `
    ALTER TABLE artefact DROP CONSTRAINT artefact_kind_check,
      ADD CHECK (kind IN ('requirement', 'condition', 'case', 'question', 'shared', 'dataSet', 'feature'));
  `,
};
