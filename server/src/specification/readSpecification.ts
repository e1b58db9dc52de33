import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId, type ArtefactId } from '@caderno/core/artefacts';
import type { SpecifiedArtefact } from '@caderno/core/specification';
import type { NewBaseline, QueryOf, SpecificationRead } from '@caderno/contract';
import { z } from 'zod';
import { kindAndContentOrBroken } from '../artefacts/index.ts';
import { rowsOfPart } from '../baselines/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

/** Artefacts of one document: more are some thousand pages, which no browser lays out. */
const MOST_SPECIFIED = 1_500;

const nameRow = z.object({ name: z.string() });
const countRow = z.object({ count: z.number() });
const specifiedRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), parent: z.number().nullable(), position: z.number(), state: z.enum(ARTEFACT_STATES), version: z.number(), schema: z.number(), content: z.unknown() });

/** All that is designed, or a part of it with what that uses. @throws {DomainError} `specification_too_long` when that is too much for one document. */
export async function readSpecification(work: UnitOfWork, projectId: string, now: Date, query: QueryOf<'readSpecification'>): Promise<SpecificationRead> {
  const [project] = await selectRows(work, nameRow, 'SELECT name FROM project WHERE id = $1', [projectId]);
  const part = await rowsOfPart(work, { projectId, at: now }, partOf(query));
  const from = `FROM artefact a WHERE a.project_id = $1 AND a.deleted_at IS NULL AND a.state <> 'withdrawn' AND a.kind NOT IN ('question', 'suite') AND ($2::bigint[] IS NULL OR a.id = ANY($2))`;
  const [{ count } = { count: 0 }] = await selectRows(work, countRow, `SELECT count(*)::int AS count ${from}`, [projectId, part]);
  if (count > MOST_SPECIFIED) throw new DomainError({ code: 'specification_too_long', count, limit: MOST_SPECIFIED });
  const rows = await selectRows(
    work,
    specifiedRow,
    `WITH part AS (SELECT a.* ${from})
     SELECT a.kind, a.number, parent.number AS parent, a.position, a.state, v.version, v.schema, v.content
     FROM part a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head LEFT JOIN artefact parent ON parent.id = a.parent_id ORDER BY a.kind, a.number`,
    [projectId, part],
  );
  const artefacts: SpecificationRead['artefacts'] = [];
  const broken: ArtefactId[] = [];
  for (const { kind, number, parent, position, state, version, schema, content } of rows) {
    const [id, read] = [artefactId(kind, number), kindAndContentOrBroken(kind, schema, content)];
    if (read === null) broken.push(id);
    // A content and an id of one kind are one of that kind.
    else artefacts.push({ ...read, id, version, state, parent: parent === null ? null : artefactId('requirement', parent), position } as SpecifiedArtefact);
  }
  return { project: project?.name ?? '', at: now.toISOString(), artefacts, broken };
}

function partOf({ module, requirement, suite }: QueryOf<'readSpecification'>): NewBaseline['of'] {
  if (suite !== undefined) return { suite };
  if (requirement !== undefined) return { requirement };
  return module === undefined ? { everything: true } : { module };
}
