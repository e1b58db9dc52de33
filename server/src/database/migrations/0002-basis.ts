import type { Migration } from './migration.ts';

/** Questions, changes of several artefacts, settings of a project, imports, the story tracker. */
export const basis: Migration = {
  name: '0002-basis',
  sql: `
    ALTER TABLE artefact DROP CONSTRAINT artefact_kind_check,
      ADD CHECK (kind IN ('requirement', 'condition', 'case', 'question'));
    ALTER TABLE link DROP CONSTRAINT link_type_check,
      ADD CHECK (type IN ('derives', 'covers', 'relates', 'asks'));

    CREATE TABLE change_part (
      change_id uuid NOT NULL REFERENCES change ON DELETE CASCADE,
      place int NOT NULL,
      artefact_id bigint REFERENCES artefact ON DELETE CASCADE,
      from_version int,
      to_version int,
      undo jsonb NOT NULL,
      PRIMARY KEY (change_id, place)
    );
    CREATE INDEX ON change_part (artefact_id);
    INSERT INTO change_part (change_id, place, artefact_id, from_version, to_version, undo)
      SELECT id, 0, artefact_id, from_version, to_version, undo FROM change;
    ALTER TABLE change ADD size int NOT NULL DEFAULT 1,
      DROP COLUMN artefact_id, DROP COLUMN from_version, DROP COLUMN to_version, DROP COLUMN undo;

    ALTER TABLE project ADD settings jsonb, ADD settings_version int NOT NULL DEFAULT 1;

    CREATE TABLE imported (
      artefact_id bigint PRIMARY KEY REFERENCES artefact ON DELETE CASCADE,
      base jsonb NOT NULL
    );
    CREATE TABLE import_source (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      name text NOT NULL,
      mapping jsonb NOT NULL,
      types jsonb,
      PRIMARY KEY (project_id, name)
    );
    CREATE TABLE import_file (
      id uuid PRIMARY KEY,
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      name text NOT NULL,
      bytes bytea NOT NULL,
      at timestamptz NOT NULL,
      state text NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'cancelled', 'failed')),
      done int NOT NULL DEFAULT 0,
      total int NOT NULL DEFAULT 0
    );
    CREATE INDEX ON import_file (at);
    CREATE TABLE tracker_state (
      project_id uuid PRIMARY KEY REFERENCES project ON DELETE CASCADE,
      checked_at timestamptz NOT NULL,
      failure text,
      new_stories int NOT NULL,
      changed_stories int NOT NULL
    );
  `,
};
