import type { DecisionTableModel, Rule } from '@caderno/core/conditions';

/** What stands in a line of a rule: its entries, then its actions, then whether it cannot occur. */
export function ruleText({ conditions, actions }: DecisionTableModel, rule: Rule, line: number): string {
  const condition = conditions[line];
  if (condition !== undefined) {
    const named = condition.values.filter((v) => (rule.entries[condition.id] ?? []).includes(v.id)).map((v) => v.value);
    return named.length === 0 || named.length === condition.values.length ? '–' : named.join(' / ');
  }
  const action = actions[line - conditions.length];
  return action === undefined ? (rule.impossible ? '✕' : '') : (rule.actions[action.id] ?? '');
}
