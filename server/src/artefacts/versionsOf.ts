import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import type { KindAndContent } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { kindAndContentOrBroken } from './stored.ts';

const versionRow = z.object({ id: z.string(), kind: z.enum(ARTEFACT_KINDS), schema: z.number(), content: z.unknown() });

const SELECT = `SELECT a.id, a.kind, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id`;

/** One version of each of some artefacts, by row id; one that cannot be read is not among them. */
export async function readVersions(work: UnitOfWork, wanted: readonly { readonly id: string; readonly version: number }[]): Promise<Map<string, KindAndContent>> {
  const stored = await selectRows(work, versionRow, `${SELECT} JOIN jsonb_to_recordset($1::jsonb) AS r(id bigint, version int) ON r.id = a.id AND r.version = v.version`, [JSON.stringify(wanted)]);
  return new Map(
    stored.flatMap(({ id, kind, schema, content }) => {
      const value = kindAndContentOrBroken(kind, schema, content);
      return value === null ? [] : [[id, value] as const];
    }),
  );
}

/** All versions of some artefacts from the first to the head, by row id; null where one cannot be read. */
export async function readAllVersions(work: UnitOfWork, rowIds: readonly string[]): Promise<Map<string, (KindAndContent | null)[]>> {
  const stored = await selectRows(work, versionRow, `${SELECT} WHERE a.id = ANY($1) AND v.version <= a.head ORDER BY a.id, v.version`, [rowIds]);
  const versions = new Map<string, (KindAndContent | null)[]>();
  for (const { id, kind, schema, content } of stored) {
    const own = versions.get(id) ?? [];
    versions.set(id, own);
    own.push(kindAndContentOrBroken(kind, schema, content));
  }
  return versions;
}
