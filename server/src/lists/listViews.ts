import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import { listViewSchema, type ListView } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';

const viewRow = z.object({ kind: z.enum(ARTEFACT_KINDS), view: z.unknown() });

/** How a person wants to see lists, by kind. What another build wrote and this one cannot read is as if nothing had been chosen. */
export async function readListViews(work: UnitOfWork, personId: string): Promise<Partial<Record<ArtefactKind, ListView>>> {
  const rows = await selectRows(work, viewRow, 'SELECT kind, view FROM list_view WHERE person_id = $1', [personId]);
  return Object.fromEntries(rows.flatMap(({ kind, view }) => {
    const read = listViewSchema.safeParse(view);
    return read.success ? [[kind, read.data]] : [];
  }));
}

export async function saveListView(work: UnitOfWork, personId: string, kind: ArtefactKind, view: ListView): Promise<Partial<Record<ArtefactKind, ListView>>> {
  await execute(work, 'INSERT INTO list_view (person_id, kind, view) VALUES ($1, $2, $3) ON CONFLICT (person_id, kind) DO UPDATE SET view = EXCLUDED.view', [personId, kind, JSON.stringify(view)]);
  return readListViews(work, personId);
}
