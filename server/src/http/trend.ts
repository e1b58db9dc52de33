import type { Bends, Trend, TrendPoint } from '@caderno/contract';
import { inSnapshot } from '../database/index.ts';
import { revisionOf } from '../log/index.ts';
import { readScenarioEffort } from '../scenarios/index.ts';
import { suiteChoices } from '../suites/index.ts';
import { readBends, readBendsNow, isDayCounted, readTrend } from '../trend/index.ts';
import { ask } from './asked.ts';
import { membershipOf, type Admitted } from './context.ts';

/** What the project comes to now. */
export async function figuresNow(call: Admitted): Promise<TrendPoint> {
  const { projectId } = membershipOf(call);
  const now = call.parts.now();
  const { revision, ...known } = await inSnapshot(call.parts.db, async (work) => ({ revision: await revisionOf(work, projectId), suites: await suiteChoices(work, projectId, now.getTime()), scenarios: await readScenarioEffort(work, projectId) }));
  return { revision, at: now.toISOString(), figures: await ask(call, { kind: 'figures', ...known }) };
}

/** The days that are counted, and what the project comes to now. */
export async function trend(call: Admitted): Promise<Trend> {
  const past = await inSnapshot(call.parts.db, (work) => readTrend(work, membershipOf(call).projectId, call.parts.now()));
  return { ...past, now: await figuresNow(call) };
}

/** What made a curve bend on a day, or since the last counted day. */
export async function bendsOf(call: Admitted, revision: number): Promise<Bends> {
  const { projectId } = membershipOf(call);
  const { db } = call.parts;
  const [isCounted, latest] = await inSnapshot(db, async (work) => [await isDayCounted(work, projectId, revision), await revisionOf(work, projectId)]);
  const isNow = !isCounted && latest === revision;
  const report = isNow ? await ask(call, { kind: 'report' }) : null;
  return inSnapshot(db, (work) => (report === null ? readBends(work, projectId, revision) : readBendsNow(work, projectId, revision, report)));
}
