import type { RequirementId } from '@caderno/core/artefacts';
import type { CoverageReport, StandingCounts } from '@caderno/core/coverage';
import { bends, requirementsThen, type RequirementsThen, type TrendFigures } from '@caderno/core/trend';
import { MOST_BENDS, requirementIdSchema, requirementThenSchema, trendFiguresSchema, type Bends, type Trend } from '@caderno/contract';
import { z } from 'zod';
import { answersAny, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { daysOf } from './days.ts';

const pointRow = z.object({ revision: z.number(), figures: z.unknown() });

/** The days that are counted; one that another code counted stays until it is counted again, unless it did not count what is told now. */
export async function readTrend(work: UnitOfWork, projectId: string, now: Date): Promise<Omit<Trend, 'now'>> {
  const days = await daysOf(work, projectId, now);
  const kept = await selectRows(work, pointRow, 'SELECT revision, figures FROM trend_point WHERE project_id = $1', [projectId]);
  const counted = new Map(kept.flatMap(({ revision, figures }) => asCounted(revision, figures)));
  const points = days.flatMap(({ revision, at }) => {
    const figures = counted.get(revision);
    return figures === undefined ? [] : [{ revision, at: at.toISOString(), figures }];
  });
  return { points, days: days.length, left: days.filter((d) => !d.counted).length };
}

function asCounted(revision: number, figures: unknown): [number, TrendFigures][] {
  const read = trendFiguresSchema.safeParse(figures);
  return read.success ? [[revision, read.data]] : [];
}

const countsRow = z.object({ revision: z.number(), counts: requirementThenSchema.shape.counts.nullable() });

/** What a requirement came to at the days that are counted. */
export function readRequirementTrend(work: UnitOfWork, projectId: string, id: RequirementId): Promise<{ readonly revision: number; readonly counts: StandingCounts | null }[]> {
  return selectRows(work, countsRow, `SELECT revision, requirements->$2::text->'counts' AS counts FROM trend_point WHERE project_id = $1 ORDER BY revision`, [projectId, id]);
}

/** Whether what a project came to at a revision is known. */
export function isDayCounted(work: UnitOfWork, projectId: string, revision: number): Promise<boolean> {
  return answersAny(work, 'SELECT 1 FROM trend_point WHERE project_id = $1 AND revision = $2', [projectId, revision]);
}

const thenRow = z.object({ revision: z.number(), requirements: z.record(requirementIdSchema, requirementThenSchema) });

/** What changed from the counted day before to a day. @throws {DomainError} when that day is not counted. */
export async function readBends(work: UnitOfWork, projectId: string, revision: number): Promise<Bends> {
  const [day, before] = await latest(work, projectId, revision);
  if (day?.revision !== revision) throw new DomainError({ code: 'moment_unknown' });
  return told(before, thenOf(day));
}

/** What changed since the last counted day before `revision`, which the project has now. */
export async function readBendsNow(work: UnitOfWork, projectId: string, revision: number, report: CoverageReport): Promise<Bends> {
  const [before] = await latest(work, projectId, revision - 1);
  return told(before, requirementsThen(report));
}

type Then = z.infer<typeof thenRow>;

/** The last two days that are counted up to a revision, the later one first. */
function latest(work: UnitOfWork, projectId: string, revision: number): Promise<Then[]> {
  return selectRows(work, thenRow, 'SELECT revision, requirements FROM trend_point WHERE project_id = $1 AND revision <= $2 ORDER BY revision DESC LIMIT 2', [projectId, revision]);
}

function told(before: Then | undefined, now: RequirementsThen): Bends {
  const all = bends(before === undefined ? new Map() : thenOf(before), now);
  return { from: before?.revision ?? 0, bends: all.slice(0, MOST_BENDS), total: all.length };
}

function thenOf({ requirements }: Then): RequirementsThen {
  return new Map(Object.entries(requirements).map(([id, then]) => [requirementIdSchema.parse(id), then]));
}
