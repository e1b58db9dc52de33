import type { Migration } from './migration.ts';

/**
 * Hand-offs: which exact versions (those of a baseline) were given to whom, in which configurations. `of`: the suite or the baseline that was handed
 * off; what is executed is told from the versions, and never changes.
 */
export const handOffs: Migration = {
  name: '0026-hand-offs',
  sql: `
    CREATE TABLE hand_off (
      id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
      project_id uuid NOT NULL REFERENCES project ON DELETE CASCADE,
      number int NOT NULL,
      name text NOT NULL,
      note text NOT NULL,
      of text NOT NULL,
      baseline_id bigint NOT NULL REFERENCES baseline ON DELETE CASCADE,
      due date,
      made_by uuid NOT NULL REFERENCES person,
      at timestamptz NOT NULL,
      configurations jsonb NOT NULL,
      lines jsonb NOT NULL,
      command_id uuid,
      UNIQUE (project_id, number),
      UNIQUE (project_id, command_id)
    );
  `,
};
