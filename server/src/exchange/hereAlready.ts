import { artefactId, type RequirementId } from '@caderno/core/artefacts';
import { idInSource } from '@caderno/core/basis';
import type { Entry } from '@caderno/core/exchange';
import type { ImportPreview } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const MOST_EXAMPLES = 5;

const metRow = z.object({ number: z.number(), title: z.string(), source: z.string().nullable(), key: z.string().nullable() });

/** What of the entries that would be added seems to be in the project already: by an id of another source, or by its title. */
export async function hereAlready(work: UnitOfWork, projectId: string, source: string, added: readonly Entry[]): Promise<ImportPreview['here']> {
  // The name of a section is no id: two files may well have a section of the same name.
  const keys = added.flatMap((e) => (idInSource(e.key) === '' ? [] : [e.key]));
  const titles = added.flatMap((e) => (e.fields.title === undefined || e.fields.type === 'heading' ? [] : [worded(e.fields.title)]));
  const rows = await selectRows(
    work,
    metRow,
    `SELECT a.number, a.title, v.content->'origin'->>'source' AS source, v.content->'origin'->>'id' AS key
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'requirement' AND a.deleted_at IS NULL AND a.state <> 'withdrawn'
       AND (v.content->'origin'->>'id' = ANY($2) OR lower(regexp_replace(trim(a.title), '\\s+', ' ', 'g')) = ANY($3)) ORDER BY a.number`,
    [projectId, keys, titles],
  );
  const byKey = new Map(rows.flatMap((row) => (row.source === null || row.source === source || row.key === null || idInSource(row.key) === '' ? [] : [[row.key, row] as const])));
  const byTitle = new Map(rows.map((row) => [worded(row.title), row]));
  const ids = new Map<string, number>();
  const examples: { key: string; title: string; id: RequirementId }[] = [];
  let same = 0;
  for (const { key, fields } of added) {
    const [known, alike] = [byKey.get(key), byTitle.get(worded(fields.title ?? ''))];
    if (known?.source != null) ids.set(known.source, (ids.get(known.source) ?? 0) + 1);
    if (alike !== undefined && fields.type !== 'heading') same += 1;
    const met = known ?? (fields.type === 'heading' ? undefined : alike);
    if (met !== undefined && examples.length < MOST_EXAMPLES) examples.push({ key, title: fields.title ?? '', id: artefactId('requirement', met.number) });
  }
  return { ids: [...ids].map(([name, count]) => ({ source: name, count })).sort((a, b) => b.count - a.count), titles: same, examples };
}

function worded(title: string): string {
  return title.trim().replaceAll(/\s+/g, ' ').toLowerCase();
}
