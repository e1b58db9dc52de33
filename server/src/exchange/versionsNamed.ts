import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import type { ContentOfKind } from '@caderno/core/kinds';
import { z } from 'zod';
import { contentOrRefused } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const versionRow = z.object({ number: z.number(), version: z.number(), schema: z.number(), content: z.unknown() });

/** What the versions that the entries of a file name said, by the number of the artefact. */
export async function versionsNamed<K extends ArtefactKind>(work: UnitOfWork, projectId: string, kind: K, entries: readonly { readonly ownId: ArtefactId | null; readonly version: number | null }[]): Promise<Map<number, ContentOfKind[K]>> {
  const wanted = entries.flatMap((e) => (e.ownId === null || e.version === null ? [] : [{ number: Number(e.ownId.slice(2)), version: e.version }]));
  if (wanted.length === 0) return new Map();
  const rows = await selectRows(
    work,
    versionRow,
    `SELECT a.number, v.version, v.schema, v.content FROM jsonb_to_recordset($2::jsonb) AS r(number int, version int)
     JOIN artefact a ON a.project_id = $1 AND a.kind = $3 AND a.number = r.number JOIN artefact_version v ON v.artefact_id = a.id AND v.version = r.version`,
    [projectId, JSON.stringify(wanted), kind],
  );
  return new Map(rows.map((row) => [row.number, contentOrRefused(kind, row)]));
}
