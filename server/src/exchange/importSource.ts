import { mappingSchema } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { reqifTypesSchema } from './reqifTypesSchema.ts';

const importSourceRow = z.object({ name: z.string(), mapping: mappingSchema, types: reqifTypesSchema.nullable() });
/** What is remembered of a source: how its columns were matched, and the types of a ReqIF document. */
export type ImportSource = z.infer<typeof importSourceRow>;

export async function listSources(work: UnitOfWork, projectId: string): Promise<ImportSource[]> {
  return selectRows(work, importSourceRow, `SELECT name, mapping, types FROM import_source WHERE project_id = $1 AND kind = 'requirement' ORDER BY name`, [projectId]);
}

export async function rememberSource(work: UnitOfWork, projectId: string, { name, mapping, types }: ImportSource): Promise<void> {
  await execute(
    work,
    `INSERT INTO import_source (project_id, name, mapping, types) VALUES ($1, $2, $3, $4)
     ON CONFLICT (project_id, kind, name) DO UPDATE SET mapping = excluded.mapping, types = coalesce(excluded.types, import_source.types)`,
    [projectId, name, JSON.stringify(mapping), types === null ? null : JSON.stringify(types)],
  );
}
