import type { Migration } from './migration.ts';

/** Somebody may see some modules only (in their order by letters; null: everything), and a moment may hold no more than these. */
export const parts: Migration = {
  name: '0029-parts',
  sql: 'ALTER TABLE member ADD COLUMN sees text[]; ALTER TABLE project ADD COLUMN part text[];',
};
