import { artefactId, parseArtefactId, type ArtefactId, type FeatureId } from '@caderno/core/artefacts';
import { textOf, type FeatureContent } from '@caderno/core/scenarios';
import type { ExportFeatures } from '@caderno/contract';
import { zipSync } from 'fflate';
import { z } from 'zod';
import { contentOrRefused } from '../../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../../database/index.ts';
import { projectKey } from '../importing.ts';

const featureRow = z.object({ number: z.number(), version: z.number(), schema: z.number(), content: z.unknown() });

/** Features as the files they are: one by itself unless a zip is asked for, several in their folders as a zip. The same features make the same bytes. */
export async function exportFeatures(work: UnitOfWork, projectId: string, ids: readonly ArtefactId[], form: ExportFeatures['form']): Promise<{ readonly name: string; readonly type: string; readonly bytes: Uint8Array }> {
  const rows = await selectRows(
    work,
    featureRow,
    `SELECT a.number, v.version, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'feature' AND a.deleted_at IS NULL AND a.number = ANY($2) ORDER BY a.number`,
    [projectId, ids.flatMap((id) => (parseArtefactId(id)?.kind === 'feature' ? [parseArtefactId(id)?.number ?? 0] : []))],
  );
  const files = filesOf(rows.map((row) => ({ id: artefactId('feature', row.number), content: contentOrRefused('feature', row) })));
  const [only] = files;
  if (form === 'file' && files.size === 1 && only !== undefined) return { name: only[0].slice(only[0].lastIndexOf('/') + 1), type: 'text/x-gherkin; charset=utf-8', bytes: Buffer.from(only[1]) };
  const entries = Object.fromEntries([...files].map(([path, text]) => [path, Buffer.from(text)]));
  return { name: `${await projectKey(work, projectId)}-features.zip`, type: 'application/zip', bytes: zipSync(entries, { mtime: ZIP_TIME }) };
}

/** Zips know no time before it. */
const ZIP_TIME = '1980-01-01T12:00:00Z';

/** The features of a project as their files, by path; two of one path are told apart. */
function filesOf(features: readonly { readonly id: FeatureId; readonly content: FeatureContent }[]): Map<string, string> {
  const files = new Map<string, string>();
  for (const { id, content } of features) files.set(files.has(content.path) ? content.path.replace(/(\.feature)?$/i, `-${id}.feature`) : content.path, textOf(content));
  return files;
}
