import type { Model } from './model.ts';
import type { NamedValue } from './namedValue.ts';
import type { FieldId } from './valueRanges.ts';

/** The values that a field has by name; null where it has none, or the model has no such field. */
export function namedValuesOf(model: Model, id: FieldId): readonly NamedValue[] | null {
  switch (model.kind) {
    case 'plain':
    case 'stateTransitions':
      return null;
    case 'valueRanges': {
      const choices = model.fields.find((f) => f.id === id)?.choices ?? [];
      return choices.length === 0 ? null : choices;
    }
    case 'decisionTable':
      return model.conditions.find((c) => c.id === id)?.values ?? null;
    case 'combination':
      return model.factors.find((f) => f.id === id)?.values ?? null;
  }
}

/** The model with another name for a value of a field: rows may have it by either. */
export function withAlias(model: Model, id: FieldId, value: NamedValue['id'], alias: string): Model {
  return withNamedValues(model, (field, named) => (field === id && named.id === value && named.value !== alias && !named.aliases.includes(alias) ? { ...named, aliases: [...named.aliases, alias] } : named));
}

/** The model without other names: they let rows speak of the same value, and change nothing of what the condition means. */
export function withoutAliases(model: Model): Model {
  return withNamedValues(model, (_, named) => (named.aliases.length === 0 ? named : { ...named, aliases: [] }));
}

function withNamedValues(model: Model, change: <V extends NamedValue>(field: FieldId, value: V) => V): Model {
  switch (model.kind) {
    case 'plain':
    case 'stateTransitions':
      return model;
    case 'valueRanges':
      return { ...model, fields: model.fields.map((f) => ({ ...f, choices: f.choices.map((c) => change(f.id, c)) })) };
    case 'decisionTable':
      return { ...model, conditions: model.conditions.map((c) => ({ ...c, values: c.values.map((v) => change(c.id, v)) })) };
    case 'combination':
      return { ...model, factors: model.factors.map((f) => ({ ...f, values: f.values.map((v) => change(f.id, v)) })) };
  }
}
