import { entriesOfBox, fieldId, type Box, type DecisionTableModel, type NamedValue, type Rule, type TableCondition } from '@caderno/core/conditions';
import { newPartId } from '../newPartId.ts';

/** Edits of a decision table; each answers the table after it, the same one when nothing changes. */
type Edit = (model: DecisionTableModel) => DecisionTableModel;

const YES_NO = ['yes', 'no'];

export function newNamedValue(value: string): NamedValue {
  return { id: newPartId(), value, aliases: [] };
}

function newCondition(name: string): TableCondition {
  return { id: fieldId(newPartId()), name, values: YES_NO.map(newNamedValue) };
}

/** A table to begin with: two yes/no conditions, an action, a rule for each combination of the first. */
export function newTable(): DecisionTableModel {
  const conditions = [newCondition('first condition'), newCondition('second condition')];
  const [first] = conditions;
  const rules = (first?.values ?? []).map((value): Rule => ({ id: newPartId(), entries: first === undefined ? {} : { [first.id]: [value.id] }, impossible: false, actions: {} }));
  return { kind: 'decisionTable', conditions, actions: [{ id: newPartId(), name: 'action' }], rules };
}

export const addCondition: Edit = (model) => ({ ...model, conditions: [...model.conditions, newCondition(`condition ${model.conditions.length + 1}`)] });
export const addAction: Edit = (model) => ({ ...model, actions: [...model.actions, { id: newPartId(), name: `action ${model.actions.length + 1}` }] });

export function withCondition(id: string, part: Partial<TableCondition>): Edit {
  return (model) => ({ ...model, conditions: model.conditions.map((c) => (c.id === id ? { ...c, ...part } : c)) });
}

export function withAction(id: string, name: string): Edit {
  return (model) => ({ ...model, actions: model.actions.map((a) => (a.id === id ? { ...a, name } : a)) });
}

/** Without a condition or an action; its entries in the rules go with it. */
export function withoutLine(id: string): Edit {
  return (model) => ({
    ...model,
    conditions: model.conditions.filter((c) => c.id !== id),
    actions: model.actions.filter((a) => a.id !== id),
    rules: model.rules.map((r) => ({ ...r, entries: without(r.entries, id), actions: without(r.actions, id) })),
  });
}

function without<V>(record: Readonly<Record<string, V>>, key: string): Record<string, V> {
  return Object.fromEntries(Object.entries(record).filter(([k]) => k !== key));
}

function withRule(rule: string, change: (rule: Rule) => Rule): Edit {
  return (model) => ({ ...model, rules: model.rules.map((r) => (r.id === rule ? change(r) : r)) });
}

export function setEntry(rule: string, condition: string, values: readonly string[]): Edit {
  return withRule(rule, (r) => ({ ...r, entries: values.length === 0 ? without(r.entries, condition) : { ...r.entries, [condition]: values } }));
}

export function setAction(rule: string, action: string, text: string): Edit {
  return withRule(rule, (r) => ({ ...r, actions: text === '' ? without(r.actions, action) : { ...r.actions, [action]: text } }));
}

export function toggleImpossible(rule: string): Edit {
  return withRule(rule, (r) => ({ ...r, impossible: !r.impossible, actions: {} }));
}

/** The next value that begins with what was typed, after the one the entry has; null when none does. */
export function valueTyped(condition: TableCondition, entry: readonly string[], typed: string): string | null {
  const fitting = condition.values.filter((v) => v.value.toLowerCase().startsWith(typed.toLowerCase()));
  const at = entry.length === 1 ? fitting.findIndex((v) => v.id === entry[0]) : -1;
  return fitting[(at + 1) % Math.max(1, fitting.length)]?.id ?? null;
}

export function addRule(after: number, like: Rule | undefined): Edit {
  const rule: Rule = { id: newPartId(), entries: like?.entries ?? {}, impossible: like?.impossible ?? false, actions: like?.actions ?? {} };
  return (model) => ({ ...model, rules: [...model.rules.slice(0, after + 1), rule, ...model.rules.slice(after + 1)] });
}

export function removeRule(id: string): Edit {
  return (model) => ({ ...model, rules: model.rules.filter((r) => r.id !== id) });
}

export function moveRule(from: number, to: number): Edit {
  return (model) => {
    const rule = model.rules[from];
    if (rule === undefined || to < 0 || to >= model.rules.length) return model;
    const others = model.rules.filter((_, i) => i !== from);
    return { ...model, rules: [...others.slice(0, to), rule, ...others.slice(to)] };
  };
}

/** A rule for each of the missing combinations, grouped as they are; what to do there is still to be said. */
export function addMissing(boxes: readonly Box[]): Edit {
  return (model) => ({ ...model, rules: [...model.rules, ...boxes.map((box): Rule => ({ id: newPartId(), entries: entriesOfBox(model, box), impossible: false, actions: {} }))] });
}
