import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import type { Artefact } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { findArtefact, readContent } from './findArtefact.ts';
import { contentOrBroken } from './stored.ts';
import { selectSummaries } from './summary.ts';

/** An artefact as a person sees it: its head, and their own draft. */
export async function readArtefact(work: UnitOfWork, projectId: string, personId: string, id: ArtefactId): Promise<Artefact> {
  return describeArtefact(work, personId, await findArtefact(work, projectId, id));
}

export async function describeArtefact(work: UnitOfWork, personId: string, row: ArtefactRow): Promise<Artefact> {
  const [summary] = await selectSummaries(work, 'a.id = $1', [row.id], 'a.id');
  const head = await readContent(work, row, row.head);
  const draft = await readDraft(work, personId, row);
  if (summary?.kind === head.kind) return { kind: head.kind, summary, content: head.content, draft: draft && draftOf(head.kind, draft) } as Artefact;
  throw new Error(`Summary and content of an artefact are of one kind: expected ${row.kind}, got ${head.kind}`);
}

const storedDraftRow = z.object({ base: z.number(), at: z.date(), content: z.unknown(), schema: z.number(), baseContent: z.unknown(), baseSchema: z.number() });
type StoredDraft = z.infer<typeof storedDraftRow>;

async function readDraft(work: UnitOfWork, personId: string, row: ArtefactRow): Promise<StoredDraft | null> {
  const [draft] = await selectRows(
    work,
    storedDraftRow,
    `SELECT d.base, d.at, d.content, d.schema, CASE WHEN d.base <> $3 THEN v.content END AS "baseContent", v.schema AS "baseSchema"
     FROM draft d JOIN artefact_version v ON v.artefact_id = d.artefact_id AND v.version = d.base WHERE d.artefact_id = $1 AND d.person_id = $2`,
    [row.id, personId, row.head],
  );
  return draft ?? null;
}

/** A draft that cannot be read, or that grew from what cannot be, is not shown: the head is. */
function draftOf<K extends ArtefactKind>(kind: K, draft: StoredDraft) {
  const content = contentOrBroken(kind, draft.schema, draft.content);
  const baseContent = draft.baseContent === null ? null : contentOrBroken(kind, draft.baseSchema, draft.baseContent);
  if (content === null || (baseContent === null && draft.baseContent !== null)) return null;
  return { base: draft.base, at: draft.at.toISOString(), content, baseContent };
}
