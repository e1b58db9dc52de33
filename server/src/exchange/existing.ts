import { ARTEFACT_STATES, artefactId, type RequirementId } from '@caderno/core/artefacts';
import { withoutHidden } from '@caderno/core/basis';
import { fieldNames, fieldText, type Entry, type ExistingRequirement, type ImportBase } from '@caderno/core/exchange';
import type { OwnField } from '@caderno/core/fields';
import { z } from 'zod';
import { importBaseSchema, contentOrRefused, outlinePlaces } from '../artefacts/index.ts';
import { numberRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { versionsNamed } from './versionsNamed.ts';

const existingRow = z.object({ rowId: z.string(), number: z.number(), version: z.number(), state: z.enum(ARTEFACT_STATES), schema: z.number(), content: z.unknown(), parentNumber: z.number().nullable(), parentSource: z.string().nullable(), parentKey: z.string().nullable(), base: importBaseSchema.nullable() });
type ExistingRow = z.infer<typeof existingRow>;

/** A requirement of the project as an import meets it, with the row it is stored in. */
export interface StoredRequirement extends ExistingRequirement {
  readonly rowId: string;
}

/** The requirements an import of a source may meet: those that came from it, and those its entries name. */
export async function existingRequirements(work: UnitOfWork, projectId: string, source: string, entries: readonly Entry[], fields: readonly OwnField[]): Promise<StoredRequirement[]> {
  const named = entries.flatMap((e) => (e.ownId === null ? [] : [Number(e.ownId.slice(2))]));
  const rows = await selectRows(
    work,
    existingRow,
    `SELECT a.id AS "rowId", a.number, v.version, a.state, v.schema, v.content, p.number AS "parentNumber",
       pv.content->'origin'->>'source' AS "parentSource", pv.content->'origin'->>'id' AS "parentKey", i.base
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
       LEFT JOIN artefact p ON p.id = a.parent_id LEFT JOIN artefact_version pv ON pv.artefact_id = p.id AND pv.version = p.head
       LEFT JOIN imported i ON i.artefact_id = a.id
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND a.deleted_at IS NULL AND (v.content->'origin'->>'source' = $2 OR a.number = ANY($3)) ORDER BY a.number`,
    [projectId, source, named],
  );
  const versions = await versionBases(work, projectId, entries, fields);
  const visible = named.length === 0 ? new Map<RequirementId, RequirementId | null>() : await visibleParents(work, projectId);
  return rows.map((row) => ({ ...toExisting(row, source, versions), visibleParent: visible.get(artefactId('requirement', row.number)) ?? null }));
}

/** The nearest requirement above each that is not withdrawn. */
async function visibleParents(work: UnitOfWork, projectId: string): Promise<Map<RequirementId, RequirementId | null>> {
  const withdrawn = new Set((await selectRows(work, numberRow, `SELECT number FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND state = 'withdrawn' AND deleted_at IS NULL`, [projectId])).map((r) => artefactId('requirement', r.number)));
  return new Map(withoutHidden(await outlinePlaces(work, projectId), withdrawn).map((place) => [place.id, place.parent]));
}

function toExisting(row: ExistingRow, source: string, versions: ReadonlyMap<number, ImportBase>): Omit<StoredRequirement, 'visibleParent'> {
  const content = contentOrRefused('requirement', row);
  const fromSource = content.origin?.source === source;
  const parent = row.parentNumber === null ? null : row.parentSource === source && fromSource ? (row.parentKey ?? '') : artefactId('requirement', row.parentNumber);
  return {
    rowId: row.rowId,
    id: artefactId('requirement', row.number),
    content,
    parent,
    base: fromSource ? row.base : (versions.get(row.number) ?? null),
    withdrawn: row.state === 'withdrawn',
  };
}

/** A file written by Caderno says which version each row grew from: that is what its changes are told apart from. */
async function versionBases(work: UnitOfWork, projectId: string, entries: readonly Entry[], own: readonly OwnField[]): Promise<Map<number, ImportBase>> {
  const then = await versionsNamed(work, projectId, 'requirement', entries);
  return new Map(
    [...then].map(([number, content]) => [number, { fields: Object.fromEntries(fieldNames(content, own).map((name) => [name, fieldText(content, name, own)])), relations: [], facts: '' }]),
  );
}
