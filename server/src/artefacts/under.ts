import { artefactId, parseArtefactId, type ConditionId } from '@caderno/core/artefacts';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Using } from './library.ts';

const underRow = z.object({ number: z.number(), under: z.string().nullable() });

/** @throws {DomainError} when a condition would stand below one that is not there, or below itself. What is written is stored already. */
export async function refuseConditionCircles(work: UnitOfWork, projectId: string, written: readonly Using[]): Promise<void> {
  const below = written.flatMap(({ id, value }) => (value.kind === 'condition' && value.content.under !== null ? [{ id: id as ConditionId, under: value.content.under }] : []));
  if (below.length === 0) return;
  const rows = await selectRows(
    work,
    underRow,
    `SELECT a.number, v.content->>'under' AS under FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'condition' AND a.deleted_at IS NULL`,
    [projectId],
  );
  const above = new Map(rows.map((row) => [artefactId('condition', row.number), row.under === null ? null : conditionOf(row.under)]));
  for (const { id, under } of below) {
    if (!above.has(under)) throw new DomainError({ code: 'link_unknown', id: under });
    const met = new Set<ConditionId>();
    for (let at: ConditionId | null | undefined = under; at !== null && at !== undefined && !met.has(at); at = above.get(at)) {
      if (at === id) throw new DomainError({ code: 'condition_circle', id });
      met.add(at);
    }
  }
}

function conditionOf(text: string): ConditionId | null {
  const parsed = parseArtefactId(text);
  return parsed?.kind === 'condition' ? artefactId('condition', parsed.number) : null;
}
