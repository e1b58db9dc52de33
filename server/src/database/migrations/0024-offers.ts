import type { Migration } from './migration.ts';

/** Changes that remarks offer, and what became of them. */
export const offers: Migration = {
  name: '0024-offers',
  sql: `
    ALTER TABLE remark
      ADD COLUMN offer text,
      ADD COLUMN taken_at timestamptz,
      ADD COLUMN taken_by uuid REFERENCES person,
      ADD COLUMN taken_version integer;
  `,
};
