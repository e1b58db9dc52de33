import type { Migration } from './migration.ts';

/** Lists: what a head says of depths, queries that are kept, and how somebody wants to see a list. */
export const lists: Migration = {
  name: '0011-lists',
  sql: `
    -- A head that says more than before is no change that anybody made.
    ALTER TABLE artefact DISABLE TRIGGER artefact_altered;
    UPDATE artefact a SET facts = a.facts || jsonb_build_object('depths', CASE jsonb_typeof(v.content->'depths') WHEN 'array' THEN v.content->'depths' ELSE '[]' END)
      FROM artefact_version v WHERE a.kind = 'condition' AND v.artefact_id = a.id AND v.version = a.head;
    ALTER TABLE artefact ENABLE TRIGGER artefact_altered;

    CREATE TABLE saved_query (
      id uuid PRIMARY KEY,
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      -- NULL: everybody's in the project.
      person_id uuid REFERENCES person ON DELETE CASCADE,
      kind text NOT NULL,
      name text NOT NULL,
      query text NOT NULL
    );
    CREATE INDEX ON saved_query (project_id, kind);

    CREATE TABLE list_view (
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      kind text NOT NULL,
      view jsonb NOT NULL,
      PRIMARY KEY (person_id, kind)
    );
  `,
};
