import type { BaselineNumber } from '@caderno/core/baselines';
import type { CoverageReport } from '@caderno/core/coverage';
import type { TrendFigures } from '@caderno/core/trend';
import { changedSince, waitingFor, worstRequirements, type DesignReport, type ReportSince, type WaitingQuestion, type WaitingReview } from '@caderno/core/report';
import type { Summary } from '@caderno/contract';
import { z } from 'zod';
import { listBroken, selectSummaries } from '../artefacts/index.ts';
import { changesBetween, readBaseline } from '../baselines/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { listReviews } from '../reviews/index.ts';
import { readTrend } from '../trend/index.ts';

/** What was counted of the project before the rest of a report is read. */
export interface ReportCounted {
  readonly at: Date;
  readonly figures: TrendFigures;
  readonly coverage: CoverageReport;
  readonly heldUp: Readonly<Record<string, number>>;
}

const nameRow = z.object({ name: z.string() });

/** What those who decide are told of a project, held against a baseline. @throws {DomainError} when it has none of this number. */
export async function readReport(work: UnitOfWork, projectId: string, { at, figures, coverage, heldUp }: ReportCounted, since: BaselineNumber | null): Promise<DesignReport> {
  const [project] = await selectRows(work, nameRow, 'SELECT name FROM project WHERE id = $1', [projectId]);
  const { points, left } = await readTrend(work, projectId, at);
  return {
    project: project?.name ?? '',
    at: at.toISOString(),
    figures,
    worst: worstRequirements(coverage),
    waiting: waitingFor(await openQuestions(work, projectId, heldUp), await openReviews(work, projectId)),
    trend: { points: points.map((p) => ({ at: p.at, counts: p.figures.counts })), left },
    since: since === null ? null : await readSince(work, projectId, since),
    unreadable: (await listBroken(work, projectId)).length,
  };
}

/** The artefacts of a kind that are not withdrawn. */
async function standing<K extends Summary['kind']>(work: UnitOfWork, projectId: string, kind: K): Promise<Extract<Summary, { kind: K }>[]> {
  const all = await selectSummaries(work, `a.project_id = $1 AND a.kind = $2 AND a.deleted_at IS NULL AND a.state <> 'withdrawn'`, [projectId, kind], 'a.number');
  return all.filter((s): s is Extract<Summary, { kind: K }> => s.kind === kind);
}

async function openQuestions(work: UnitOfWork, projectId: string, heldUp: ReportCounted['heldUp']): Promise<(WaitingQuestion & { readonly asked: string })[]> {
  const questions = await standing(work, projectId, 'question');
  return questions.flatMap(({ id, title, asked, status }) => (status === 'open' ? [{ id, title, asked, holdsUp: heldUp[id] ?? 0 }] : []));
}

async function openReviews(work: UnitOfWork, projectId: string): Promise<(WaitingReview & { readonly asked: string })[]> {
  const reviews = (await listReviews(work, projectId)).filter((r) => r.endedAt === null);
  return reviews.flatMap(({ number, title, due, asked }) => asked.flatMap(({ name, waiting }) => (waiting === 0 ? [] : [{ number, title, due, artefacts: waiting, asked: name }])));
}

async function readSince(work: UnitOfWork, projectId: string, wanted: BaselineNumber): Promise<ReportSince> {
  const { number, name, at, part, coverage } = await readBaseline(work, projectId, wanted);
  return { number, name, at, part, figures: coverage, ...changedSince(await changesBetween(work, projectId, number, null)) };
}
