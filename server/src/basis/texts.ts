import { artefactId } from '@caderno/core/artefacts';
import type { Dismissal } from '@caderno/core/basis';
import type { BasisText } from '@caderno/contract';
import { selectRows, type Work } from '../database/index.ts';

/** The texts of all requirements that are not withdrawn. */
export async function listBasisTexts(work: Work, projectId: string): Promise<BasisText[]> {
  const rows = await selectRows<{ number: number; title: string; text: string; dismissals: Dismissal[] | null }>(
    work,
    `SELECT a.number, a.title, v.content->>'text' AS text, v.content->'dismissals' AS dismissals
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND a.deleted_at IS NULL AND a.state <> 'withdrawn' ORDER BY a.number`,
    [projectId],
  );
  return rows.map(({ number, title, text, dismissals }) => ({
    id: artefactId('requirement', number),
    title,
    text,
    dismissals: (dismissals ?? []).map(({ rule, words, sentence }) => ({ rule, words, sentence })),
  }));
}
