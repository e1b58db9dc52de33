import { ARTEFACT_KINDS, artefactId } from '@caderno/core/artefacts';
import { MOST_OPEN_THREADS, remarkIdSchema, type OpenThread } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const openRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), title: z.string(), id: remarkIdSchema, said: z.string(), text: z.string(), name: z.string(), at: z.date(), answers: z.number(), forMe: z.boolean() });

/** The open threads of a project with what was said last, the latest first. */
export async function listOpenThreads(work: UnitOfWork, projectId: string, personId: string): Promise<OpenThread[]> {
  const rows = await selectRows(
    work,
    openRow,
    `SELECT a.kind, a.number, a.title, t.id, t.said, last.text, last.name, last.at, last.place::int - 1 AS answers,
            last.author_id <> $2 AND (
              EXISTS (SELECT 1 FROM remark r WHERE r.thread_id = t.id AND r.author_id = $2 AND r.taken_back_at IS NULL)
              OR EXISTS (SELECT 1 FROM mention m JOIN remark r ON r.id = m.remark_id WHERE r.thread_id = t.id AND m.person_id = $2)) AS "forMe"
     FROM remark t JOIN artefact a ON a.id = t.artefact_id
     JOIN LATERAL (
       SELECT r.text, r.at, r.author_id, p.name, count(*) OVER () AS place FROM remark r JOIN person p ON p.id = r.author_id
       WHERE r.thread_id = t.id AND r.taken_back_at IS NULL ORDER BY r.at DESC, r.id DESC LIMIT 1) last ON true
     WHERE a.project_id = $1 AND a.deleted_at IS NULL AND a.state <> 'withdrawn' AND t.thread_id = t.id AND t.settled_at IS NULL
     ORDER BY last.at DESC, t.id LIMIT ${MOST_OPEN_THREADS}`,
    [projectId, personId],
  );
  return rows.map(({ kind, number, at, ...row }) => ({ ...row, artefact: artefactId(kind, number), at: at.toISOString() }));
}
