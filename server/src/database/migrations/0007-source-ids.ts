import type { Migration } from './migration.ts';

/** Requirements are found by the id of their source: it stands among the facts of the head. */
export const sourceIds: Migration = {
  name: '0007-source-ids',
  sql: `
    UPDATE artefact SET facts = facts || jsonb_build_object('origin', coalesce(v.content->'origin'->>'id', ''))
    FROM artefact_version v WHERE v.artefact_id = artefact.id AND v.version = artefact.head AND artefact.kind = 'requirement';
    CREATE INDEX artefact_source_id ON artefact (project_id, lower(facts->>'origin')) WHERE kind = 'requirement';
  `,
};
