import type { Migration } from './migration.ts';

/** Pictures of steps, and links for what a case depends on. */
export const attachments: Migration = {
  name: '0004-attachments',
  sql: `
    ALTER TABLE link DROP CONSTRAINT link_type_check,
      ADD CHECK (type IN ('derives', 'covers', 'relates', 'asks', 'uses', 'dependsOn'));
    UPDATE artefact SET facts = facts || '{"kind": "procedure", "execution": "byHand"}' WHERE kind = 'case';
    CREATE TABLE attachment (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      id text NOT NULL,
      type text NOT NULL,
      bytes bytea NOT NULL,
      kept_at timestamptz NOT NULL,
      PRIMARY KEY (project_id, id)
    );
  `,
};
