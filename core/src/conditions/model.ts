import { countCombinationItems } from './combination/combinationItems.ts';
import type { CombinationModel } from './combination/combination.ts';
import type { DecisionTableModel } from './decisionTable/decisionTable.ts';
import { countStateItems } from './stateTransitions/stateItems.ts';
import type { StateTransitionsModel } from './stateTransitions/stateTransitions.ts';
import { rangeJudge } from './rangeEvidence.ts';
import type { FieldId, ValueRangesModel } from './valueRanges.ts';

/** How a condition is exercised. */
export type Model = PlainModel | ValueRangesModel | DecisionTableModel | StateTransitionsModel | CombinationModel;

/** One coverage item: the condition itself. */
export interface PlainModel {
  readonly kind: 'plain';
}

/** A part of a model whose value a parameter of a case can carry. */
export interface CarriedField {
  readonly id: FieldId;
  readonly name: string;
}

/** What parameters can carry of a model, in the order in which rows are judged; nothing for plain and states. */
export function carriedFields(model: Model): readonly CarriedField[] {
  switch (model.kind) {
    case 'plain':
    case 'stateTransitions':
      return [];
    case 'valueRanges':
      return model.fields;
    case 'decisionTable':
      return model.conditions;
    case 'combination':
      return model.factors;
  }
}

/** How many coverage items a model has at most, counted without making them. */
export function countItems(model: Model): bigint {
  switch (model.kind) {
    case 'plain':
      return 1n;
    case 'valueRanges':
      return BigInt(rangeJudge(model).kinds.length);
    case 'decisionTable':
      return BigInt(model.rules.length);
    case 'stateTransitions':
      return countStateItems(model);
    case 'combination':
      return countCombinationItems(model);
  }
}
