import type { Migration } from './migration.ts';

/** Data sets that many use, and links to the conditions they serve. */
export const dataSets: Migration = {
  name: '0005-data-sets',
  sql: `
    ALTER TABLE artefact DROP CONSTRAINT artefact_kind_check,
      ADD CHECK (kind IN ('requirement', 'condition', 'case', 'question', 'shared', 'dataSet'));
    ALTER TABLE link DROP CONSTRAINT link_type_check,
      ADD CHECK (type IN ('derives', 'covers', 'relates', 'asks', 'uses', 'dependsOn', 'serves'));
    UPDATE artefact SET facts = facts || '{"dataSet": null}' WHERE kind = 'case';
  `,
};
