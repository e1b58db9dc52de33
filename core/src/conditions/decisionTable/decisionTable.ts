import type { NamedValue } from '../namedValue.ts';
import type { FieldId } from '../valueRanges.ts';

/** Decision table testing (ISO/IEC/IEEE 29119-4, 5.2.6), with limited and extended entries. */
export interface DecisionTableModel {
  readonly kind: 'decisionTable';
  readonly conditions: readonly TableCondition[];
  readonly actions: readonly TableAction[];
  /** The columns, from left to right. */
  readonly rules: readonly Rule[];
}

export interface TableCondition {
  readonly id: FieldId;
  readonly name: string;
  /** Two or more; at most {@link MOST_TABLE_VALUES}. */
  readonly values: readonly NamedValue[];
}

export interface TableAction {
  readonly id: string;
  readonly name: string;
}

export interface Rule {
  readonly id: string;
  /** By condition the ids of the values it holds for; a condition that is absent, or has none, is “any”. */
  readonly entries: Readonly<Record<string, readonly string[]>>;
  /** The combinations of this column cannot occur: they are no coverage items and have no actions. */
  readonly impossible: boolean;
  /** By action what is done; absent or empty: nothing. */
  readonly actions: Readonly<Record<string, string>>;
}

/** Values of one condition fit into the bits of a whole number. */
export const MOST_TABLE_VALUES = 30;

/** What a rule does, to be compared: two rules with the same text do the same. */
export function actionsOf(model: DecisionTableModel, rule: Rule): string {
  return JSON.stringify(model.actions.map((a) => (rule.actions[a.id] ?? '').trim()));
}

/** What a rule does, to be read: `discount 30 %; letter`. An action marked with `x` alone is named only. */
export function outcomeOf(model: DecisionTableModel, rule: Rule): string {
  const done = model.actions.flatMap((action) => {
    const text = (rule.actions[action.id] ?? '').trim();
    if (text === '') return [];
    return /^(x|yes|✓)$/i.test(text) ? [action.name] : [`${action.name} ${text}`];
  });
  return done.join('; ');
}

/** The named entries of a rule, to be read: `household 1–2, arrears no`; “any” ones are not named. */
export function entriesOf(model: DecisionTableModel, rule: Pick<Rule, 'entries'>): string {
  const named = model.conditions.flatMap((condition) => {
    const entry = rule.entries[condition.id] ?? [];
    const values = condition.values.filter((v) => entry.includes(v.id));
    return values.length === 0 || values.length === condition.values.length ? [] : [`${condition.name} ${values.map((v) => v.value).join(' / ')}`];
  });
  return named.length === 0 ? 'whatever holds' : named.join(', ');
}
