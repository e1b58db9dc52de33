import { artefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { readStoredSettings, type PlacedIssue } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { issuesOf, markBroken } from '../artefacts/index.ts';
import { artefactKeyRow, execute, inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';

/** Something stored that cannot be read, and where it is. */
export interface DataFault {
  readonly project: string;
  readonly what: { readonly kind: 'version'; readonly id: ArtefactId; readonly version: number; readonly head: boolean } | { readonly kind: 'draft'; readonly id: ArtefactId; readonly person: string } | { readonly kind: 'settings'; readonly part: string };
  readonly issues: readonly PlacedIssue[];
}

/** Contents read at once: versions of large data sets take megabytes. */
const AT_ONCE = 200;

const storedRow = artefactKeyRow.extend({ schema: z.number(), content: z.unknown() });
const versionRow = storedRow.extend({ key: z.string(), version: z.number(), head: z.boolean() });
const draftRow = storedRow.extend({ person: z.string() });
const projectRow = z.object({ id: z.string(), key: z.string(), settings: z.unknown() });

/** Reads everything that is stored, and tells what cannot be read; heads that cannot are marked so that lists say so, others are unmarked. */
export async function checkData(db: Sequelize): Promise<{ readonly checked: number; readonly faults: readonly DataFault[] }> {
  const faults: DataFault[] = [];
  let checked = 0;
  const projects = await inTransaction(db, (work) => selectRows(work, projectRow, 'SELECT id, key, settings FROM project ORDER BY key'));
  for (const project of projects) {
    if (project.settings !== null) faults.push(...readStoredSettings(project.settings).broken.map((part): DataFault => ({ project: project.key, what: { kind: 'settings', part }, issues: [] })));
    checked += await checkVersions(db, project, faults);
    checked += await checkDrafts(db, project, faults);
  }
  return { checked, faults };
}

async function checkVersions(db: Sequelize, project: { readonly id: string; readonly key: string }, faults: DataFault[]): Promise<number> {
  const broken: { kind: ArtefactKind; number: number }[] = [];
  const read = (work: UnitOfWork, after: string): Promise<z.infer<typeof versionRow>[]> =>
    selectRows(
      work,
      versionRow,
      `SELECT to_char(a.id, 'FM0000000000000000000') || to_char(v.version, 'FM0000000000') AS key, a.kind, a.number, v.version, v.version = a.head AS head, v.schema, v.content
       FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id
       WHERE a.project_id = $1 AND (a.id, v.version) > ($2::bigint, $3::int) ORDER BY a.id, v.version LIMIT ${AT_ONCE}`,
      [project.id, after.slice(0, 19), after.slice(19)],
    );
  const checked = await each(db, read, ({ kind, number, version, head, schema, content }) => {
    const issues = issuesOf(kind, { schema, content });
    if (issues.length === 0) return;
    faults.push({ project: project.key, what: { kind: 'version', id: artefactId(kind, number), version, head }, issues });
    if (head) broken.push({ kind, number });
  });
  await inTransaction(db, async (work) => {
    await execute(work, 'UPDATE artefact SET broken = false WHERE project_id = $1 AND broken', [project.id]);
    await markBroken(work, project.id, broken);
  });
  return checked;
}

async function checkDrafts(db: Sequelize, project: { readonly id: string; readonly key: string }, faults: DataFault[]): Promise<number> {
  const drafts = await inTransaction(db, (work) =>
    selectRows(work, draftRow, `SELECT a.kind, a.number, d.schema, d.content, person.name AS person FROM draft d JOIN artefact a ON a.id = d.artefact_id JOIN person ON person.id = d.person_id WHERE a.project_id = $1 ORDER BY a.id`, [project.id]),
  );
  for (const { kind, number, person, ...stored } of drafts) {
    const issues = issuesOf(kind, stored);
    if (issues.length > 0) faults.push({ project: project.key, what: { kind: 'draft', id: artefactId(kind, number), person }, issues });
  }
  return drafts.length;
}

/** Goes through rows in the order of their keys, a page at a time. */
async function each<R extends { readonly key: string }>(db: Sequelize, read: (work: UnitOfWork, after: string) => Promise<R[]>, look: (row: R) => void): Promise<number> {
  let after = `${'0'.repeat(19)}${'0'.repeat(10)}`;
  for (let count = 0; ; ) {
    const rows = await inTransaction(db, (work) => read(work, after));
    rows.forEach(look);
    count += rows.length;
    const last = rows.at(-1);
    if (last === undefined || rows.length < AT_ONCE) return count;
    after = last.key;
  }
}
