import { ARTEFACT_KINDS, artefactId, parseArtefactId } from '@caderno/core/artefacts';
import { versionsNamedIn } from '@caderno/core/kinds';
import type { KindAndContent } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

const namedVersionRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), version: z.number() });

/** @throws {DomainError} when a version is named that its artefact does not have. Artefacts that are not there are a matter of links. */
export async function refuseUnknownVersions(work: UnitOfWork, projectId: string, values: readonly KindAndContent[]): Promise<void> {
  const records = values.flatMap((value) => versionsNamedIn(value)).flatMap(({ id, version }) => {
    const parsed = parseArtefactId(id);
    return parsed === null ? [] : [{ ...parsed, version }];
  });
  if (records.length === 0) return;
  const [wrong] = await selectRows(
    work,
    namedVersionRow,
    `SELECT r.kind, r.number, r.version FROM jsonb_to_recordset($1::jsonb) AS r(kind text, number int, version int)
     JOIN artefact a ON a.project_id = $2 AND a.kind = r.kind AND a.number = r.number WHERE r.version > a.head LIMIT 1`,
    [JSON.stringify(records), projectId],
  );
  if (wrong !== undefined) throw new DomainError({ code: 'version_unknown', id: artefactId(wrong.kind, wrong.number), version: wrong.version });
}
