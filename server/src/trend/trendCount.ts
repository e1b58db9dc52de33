import { nextToCount } from '@caderno/core/trend';
import type { Sequelize } from 'sequelize';
import { inTransaction } from '../database/index.ts';
import { countDay } from './countDay.ts';
import { daysOf } from './days.ts';

/** What is to be counted: as of when, and for how long one goes on before one says how far one has come. */
export interface TrendCount {
  readonly projectId: string;
  readonly now: Date;
  readonly mostMs: number;
}

/** Counts days of a project that are not counted yet, at least one; answers how many are left. */
export async function countTrend(db: Sequelize, { projectId, now, mostMs }: TrendCount): Promise<{ readonly left: number }> {
  const until = performance.now() + mostMs;
  for (;;) {
    const days = await inTransaction(db, (work) => daysOf(work, projectId, now));
    const next = days[nextToCount(days.map((d) => d.counted)) ?? -1];
    if (next === undefined) return { left: 0 };
    await countDay(db, projectId, next);
    if (performance.now() > until) return { left: days.filter((d) => !d.counted).length - 1 };
  }
}
