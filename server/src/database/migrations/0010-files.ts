import type { Migration } from './migration.ts';

/** Bytes stand by themselves, under their hash and once; the command of an import's run, its decoded file and why it failed stand with the file. */
export const files: Migration = {
  name: '0010-files',
  sql: `
    CREATE TABLE stored_file (
      hash text PRIMARY KEY,
      size int NOT NULL,
      kept_at timestamptz NOT NULL,
      -- NULL: they are in the bucket of the server.
      bytes bytea
    );
    CREATE INDEX ON stored_file (kept_at);
    -- Pictures and packed files are packed already.
    ALTER TABLE stored_file ALTER bytes SET STORAGE EXTERNAL;

    INSERT INTO stored_file (hash, size, kept_at, bytes) SELECT DISTINCT ON (id) id, length(bytes), kept_at, bytes FROM attachment ORDER BY id, kept_at DESC;
    ALTER TABLE attachment ADD size int;
    UPDATE attachment SET size = length(bytes);
    ALTER TABLE attachment ALTER size SET NOT NULL, DROP bytes, ADD FOREIGN KEY (id) REFERENCES stored_file;
    CREATE INDEX ON attachment (id);

    INSERT INTO stored_file (hash, size, kept_at, bytes) SELECT DISTINCT ON (sha256(bytes)) encode(sha256(bytes), 'hex'), length(bytes), at, bytes FROM import_file ON CONFLICT DO NOTHING;
    ALTER TABLE import_file ADD hash text REFERENCES stored_file, ADD size int,
      ADD job_id uuid, ADD command_id uuid, ADD refusal jsonb;
    UPDATE import_file SET hash = encode(sha256(bytes), 'hex'), size = length(bytes);
    ALTER TABLE import_file ALTER hash SET NOT NULL, ALTER size SET NOT NULL, DROP bytes;
    CREATE INDEX ON import_file (hash);

    CREATE TABLE import_document (
      file_id uuid PRIMARY KEY REFERENCES import_file ON DELETE CASCADE,
      -- How the file was read, and by which code.
      reading text NOT NULL,
      document bytea NOT NULL
    );
    ALTER TABLE import_document ALTER document SET STORAGE EXTERNAL;
  `,
};
