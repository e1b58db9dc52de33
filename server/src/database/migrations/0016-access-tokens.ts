import type { Migration } from './migration.ts';

/** Access tokens: what programs sign in with for one project, instead of a person's password. */
export const accessTokens: Migration = {
  name: '0016-access-tokens',
  sql: `
    CREATE TABLE access_token (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      token_hash text NOT NULL UNIQUE,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      name text NOT NULL,
      scope text NOT NULL CHECK (scope IN ('read', 'write')),
      made_at timestamptz NOT NULL DEFAULT now(),
      used_at timestamptz,
      expires_at timestamptz NOT NULL
    );
    CREATE INDEX ON access_token (person_id);
  `,
};
