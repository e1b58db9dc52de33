import type { Migration } from './migration.ts';

/**
 * The journal as the spine: every artefact carries the revision of the change that last altered what lists show of it,
 * whichever statement did, and coverage keeps its rows where any server can read them.
 */
export const log: Migration = {
  name: '0008-log',
  sql: `
    ALTER TABLE artefact ADD revision int NOT NULL DEFAULT 0;
    CREATE INDEX artefact_revision ON artefact (project_id, revision);

    CREATE FUNCTION caderno.artefact_revision() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      NEW.revision := (SELECT project.revision + 1 FROM caderno.project WHERE project.id = NEW.project_id);
      RETURN NEW;
    END $$;
    CREATE TRIGGER artefact_made BEFORE INSERT ON artefact FOR EACH ROW EXECUTE FUNCTION caderno.artefact_revision();
    CREATE TRIGGER artefact_altered BEFORE UPDATE ON artefact FOR EACH ROW WHEN (OLD.* IS DISTINCT FROM NEW.*) EXECUTE FUNCTION caderno.artefact_revision();

    -- A server says again and again that it is still at an import: silence tells that it was cut off.
    ALTER TABLE import_file RENAME begun_at TO alive_at;

    -- How far a person's drafts of an artefact have come, also when none is kept: an older one that arrives late is refused.
    CREATE TABLE draft_sequence (
      artefact_id bigint NOT NULL REFERENCES artefact ON DELETE CASCADE,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      sequence bigint NOT NULL,
      PRIMARY KEY (artefact_id, person_id)
    );

    CREATE TABLE coverage_state (
      project_id uuid PRIMARY KEY REFERENCES project ON DELETE CASCADE,
      edition int NOT NULL,
      revision int NOT NULL,
      computation text NOT NULL
    );
    CREATE TABLE coverage_row (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      id text NOT NULL,
      edition int NOT NULL,
      row jsonb,
      PRIMARY KEY (project_id, id)
    );
    CREATE INDEX ON coverage_row (project_id, edition);
  `,
};
