import type { ConditionId, RequirementId } from '../artefacts/index.ts';
import type { Risk } from '../basis/index.ts';
import { riskOf } from './judged.ts';
import type { ConditionEntry, CoverageIndex } from './coverageIndex.ts';

/** Which items are asked for; what is not said does not narrow. */
export interface AskedItems {
  readonly risk?: Risk | undefined;
  /** A depth of testing that their conditions belong to. */
  readonly depth?: string | undefined;
  readonly requirement?: RequirementId | undefined;
  /** Of any of these. */
  readonly requirements?: readonly RequirementId[] | undefined;
  readonly condition?: ConditionId | undefined;
}

/** Tells whether items of a condition are asked for. */
export function askedIn(index: CoverageIndex, { risk, depth, requirement, requirements, condition }: AskedItems): (entry: ConditionEntry) => boolean {
  const any = requirements === undefined ? null : new Set(requirements);
  return (entry) => {
    const { content } = entry.condition;
    if (condition !== undefined && entry.id !== condition) return false;
    if (depth !== undefined && !content.depths.includes(depth)) return false;
    if (requirement !== undefined && !content.requirements.some((r) => r.id === requirement)) return false;
    if (any !== null && !content.requirements.some((r) => any.has(r.id))) return false;
    return risk === undefined || riskOf(index, entry) === risk;
  };
}
