import type { ArtefactId } from '@caderno/core/artefacts';
import { schemaVersionOf, type KindAndContent } from '@caderno/contract';
import { answersAny, execute, modelsOf, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { findArtefact } from './findArtefact.ts';

/**
 * Keeps one person's working text. A person's windows share one draft, and what was typed last is it, whatever arrives
 * last. @throws {DomainError} `draft_older` when one that was typed later is kept, or was saved or dropped.
 */
export async function keepDraft(work: UnitOfWork, projectId: string, personId: string, id: ArtefactId, { base, sequence, ...value }: KindAndContent & { readonly base: number; readonly sequence: number }, at: Date): Promise<void> {
  const row = await findArtefact(work, projectId, id);
  if (row.kind !== value.kind) throw new DomainError({ code: 'kind_mismatch', id, kind: value.kind });
  if (base > row.head) throw new DomainError({ code: 'version_unknown', id, version: base });
  if (!(await countsOn(work, row.id, personId, sequence, '<='))) throw new DomainError({ code: 'draft_older' });
  await execute(
    work,
    `INSERT INTO draft (artefact_id, person_id, base, content, schema, at) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (artefact_id, person_id) DO UPDATE SET base = excluded.base, content = excluded.content, schema = excluded.schema, at = excluded.at`,
    [row.id, personId, base, JSON.stringify(value.content), schemaVersionOf(value.kind), at],
  );
}

/** Drops it; with a sequence only what was typed up to then, also what is still on its way. */
export async function dropDraft(work: UnitOfWork, projectId: string, personId: string, id: ArtefactId, sequence: number | null = null): Promise<void> {
  const row = await findArtefact(work, projectId, id);
  // One more than what it ends: a draft of that very text that is still on its way comes too late.
  if (sequence !== null && !(await countsOn(work, row.id, personId, sequence + 1, '<'))) return;
  await modelsOf(work.db).Draft.destroy({ where: { artefactId: row.id, personId }, transaction: work.transaction });
}

/** Takes note of how far a person's drafts of an artefact have come; false: they have come further (`<=`: as far is a retry, `<`: as far is further). */
async function countsOn(work: UnitOfWork, rowId: string, personId: string, sequence: number, goesOn: '<' | '<='): Promise<boolean> {
  return answersAny(
    work,
    `INSERT INTO draft_sequence (artefact_id, person_id, sequence) VALUES ($1, $2, $3)
     ON CONFLICT (artefact_id, person_id) DO UPDATE SET sequence = excluded.sequence WHERE draft_sequence.sequence ${goesOn} excluded.sequence RETURNING sequence`,
    [rowId, personId, sequence],
  );
}
