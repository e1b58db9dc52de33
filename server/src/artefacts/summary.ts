import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId } from '@caderno/core/artefacts';
import { RISKS } from '@caderno/core/basis';
import type { Summary } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { summaryOf } from '../kinds/index.ts';

const summaryRow = z.object({
  kind: z.enum(ARTEFACT_KINDS),
  number: z.int(),
  parentNumber: z.int().nullable(),
  position: z.number(),
  state: z.enum(ARTEFACT_STATES),
  version: z.int(),
  meaningSince: z.int(),
  agreed: z.int().nullable(),
  title: z.string(),
  module: z.string(),
  own: z.record(z.string(), z.union([z.string(), z.array(z.string())])),
  risk: z.enum(RISKS).nullable(),
  priority: z.string().nullable(),
  owner: z.string(),
  tags: z.array(z.string()),
  facts: z.unknown(),
  author: z.string(),
  at: z.string(),
  broken: z.boolean(),
});

// Dates leave the database as text: making a Date of each and a text of it again is dear in a list of thousands.
const SELECT = `
  SELECT a.kind, a.number, parent.number AS "parentNumber", a.position, a.state, a.head AS version, a.meaning_since AS "meaningSince", a.agreed_version AS agreed,
    a.title, a.module, a.risk, a.priority, a.owner, a.tags, a.own, a.facts, person.name AS author,
    to_char(a.updated_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at, a.broken
  FROM artefact a LEFT JOIN artefact parent ON parent.id = a.parent_id JOIN person ON person.id = a.author_id`;

/** Summaries of the artefacts (alias `a`) an SQL condition holds for. */
export async function selectSummaries(work: UnitOfWork, where: string, bind: readonly unknown[], order: string): Promise<Summary[]> {
  const rows = await selectRows(work, summaryRow, `${SELECT} WHERE ${where} ORDER BY ${order}`, bind);
  return rows.map(({ kind, number, parentNumber, position, risk, priority, owner, tags, facts, ...head }) =>
    summaryOf(kind, head, { number, parent: parentNumber === null ? null : artefactId('requirement', parentNumber), position, risk, priority, owner, tags }, facts),
  );
}
