import type { BaselineNumber } from '@caderno/core/baselines';
import type { DesignReport } from '@caderno/core/report';
import { inSnapshot } from '../database/index.ts';
import { readReport } from '../report/index.ts';
import { ask } from './asked.ts';
import { membershipOf, type Admitted } from './context.ts';
import { figuresNow } from './trend.ts';

/** What those who decide are told of the project that is called. */
export async function reportOf(call: Admitted, since: BaselineNumber | null): Promise<DesignReport> {
  const { at, figures } = await figuresNow(call);
  const [coverage, heldUp] = [await ask(call, { kind: 'report' }), await ask(call, { kind: 'heldUp' })];
  return inSnapshot(call.parts.db, (work) => readReport(work, membershipOf(call).projectId, { at: new Date(at), figures, coverage, heldUp }, since));
}
