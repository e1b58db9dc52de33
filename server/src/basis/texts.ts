import { artefactId } from '@caderno/core/artefacts';
import { WORDING_RULES } from '@caderno/core/basis';
import type { BasisText } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const dismissalsSchema = z.array(z.object({ rule: z.enum(WORDING_RULES), words: z.string(), sentence: z.string() })).catch([]);

const textRow = z.object({ number: z.number(), title: z.string(), text: z.string().nullable(), dismissals: z.unknown() });

/** The texts of all requirements that are not withdrawn. */
export async function listBasisTexts(work: UnitOfWork, projectId: string): Promise<BasisText[]> {
  const rows = await selectRows(
    work,
    textRow,
    `SELECT a.number, a.title, v.content->>'text' AS text, v.content->'dismissals' AS dismissals
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND a.deleted_at IS NULL AND a.state <> 'withdrawn' ORDER BY a.number`,
    [projectId],
  );
  // One whose stored text cannot be read is left out: its own page says so.
  return rows.flatMap(({ number, title, text, dismissals }) => text === null ? [] : [{
    id: artefactId('requirement', number),
    title,
    text,
    dismissals: dismissalsSchema.parse(dismissals),
  }]);
}
