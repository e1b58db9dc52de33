import type { Migration } from './migration.ts';

/** Mails that wait for a mail server or were taken by it, what of the inbox is mailed, and what is done by links in mails. Of what reached people before nothing is mailed. */
export const mail: Migration = {
  name: '0022-mail',
  sql: `
    CREATE TABLE mail (
      id uuid PRIMARY KEY,
      -- In the order in which they were written.
      number bigint GENERATED ALWAYS AS IDENTITY,
      -- Null: of nobody, as a link for a forgotten password.
      by_id uuid REFERENCES person ON DELETE SET NULL,
      project_id uuid REFERENCES project ON DELETE CASCADE,
      to_name text NOT NULL,
      to_address text NOT NULL,
      subject text NOT NULL,
      -- Sealed, as links in it open something; gone once it was sent or given up.
      sealed bytea,
      -- Whether whoever sent it sees it among their mails.
      shown boolean NOT NULL,
      state text NOT NULL DEFAULT 'waiting',
      tries int NOT NULL DEFAULT 0,
      answer text NOT NULL DEFAULT '',
      made_at timestamptz NOT NULL,
      next_at timestamptz NOT NULL,
      ended_at timestamptz
    );
    CREATE INDEX ON mail (next_at) WHERE state = 'waiting';
    CREATE INDEX ON mail (by_id, made_at);
    CREATE INDEX ON mail (to_address, made_at);

    ALTER TABLE inbox_entry ADD COLUMN mail text NOT NULL DEFAULT 'none';
    ALTER TABLE inbox_entry ALTER COLUMN mail SET DEFAULT 'undecided';
    CREATE INDEX ON inbox_entry (id) WHERE mail = 'undecided';
    CREATE INDEX ON inbox_entry (mail, person_id, project_id) WHERE mail IN ('atOnce', 'daily');
    CREATE TABLE inbox_pace (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      reason text NOT NULL,
      pace text NOT NULL,
      PRIMARY KEY (person_id, project_id, reason)
    );
    CREATE TABLE inbox_morning (
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      person_id uuid NOT NULL REFERENCES person ON DELETE CASCADE,
      -- The day of which the daily mail was written last.
      day date NOT NULL,
      PRIMARY KEY (person_id, project_id)
    );

    CREATE TABLE invitation (
      id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
      token_hash text NOT NULL UNIQUE,
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      email text NOT NULL,
      role text NOT NULL,
      by_id uuid NOT NULL REFERENCES person,
      made_at timestamptz NOT NULL,
      expires_at timestamptz NOT NULL,
      mail_id uuid REFERENCES mail ON DELETE SET NULL,
      UNIQUE (project_id, email)
    );
    CREATE TABLE email_link (
      token_hash text PRIMARY KEY,
      person_id uuid NOT NULL UNIQUE REFERENCES person ON DELETE CASCADE,
      email text NOT NULL,
      expires_at timestamptz NOT NULL
    );
  `,
};
