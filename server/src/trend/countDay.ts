import { randomUUID } from 'node:crypto';
import { coverageReport } from '@caderno/core/coverage';
import { requirementsThen, trendFigures, type TrendFigures } from '@caderno/core/trend';
import type { Sequelize } from 'sequelize';
import { COMPUTATION, CoverageIndexes } from '../coverage/index.ts';
import { execute, inTransaction, inTrial, type UnitOfWork } from '../database/index.ts';
import { makeAtRevision } from '../moments/index.ts';
import { readScenarioEffort } from '../scenarios/index.ts';
import { suiteChoices } from '../suites/index.ts';
import type { Day } from './days.ts';

interface Counted {
  readonly figures: TrendFigures;
  /** By the ids of the requirements. */
  readonly requirements: Readonly<Record<string, unknown>>;
}

/** Counts what a project came to on a day, from the project made anew as it was then, and keeps it. */
export async function countDay(db: Sequelize, projectId: string, day: Day): Promise<void> {
  // What is made of the versions of then is large, and nobody asked to see it: it is never there for others.
  const { figures, requirements } = await inTrial(db, (work) => countThen(work, projectId, day));
  await inTransaction(db, (work) =>
    execute(
      work,
      `INSERT INTO trend_point (project_id, revision, computation, figures, requirements) VALUES ($1, $2, $3, $4, $5)
       ON CONFLICT (project_id, revision) DO UPDATE SET computation = EXCLUDED.computation, figures = EXCLUDED.figures, requirements = EXCLUDED.requirements`,
      [projectId, day.revision, COMPUTATION, JSON.stringify(figures), JSON.stringify(requirements)],
    ),
  );
}

async function countThen(work: UnitOfWork, projectId: string, { revision, at }: Day): Promise<Counted> {
  // A key that nobody else has: another server may count the same day, and neither waits for the other.
  const then = await makeAtRevision(work, projectId, `${projectId}@${randomUUID()}`, revision);
  if (then === null) throw new Error(`A project under a key of its own is made: expected revision ${revision}, got none`);
  const { index } = await new CoverageIndexes().at(work, then);
  return { figures: trendFigures(index, await suiteChoices(work, then, at.getTime()), await readScenarioEffort(work, then)), requirements: Object.fromEntries(requirementsThen(coverageReport(index))) };
}
