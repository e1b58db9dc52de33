import type { Migration } from './migration.ts';

/** Shared steps, and links for their uses and for calls. */
export const shared: Migration = {
  name: '0003-shared',
  sql: `
    ALTER TABLE artefact DROP CONSTRAINT artefact_kind_check,
      ADD CHECK (kind IN ('requirement', 'condition', 'case', 'question', 'shared'));
    ALTER TABLE link DROP CONSTRAINT link_type_check,
      ADD CHECK (type IN ('derives', 'covers', 'relates', 'asks', 'uses')),
      ADD pinned int;
  `,
};
