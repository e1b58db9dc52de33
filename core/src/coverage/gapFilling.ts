import type { ConditionContent, ItemKey, StatePath } from '../conditions/index.ts';
import { coverageItems } from '../conditions/index.ts';
import { statePaths } from '../conditions/index.ts';
import { CombinationRows } from './combinationRows.ts';
import { rangeRows } from './rangeRows.ts';
import type { Filling, RowsMade } from './rowsMade.ts';
import { tableRows } from './tableRows.ts';

/** What filling a gap comes to. */
export interface GapFilling extends RowsMade {
  /** Ways through a state model, a case each. */
  readonly paths: readonly StatePath[];
  /** Items of a plain condition, which a step's expected result is to speak for. */
  readonly expectations: readonly ItemKey[];
}

const NOTHING: GapFilling = { rows: [], paths: [], expectations: [], unreachable: [] };

/** How many steps a combination's rows are improved where nobody waits for better ones. */
const QUICK_STEPS = 4_000;

/**
 * What would show the missing items of a condition, by the kind of its model. Rows of a combination are made quickly
 * here and get fewer with `CombinationRows`, step by step.
 */
export function fillGap(content: ConditionContent, missing: readonly ItemKey[], how: Filling = 'fewest', mostItems?: number): GapFilling {
  const { model } = content;
  const wanted = new Set(coverageItems(content, mostItems).flatMap((i) => (missing.includes(i.key) ? [i.key] : [])));
  switch (model.kind) {
    case 'plain':
      return { ...NOTHING, expectations: [...wanted] };
    case 'valueRanges':
      return { ...NOTHING, ...rangeRows(model, wanted, how) };
    case 'decisionTable':
      return { ...NOTHING, ...tableRows(model, wanted) };
    case 'stateTransitions':
      return { ...NOTHING, ...pathsFor(content, wanted, how) };
    case 'combination': {
      const search = new CombinationRows(model, wanted, how);
      search.improve(QUICK_STEPS);
      return { ...NOTHING, ...search.made };
    }
  }
}

function pathsFor({ model }: ConditionContent, wanted: ReadonlySet<ItemKey>, how: Filling): Pick<GapFilling, 'paths' | 'unreachable'> {
  if (model.kind !== 'stateTransitions') return { paths: [], unreachable: [] };
  if (how === 'fewest') return statePaths(model, wanted);
  const each = [...wanted].map((key) => statePaths(model, new Set([key])));
  return { paths: each.flatMap((e) => e.paths), unreachable: each.flatMap((e) => e.unreachable) };
}
