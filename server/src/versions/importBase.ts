import type { ImportBase } from '@caderno/core/exchange';
import { z } from 'zod';
import { importBaseSchema, type JournalEntryPart } from '../artefacts/index.ts';
import { execute, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';

const baseRow = z.object({ base: importBaseSchema });

/** What the last import brought of a requirement; null forgets it. */
export async function storeImportBase(work: UnitOfWork, row: ArtefactRow, base: ImportBase | null): Promise<JournalEntryPart> {
  const [before] = await selectRows(work, baseRow, 'SELECT base FROM imported WHERE artefact_id = $1', [row.id]);
  if (base === null) await execute(work, 'DELETE FROM imported WHERE artefact_id = $1', [row.id]);
  else await execute(work, 'INSERT INTO imported (artefact_id, base) VALUES ($1, $2) ON CONFLICT (artefact_id) DO UPDATE SET base = excluded.base', [row.id, JSON.stringify(base)]);
  return { artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'imported', from: before?.base ?? null, to: base } };
}
