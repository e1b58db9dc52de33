import type { Migration } from './migration.ts';

/** Files bring cases as well: which kind one is read for, how its columns were matched, and by which id a case is found again. */
export const caseFiles: Migration = {
  name: '0013-case-files',
  sql: `
    ALTER TABLE import_file ADD kind text NOT NULL DEFAULT 'requirement';
    ALTER TABLE import_source ADD kind text NOT NULL DEFAULT 'requirement', DROP CONSTRAINT import_source_pkey, ADD PRIMARY KEY (project_id, kind, name);
    ALTER TABLE imported ADD source text, ADD key text;
    CREATE INDEX ON imported (source, key);
  `,
};
