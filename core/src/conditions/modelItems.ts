import { PLAIN_ITEM, type CoverageItem } from './item.ts';
import type { ConditionContent } from './condition.ts';
import { rangeItems } from './rangeItems.ts';

/** All coverage items of a condition, left out ones included, numbered from 1. */
export function coverageItems(condition: Pick<ConditionContent, 'title' | 'polarity' | 'model'>): CoverageItem[] {
  switch (condition.model.kind) {
    case 'plain':
      return [plainItem(condition)];
    case 'valueRanges':
      return rangeItems(condition.model);
  }
}

function plainItem(condition: Pick<ConditionContent, 'title' | 'polarity'>): CoverageItem {
  return {
    key: PLAIN_ITEM,
    number: 1,
    kind: 'condition',
    field: null,
    name: condition.title,
    extent: '',
    sample: null,
    valid: condition.polarity !== 'negative',
    outcome: '',
  };
}
