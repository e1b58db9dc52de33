import type { ArtefactId } from '@caderno/core/artefacts';
import { CONTENT_SCHEMA_VERSION, type KindAndContent } from '@caderno/contract';
import { execute, modelsOf, type Work } from '../database/index.ts';
import { Refused } from '../refused.ts';
import { findArtefact } from './store.ts';

/** Keeps one person's working text. The last one sent wins: a person's windows share one draft. */
export async function keepDraft(work: Work, projectId: string, personId: string, id: ArtefactId, base: number, value: KindAndContent, at: Date): Promise<void> {
  const row = await findArtefact(work, projectId, id);
  if (row.kind !== value.kind) throw new Refused({ code: 'kind_mismatch', id, kind: value.kind });
  if (base > row.head) throw new Refused({ code: 'version_unknown', id, version: base });
  await execute(
    work,
    `INSERT INTO draft (artefact_id, person_id, base, content, schema, at) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (artefact_id, person_id) DO UPDATE SET base = excluded.base, content = excluded.content, schema = excluded.schema, at = excluded.at`,
    [row.id, personId, base, JSON.stringify(value.content), CONTENT_SCHEMA_VERSION[value.kind], at],
  );
}

export async function dropDraft(work: Work, projectId: string, personId: string, id: ArtefactId): Promise<void> {
  const row = await findArtefact(work, projectId, id);
  await modelsOf(work.db).Draft.destroy({ where: { artefactId: row.id, personId }, transaction: work.transaction });
}
