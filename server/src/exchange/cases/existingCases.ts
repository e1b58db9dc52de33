import { ARTEFACT_STATES, artefactId, type CaseId } from '@caderno/core/artefacts';
import { CASE_FIELDS, caseFieldText, type CaseBase, type CaseEntry, type CaseField, type ExistingCase } from '@caderno/core/caseFiles';
import type { OwnField } from '@caderno/core/fields';
import { z } from 'zod';
import { contentOrRefused } from '../../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../../database/index.ts';
import { versionsNamed } from '../versionsNamed.ts';

const baseSchema = z.object({ fields: z.record(z.string(), z.string()) });
const existingRow = z.object({ rowId: z.string(), number: z.number(), version: z.number(), state: z.enum(ARTEFACT_STATES), schema: z.number(), content: z.unknown(), source: z.string().nullable(), key: z.string().nullable(), base: baseSchema.nullable() });

/** A case as an import meets it, with the row it is stored in. */
export interface StoredCase extends ExistingCase {
  readonly rowId: string;
}

/** The cases an import of a source may meet: those that came from it, and those its entries name. */
export async function existingCases(work: UnitOfWork, projectId: string, source: string, entries: readonly CaseEntry[], fields: readonly OwnField[]): Promise<StoredCase[]> {
  const named = entries.flatMap((e) => (e.ownId === null ? [] : [Number(e.ownId.slice(2))]));
  const rows = await selectRows(
    work,
    existingRow,
    `SELECT a.id AS "rowId", a.number, v.version, a.state, v.schema, v.content, i.source, i.key, i.base
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head LEFT JOIN imported i ON i.artefact_id = a.id
     WHERE a.project_id = $1 AND a.kind = 'case' AND a.deleted_at IS NULL AND (i.source = $2 OR a.number = ANY($3)) ORDER BY a.number`,
    [projectId, source, named],
  );
  const versions = await versionBases(work, projectId, entries, fields);
  return rows.map((row) => {
    const id = artefactId('case', row.number);
    const fromSource = row.source === source;
    const base = versions.get(id) ?? (fromSource ? (row.base?.fields ?? null) : null);
    return { rowId: row.rowId, id, content: contentOrRefused('case', row), key: fromSource ? row.key : null, base, withdrawn: row.state === 'withdrawn' };
  });
}

/** A file written by Caderno says which version each case grew from: that is what its changes are told apart from. */
async function versionBases(work: UnitOfWork, projectId: string, entries: readonly CaseEntry[], fields: readonly OwnField[]): Promise<Map<CaseId, CaseBase>> {
  const then = await versionsNamed(work, projectId, 'case', entries);
  const names: CaseField[] = [...CASE_FIELDS, ...fields.map((f): CaseField => `own:${f.id}`)];
  return new Map([...then].map(([number, content]) => [artefactId('case', number), Object.fromEntries(names.map((name) => [name, caseFieldText(content, name, fields)]))]));
}
