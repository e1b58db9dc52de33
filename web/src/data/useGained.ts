import type { ConditionId, CoveringId } from '@caderno/core/artefacts';
import type { CaseContent, Row, RowId } from '@caderno/core/cases';
import type { CoverageItem } from '@caderno/core/conditions';
import { gainedItems, type ConditionCoverage, type DesignCondition } from '@caderno/core/coverage';
import { useCallback } from 'react';

/** What rows would show of the conditions that are covered, and nothing shows yet. */
export function useGained(id: CoveringId, content: CaseContent, conditions: ReadonlyMap<ConditionId, DesignCondition>, coverages: ReadonlyMap<ConditionId, ConditionCoverage>, mostItems: number): (made: readonly Row[]) => ReadonlyMap<RowId, readonly CoverageItem[]> {
  return useCallback(
    (made) => {
      const covered = [...conditions.values()].flatMap((condition) => {
        const coverage = coverages.get(condition.id);
        return coverage === undefined ? [] : [{ condition, coverage }];
      });
      return gainedItems(id, content, made, covered, mostItems);
    },
    [conditions, content, coverages, id, mostItems],
  );
}
