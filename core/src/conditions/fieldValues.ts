import { coverageItems } from './modelJudge.ts';
import type { ConditionContent } from './condition.ts';
import { placeOfValue, type NamedValue } from './namedValue.ts';
import { itemsShown, rangeJudge } from './rangeEvidence.ts';
import type { FieldId } from './valueRanges.ts';

/** What a condition knows of the values one of its fields may have. */
export interface FieldValues {
  readonly name: string;
  /** As cells: a value of each part of the model, in its order, each once. */
  readonly offered: readonly string[];
  /** Whether a value lies in any part of the model; what does not shows nothing. */
  readonly knows: (text: string) => boolean;
}

/** The values of a field of value ranges, a factor or a condition of a decision table; null when the model has no such field. */
export function fieldValues(content: Pick<ConditionContent, 'title' | 'polarity' | 'model'>, id: FieldId): FieldValues | null {
  const { model } = content;
  switch (model.kind) {
    case 'plain':
    case 'stateTransitions':
      return null;
    case 'decisionTable':
      return namedField(model.conditions.find((c) => c.id === id));
    case 'combination':
      return namedField(model.factors.find((f) => f.id === id));
    case 'valueRanges': {
      const at = model.fields.findIndex((f) => f.id === id);
      const field = model.fields[at];
      if (field === undefined) return null;
      const judge = rangeJudge(model);
      const offered = coverageItems(content).flatMap((i) => (i.field === id && i.sample !== null ? [i.sample] : []));
      return { name: field.name, offered: [...new Set(offered)], knows: (text) => itemsShown(judge, model.fields.map((_, i) => (i === at ? { kind: 'value', text } : null))).length > 0 };
    }
  }
}

function namedField(field: { readonly name: string; readonly values: readonly NamedValue[] } | undefined): FieldValues | null {
  return field === undefined ? null : { name: field.name, offered: field.values.map((v) => v.value), knows: (text) => placeOfValue(field.values, text) >= 0 };
}
