import type { Migration } from './migration.ts';

/**
 * What a project came to at the end of days: counted from the journal, and kept, as the past does not change. `computation`: which code counted;
 * what another one counted is counted again, so that a curve bends only where the design did.
 */
export const trend: Migration = {
  name: '0027-trend',
  sql: `
    CREATE TABLE trend_point (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      revision int NOT NULL,
      computation text NOT NULL,
      figures jsonb NOT NULL,
      requirements jsonb NOT NULL,
      PRIMARY KEY (project_id, revision)
    );
  `,
};
