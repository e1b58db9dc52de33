import type { Migration } from './migration.ts';

/** What keeps a server whole: broken artefacts are marked, answers of commands kept for retries, people looked after, secrets apart. */
export const safety: Migration = {
  name: '0006-safety',
  sql: `
    ALTER TABLE artefact ADD broken boolean NOT NULL DEFAULT false;
    CREATE INDEX artefact_broken ON artefact (project_id) WHERE broken;

    CREATE TABLE command_answer (
      command_id uuid PRIMARY KEY,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      operation text NOT NULL,
      answer text NOT NULL,
      at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX ON command_answer (at);

    ALTER TABLE project ADD demo boolean NOT NULL DEFAULT false;
    UPDATE project SET demo = true WHERE NOT EXISTS (SELECT 1 FROM person WHERE demo_job IS NULL)
      OR (EXISTS (SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = project.id AND person.demo_job IS NOT NULL)
        AND NOT EXISTS (SELECT 1 FROM member JOIN person ON person.id = member.person_id WHERE member.project_id = project.id AND person.demo_job IS NULL));

    ALTER TABLE person ADD active boolean NOT NULL DEFAULT true;
    ALTER TABLE session
      ADD id uuid NOT NULL DEFAULT gen_random_uuid(),
      ADD started_at timestamptz NOT NULL DEFAULT now(),
      ADD seen_at timestamptz NOT NULL DEFAULT now(),
      ADD agent text NOT NULL DEFAULT '';
    CREATE INDEX ON session (person_id);
    CREATE TABLE reset_link (
      token_hash text PRIMARY KEY,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      expires_at timestamptz NOT NULL
    );
    DROP TABLE sign_in_failure;
    CREATE TABLE sign_in_attempt (account text NOT NULL, address text NOT NULL, at timestamptz NOT NULL);
    CREATE INDEX ON sign_in_attempt (account, at);
    CREATE INDEX ON sign_in_attempt (address, at);
    CREATE TABLE known_address (person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE, address text NOT NULL, at timestamptz NOT NULL, PRIMARY KEY (person_id, address));

    CREATE TABLE person_event (
      id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
      at timestamptz NOT NULL DEFAULT now(),
      action text NOT NULL,
      by_id uuid REFERENCES person ON DELETE SET NULL,
      about_id uuid REFERENCES person ON DELETE SET NULL,
      project_id uuid REFERENCES project ON DELETE CASCADE,
      detail text NOT NULL
    );
    CREATE INDEX ON person_event (project_id, id);

    CREATE TABLE secret (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      constant text NOT NULL,
      configuration text NOT NULL,
      sealed bytea NOT NULL,
      PRIMARY KEY (project_id, constant, configuration)
    );

    ALTER TABLE import_file ADD begun_at timestamptz;
  `,
};
