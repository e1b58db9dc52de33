import { artefactId } from '@caderno/core/artefacts';
import { EMPTY_QUESTION, type QuestionContent } from '@caderno/core/basis';
import { writeCsv } from '@caderno/core/exchange';
import type { FileAnswer } from '@caderno/contract';
import { z } from 'zod';
import { contentOrBroken } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { projectKey } from './importing.ts';

interface Listed {
  readonly id: string;
  readonly content: QuestionContent;
  readonly holdsUp: number;
}

/** The questions as a file, those first that hold up most: as an agenda in Markdown, or as a table. */
export async function exportQuestions(work: UnitOfWork, projectId: string, format: 'md' | 'csv', status: 'open' | 'all', heldUp: Readonly<Record<string, number>>): Promise<FileAnswer> {
  const project = await projectKey(work, projectId);
  const questions = await listQuestions(work, projectId, status, heldUp);
  const text = format === 'csv' ? writeCsv(table(questions)) : agenda(project, questions);
  return { name: `${project}-questions.${format}`, type: format === 'csv' ? 'text/csv; charset=utf-8' : 'text/markdown; charset=utf-8', bytes: Buffer.from(text) };
}

const questionRow = z.object({ number: z.number(), title: z.string(), schema: z.number(), content: z.unknown() });

async function listQuestions(work: UnitOfWork, projectId: string, status: 'open' | 'all', heldUp: Readonly<Record<string, number>>): Promise<Listed[]> {
  const rows = await selectRows(
    work,
    questionRow,
    `SELECT a.number, a.title, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
     WHERE a.project_id = $1 AND a.kind = 'question' AND a.deleted_at IS NULL AND a.state <> 'withdrawn' AND ($2 = 'all' OR coalesce(a.facts->>'status', $2) = $2) ORDER BY a.number`,
    [projectId, status],
  );
  const listed = rows.map(({ number, title, schema, content }): Listed => {
    const id = artefactId('question', number);
    return { id, content: contentOrBroken('question', schema, content) ?? unreadable(title), holdsUp: heldUp[id] ?? 0 };
  });
  return listed.sort((a, b) => b.holdsUp - a.holdsUp);
}

/** Stands in an export for a question that cannot be read. */
function unreadable(title: string): QuestionContent {
  return { ...EMPTY_QUESTION, title, text: 'What is stored of this question cannot be read; open it in Caderno to restore an earlier version.' };
}

const subjects = ({ about }: QuestionContent): string => about.map((s) => (s.kind === 'requirement' && s.words !== '' ? `${s.id} “${s.words}”` : s.id)).join(', ');

function table(questions: readonly Listed[]): string[][] {
  const rows = questions.map(({ id, content: q, holdsUp }) => [id, q.status, String(holdsUp), q.title, q.text, subjects(q), q.asked, q.answer, q.answeredBy, q.answeredAt, String(q.observations.length)]);
  return [['id', 'status', 'holds up', 'question', 'text', 'about', 'asked', 'answer', 'answered by', 'answered at', 'observations'], ...rows];
}

function agenda(project: string, questions: readonly Listed[]): string {
  const points = questions.map(({ id, content: q, holdsUp }, i) =>
    [
      `## ${i + 1}. ${q.title} (${id})`,
      `About ${subjects(q) || 'the project'}. Asked of ${q.asked || 'nobody yet'}. Holds up ${holdsUp} coverage item${holdsUp === 1 ? '' : 's'}.`,
      q.text.trim(),
      ...q.observations.map((o) => `- The document says: ${o.documented}. Done: ${o.done}. Came back: ${o.seen}. (${o.by}, ${o.at.slice(0, 10)})`),
      q.answer.trim() === '' ? 'Answer:' : `Answer (${q.answeredBy}): ${q.answer.trim()}`,
    ]
      .filter((part) => part !== '')
      .join('\n\n'),
  );
  return `${[`# Questions on ${project}`, ...points].join('\n\n')}\n`;
}
