import type { Migration } from './migration.ts';

/** Links by which people without an account read one artefact. */
export const readLinks: Migration = {
  name: '0023-read-links',
  sql: `
    CREATE TABLE read_link (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      token_hash text NOT NULL UNIQUE,
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      artefact_id bigint NOT NULL REFERENCES artefact ON DELETE CASCADE,
      by_id uuid NOT NULL REFERENCES person,
      for_whom text NOT NULL,
      made_at timestamptz NOT NULL,
      expires_at timestamptz NOT NULL,
      opened integer NOT NULL DEFAULT 0,
      opened_at timestamptz
    );
    CREATE INDEX ON read_link (project_id, made_at);
    CREATE INDEX ON read_link (artefact_id);
  `,
};
