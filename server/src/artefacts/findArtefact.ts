import { parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import type { KindAndContent } from '@caderno/contract';
import { modelsOf, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { idOfRow } from './journalEntry.ts';
import { BrokenContent, kindAndContentFromStore } from './stored.ts';

/** @throws {DomainError} when the project has no such artefact, or it was deleted. */
export async function findArtefact(work: UnitOfWork, projectId: string, id: ArtefactId): Promise<ArtefactRow> {
  const parsed = parseArtefactId(id);
  const row = parsed && (await modelsOf(work.db).Artefact.findOne({ where: { projectId, ...parsed, deletedAt: null }, transaction: work.transaction }));
  if (!row) throw new DomainError({ code: 'artefact_unknown', id });
  return row;
}

/** @throws {DomainError} when the artefact has no such version, or it cannot be read. */
export async function readContent(work: UnitOfWork, row: ArtefactRow, version: number): Promise<KindAndContent> {
  const stored = await modelsOf(work.db).Version.findOne({ where: { artefactId: row.id, version }, transaction: work.transaction });
  if (stored === null) throw new DomainError({ code: 'version_unknown', id: idOfRow(row), version });
  try {
    return kindAndContentFromStore(row.kind, stored.schema, stored.content);
  } catch (cause) {
    if (!(cause instanceof BrokenContent)) throw cause;
    throw new DomainError({ code: 'artefact_broken', id: idOfRow(row), version }, { cause });
  }
}
