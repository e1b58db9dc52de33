import type { Migration } from './migration.ts';

/** Where an artefact that was carried here was written first, what it was when it came, and its versions here by those there. */
export const carried: Migration = {
  name: '0014-carried',
  sql: `
    CREATE TABLE carried (
      artefact_id bigint PRIMARY KEY REFERENCES artefact (id) ON DELETE CASCADE,
      first_project text NOT NULL,
      first_id text NOT NULL,
      versions jsonb NOT NULL,
      schema int NOT NULL,
      base jsonb NOT NULL
    );
    CREATE INDEX ON carried (first_project, first_id);
  `,
};
