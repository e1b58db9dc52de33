import { itemKey, type CoverageItem, type ItemKey } from '../item.ts';
import { placeOfValue } from '../namedValue.ts';
import type { FieldValue } from '../otherClass.ts';
import type { FieldId } from '../valueRanges.ts';
import { boxOf, fullEffort, meet, subtract, type Box } from './boxes.ts';
import { actionsOf, entriesOf, outcomeOf, type DecisionTableModel, type Rule } from './decisionTable.ts';

/** A rule that is an item: possible, and holding for at least one possible combination. */
interface ItemRule {
  readonly rule: Rule;
  /** Its column, from 1. */
  readonly column: number;
  readonly box: Box;
  readonly actions: string;
}

/** A table made ready to judge many rows. */
export interface TableJudge {
  readonly model: DecisionTableModel;
  readonly rules: readonly ItemRule[];
  readonly impossible: readonly Box[];
  /** Answers already given, by the values of the row: rows repeat themselves. */
  readonly known: Map<string, readonly number[]>;
}

export function tableJudge(model: DecisionTableModel): TableJudge {
  const columns = model.rules.map((rule, i) => ({ rule, column: i + 1, box: boxOf(model, rule), actions: actionsOf(model, rule) }));
  const impossible = columns.filter((c) => c.rule.impossible).map((c) => c.box);
  const effort = fullEffort();
  const rules = columns.filter((c) => !c.rule.impossible && model.conditions.length > 0 && (impossible.length === 0 || subtract(c.box, impossible, 1, effort)?.combinations !== 0n));
  return { model, rules, impossible, known: new Map() };
}

export function ruleKey(rule: Rule): ItemKey {
  return itemKey(`rule:${rule.id}`);
}

/** One item per rule that can apply, from left to right. */
export function tableItems(model: DecisionTableModel): CoverageItem[] {
  return tableJudge(model).rules.map(({ rule, column }, i) => ({
    key: ruleKey(rule),
    number: i + 1,
    kind: 'rule',
    field: null,
    name: `rule ${column}`,
    extent: entriesOf(model, rule),
    sample: null,
    valid: true,
    outcome: outcomeOf(model, rule),
  }));
}

/** What the values of a row come to in a table. Rules by their place among the items. */
export type RuleChoice =
  | { readonly kind: 'rule'; readonly place: number }
  /** No rule holds, or a condition that decides has no value. */
  | { readonly kind: 'none' }
  | { readonly kind: 'impossible' }
  /** Two rules hold and do different things: the row shows neither. */
  | { readonly kind: 'contradiction'; readonly places: readonly [number, number] }
  /** The text is none of the condition's values. */
  | { readonly kind: 'unknownValue'; readonly condition: FieldId; readonly text: string };

/**
 * The rule that values select, in the order of the conditions; null gives none. Rules that overlap and do the same
 * count as one: the leftmost is selected.
 */
export function chooseRule(judge: TableJudge, values: readonly (FieldValue | null)[]): RuleChoice {
  const row: number[] = [];
  for (let c = 0; c < judge.model.conditions.length; c += 1) {
    const [condition, value] = [judge.model.conditions[c], values[c]];
    if (condition === undefined) break;
    const place = value?.kind === 'value' ? placeOfValue(condition.values, value.text) : -1;
    if (value?.kind === 'value' && place < 0) return { kind: 'unknownValue', condition: condition.id, text: value.text };
    row.push(place);
  }
  if (judge.impossible.some((box) => holds(judge.model, box, row))) return { kind: 'impossible' };
  const holding = judge.rules.flatMap(({ box }, place) => (holds(judge.model, box, row) ? [place] : []));
  const [first] = holding;
  if (first === undefined) return { kind: 'none' };
  const other = holding.find((place) => judge.rules[place]?.actions !== judge.rules[first]?.actions);
  return other === undefined ? { kind: 'rule', place: first } : { kind: 'contradiction', places: [first, other] };
}

/** The items (by place) that a row shows: the one rule its values select, if any. */
export function rulesShown(judge: TableJudge, values: readonly (FieldValue | null)[]): readonly number[] {
  const key = values.map((v) => (v?.kind === 'value' ? `${v.text.length}:${v.text}` : '-')).join('|');
  const known = judge.known.get(key);
  if (known !== undefined) return known;
  const choice = chooseRule(judge, values);
  const shown = choice.kind === 'rule' ? [choice.place] : [];
  judge.known.set(key, shown);
  return shown;
}

/** A condition without a value (-1) is met by “any” alone. */
function holds(model: DecisionTableModel, box: Box, row: readonly number[]): boolean {
  return row.every((place, c) => {
    const bits = box[c] ?? 0;
    return place < 0 ? bits === 2 ** (model.conditions[c]?.values.length ?? 0) - 1 : ((bits >> place) & 1) === 1;
  });
}

/** Values that select an item's rule and no other; null when other rules hide it altogether. */
export function valuesSelecting(judge: TableJudge, place: number): readonly { readonly field: FieldId; readonly cell: string }[] | null {
  const own = judge.rules[place];
  if (own === undefined) return null;
  const hiding = judge.rules.flatMap((r, at) => (at < place || (r.actions !== own.actions && meet(r.box, own.box) !== null) ? [r.box] : []));
  const [box] = subtract(own.box, [...judge.impossible, ...hiding], 1)?.boxes ?? [];
  if (box === undefined) return null;
  return judge.model.conditions.map((condition, c) => ({ field: condition.id, cell: condition.values.find((_, i) => ((box[c] ?? 0) >> i) & 1)?.value ?? '' }));
}
