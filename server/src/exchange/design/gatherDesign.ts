import { ARTEFACT_KINDS, artefactId, parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { Gathering, type Along, type CarriedArtefact, type ReadVersion, type Standing } from '@caderno/core/carrying';
import { z } from 'zod';
import { kindAndContentOrBroken } from '../../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import { readCarried } from '../../versions/index.ts';

/** Artefacts with all that comes along with them. @throws {DomainError} when something of it cannot be read: nobody is to take it for the whole. */
export async function gatherDesign(work: UnitOfWork, projectId: string, roots: readonly ArtefactId[]): Promise<CarriedArtefact[]> {
  const gathering = new Gathering(roots);
  for (let wanted = gathering.wanted(); wanted.length > 0; wanted = gathering.wanted()) {
    const { standing, versions } = await readAlong(work, projectId, wanted);
    gathering.take(standing, versions);
  }
  return gathering.artefacts();
}

const alongRow = z.object({
  rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), head: z.number(), meaningSince: z.number(), parent: z.number().nullable(), position: z.number(),
  version: z.number(), schema: z.number(), content: z.unknown(),
});

async function readAlong(work: UnitOfWork, projectId: string, wanted: readonly Along[]): Promise<{ readonly standing: Standing[]; readonly versions: ReadVersion[] }> {
  const records = wanted.flatMap(({ id, version }) => {
    const parsed = parseArtefactId(id);
    return parsed === null ? [] : [{ ...parsed, version }];
  });
  const rows = await selectRows(
    work,
    alongRow,
    `SELECT a.id AS "rowId", a.kind, a.number, a.head, a.meaning_since AS "meaningSince", p.number AS parent, a.position, v.version, v.schema, v.content
     FROM jsonb_to_recordset($2::jsonb) AS r(kind text, number int, version int)
     JOIN artefact a ON a.project_id = $1 AND a.kind = r.kind AND a.number = r.number AND a.deleted_at IS NULL
     JOIN artefact_version v ON v.artefact_id = a.id AND v.version = coalesce(r.version, a.head)
     LEFT JOIN artefact p ON p.id = a.parent_id`,
    [projectId, JSON.stringify(records)],
  );
  const carried = await readCarried(work, [...new Set(rows.map((row) => row.rowId))]);
  const standing = rows.map((row): Standing => {
    const id = artefactId(row.kind, row.number);
    const from = carried.get(row.rowId);
    return {
      id, head: row.head, meaningSince: row.meaningSince, position: row.position,
      under: row.parent === null ? null : artefactId('requirement', row.parent),
      first: from?.first ?? { project: projectId, id },
      isOurs: from === undefined,
      firstVersions: new Map(from?.versions.map(([first, here]) => [here, first])),
      base: from === undefined ? null : kindAndContentOrBroken(row.kind, from.schema, from.base),
    };
  });
  const versions = rows.map(({ kind, number, version, schema, content }): ReadVersion => {
    const value = kindAndContentOrBroken(kind, schema, content);
    if (value === null) throw new DomainError({ code: 'artefact_broken', id: artefactId(kind, number), version });
    return { id: artefactId(kind, number), version, value };
  });
  return { standing, versions };
}
