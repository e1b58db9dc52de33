import type { CoveringId } from '../artefacts/index.ts';
import type { CaseContent, Row, RowId } from '../cases/index.ts';
import { ModelJudge, carriedFields, type CoverageItem } from '../conditions/index.ts';
import type { ConditionCoverage } from './conditionCoverage.ts';
import type { DesignCondition } from './design.ts';
import { caseEvidence } from './evidence.ts';
import { shownIn } from './shownList.ts';

/** A condition that a case covers, and how it is covered now. */
export interface CoveredCondition {
  readonly condition: DesignCondition;
  readonly coverage: ConditionCoverage;
}

/**
 * What rows would add to a case that carries values by parameters of its own: by row the items that nothing shows yet
 * and no row before it would. Items left out or waiting count as any other that is not shown.
 */
export function gainedItems(id: CoveringId, content: CaseContent, made: readonly Row[], covered: readonly CoveredCondition[], mostItems: number): Map<RowId, CoverageItem[]> {
  const gained = new Map<RowId, CoverageItem[]>(made.map((row) => [row.id, []]));
  for (const { condition, coverage } of covered) {
    const cover = content.covers.find((c) => c.id === condition.id);
    if (cover === undefined || cover.fields.length === 0) continue;
    const judge = new ModelJudge(condition.content, mostItems);
    const evidence = caseEvidence(id, content, made, cover, judge, condition.content, carriedFields(condition.content.model));
    const known = new Set(coverage.items.flatMap((item, place) => (item.standing === 'shown' || item.standing === 'suspect' ? [place] : [])));
    made.forEach((row, i) => {
      for (const place of shownIn(evidence.shown, i)) {
        const item = judge.items[place];
        if (known.has(place) || item === undefined) continue;
        known.add(place);
        gained.get(row.id)?.push(item);
      }
    });
  }
  return gained;
}
