import { workerData } from 'node:worker_threads';
import { openDatabase } from '../database/index.ts';
import { countTrend, type TrendCount } from './trendCount.ts';

const db = openDatabase(workerData as string, { most: 2 });

/** Counts the days of one project. */
export default function answer(order: TrendCount): Promise<{ readonly left: number }> {
  return countTrend(db, order);
}
