import type { Migration } from './migration.ts';

/** What people say at places of artefacts: threads of remarks, what they said before, and whom they name. */
export const remarks: Migration = {
  name: '0017-remarks',
  sql: `
    CREATE TABLE remark (
      id uuid PRIMARY KEY,
      artefact_id bigint NOT NULL REFERENCES artefact ON DELETE CASCADE,
      thread_id uuid NOT NULL REFERENCES remark ON DELETE CASCADE,
      -- Of the first of a thread.
      place jsonb,
      said text,
      version integer,
      settled_at timestamptz,
      settled_by uuid REFERENCES person,
      --
      author_id uuid NOT NULL REFERENCES person,
      text text NOT NULL,
      at timestamptz NOT NULL,
      edited_at timestamptz,
      taken_back_at timestamptz,
      CHECK ((thread_id = id) = (place IS NOT NULL))
    );
    CREATE INDEX ON remark (artefact_id);
    CREATE INDEX ON remark (thread_id);
    CREATE TABLE remark_before (
      remark_id uuid NOT NULL REFERENCES remark ON DELETE CASCADE,
      text text NOT NULL,
      until timestamptz NOT NULL
    );
    CREATE INDEX ON remark_before (remark_id);
    CREATE TABLE mention (
      remark_id uuid NOT NULL REFERENCES remark ON DELETE CASCADE,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      PRIMARY KEY (remark_id, person_id)
    );
    CREATE INDEX ON mention (person_id);
  `,
};
