import type { Migration } from './migration.ts';

/** A project as a baseline holds it: a project of its own that nobody changes, made when somebody opens it. Baselines know where requirements stood, and what was agreed. */
export const moments: Migration = {
  name: '0020-moments',
  sql: `
    ALTER TABLE project ADD moment_of uuid REFERENCES project ON DELETE CASCADE, ADD seen_at timestamptz;
    CREATE INDEX ON project (moment_of) WHERE moment_of IS NOT NULL;
    ALTER TABLE baseline_item ADD parent_id bigint, ADD position int NOT NULL DEFAULT 0, ADD agreed_version int;
    -- Of baselines of before, where it stands now is the best that is known.
    UPDATE baseline_item i SET parent_id = a.parent_id, position = a.position,
      agreed_version = CASE WHEN i.state = 'agreed' THEN i.version WHEN a.agreed_version <= i.version THEN a.agreed_version END
      FROM artefact a WHERE a.id = i.artefact_id;
  `,
};
