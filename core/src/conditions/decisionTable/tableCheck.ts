import type { FieldId } from '../valueRanges.ts';
import { boxOf, contains, fullEffort, meet, subtract, wholeBox, type Box, type Effort } from './boxes.ts';
import { actionsOf, type DecisionTableModel, type Rule } from './decisionTable.ts';

/** What is wrong with a decision table, and where. Reported, never repaired. */
export type TableProblem =
  | { readonly code: 'no_conditions' }
  | { readonly code: 'no_rules' }
  /** Fewer than two values: nothing is decided by it. */
  | { readonly code: 'values_few'; readonly condition: FieldId }
  | { readonly code: 'name_twice'; readonly name: string }
  | { readonly code: 'value_twice'; readonly condition: FieldId; readonly value: string }
  /** `boxes` are the first of the missing combinations, grouped, `combinations` is their number. */
  | { readonly code: 'combinations_missing'; readonly combinations: bigint; readonly boxes: readonly Box[] }
  /** Two rules hold for one combination and do different things. */
  | { readonly code: 'rules_contradict'; readonly rules: readonly [string, string]; readonly shared: Box }
  /** All its combinations are in other rules that do the same; `within` the one that holds them all, or null for several. */
  | { readonly code: 'rule_contained'; readonly rule: string; readonly within: string | null }
  /** The two do the same and differ in one condition only. */
  | { readonly code: 'rules_mergeable'; readonly rules: readonly [string, string]; readonly condition: FieldId }
  /** All its combinations are declared impossible. */
  | { readonly code: 'rule_impossible'; readonly rule: string }
  /** Too tangled to be judged whole: what is reported holds, and there may be more. */
  | { readonly code: 'not_judged' };

/** How many missing boxes are named one by one. */
export const MOST_NAMED_BOXES = 200;
/** How many pairs of rules are reported of a kind. */
const MOST_PAIRS = 200;

interface Column {
  readonly rule: Rule;
  readonly box: Box;
  readonly actions: string;
}

/** All problems of a table: first of its parts, then completeness, then rule by rule from left to right. */
export function tableProblems(model: DecisionTableModel): TableProblem[] {
  if (model.conditions.length === 0) return [{ code: 'no_conditions' }];
  const parts = partProblems(model);
  if (model.rules.length === 0) return [...parts, { code: 'no_rules' }];
  const columns = model.rules.map((rule) => ({ rule, box: boxOf(model, rule), actions: actionsOf(model, rule) }));
  const impossible = columns.filter((c) => c.rule.impossible).map((c) => c.box);
  const possible = columns.filter((c) => !c.rule.impossible);
  const effort = fullEffort();
  const problems = [...parts, ...missing(model, columns, effort), ...ruleProblems(model, possible, impossible, effort)];
  return effort.left < 0 ? [...problems, { code: 'not_judged' }] : problems;
}

function partProblems({ conditions, actions }: DecisionTableModel): TableProblem[] {
  const names = [...conditions, ...actions].map((p) => p.name);
  const twice = [...new Set(names.filter((n, i) => names.indexOf(n) !== i))];
  return [
    ...conditions.filter((c) => c.values.length < 2).map((c): TableProblem => ({ code: 'values_few', condition: c.id })),
    ...twice.map((name): TableProblem => ({ code: 'name_twice', name })),
    ...conditions.flatMap((c) => {
      const spellings = c.values.flatMap((v) => [v.value, ...v.aliases]);
      return [...new Set(spellings.filter((s, i) => spellings.indexOf(s) !== i))].map((value): TableProblem => ({ code: 'value_twice', condition: c.id, value }));
    }),
  ];
}

function missing(model: DecisionTableModel, columns: readonly Column[], effort: Effort): TableProblem[] {
  const left = subtract(wholeBox(model), columns.map((c) => c.box), MOST_NAMED_BOXES, effort);
  return left === null || left.combinations === 0n ? [] : [{ code: 'combinations_missing', ...left }];
}

function ruleProblems(model: DecisionTableModel, columns: readonly Column[], impossible: readonly Box[], effort: Effort): TableProblem[] {
  const byBits = columnsByValue(model, columns);
  const problems: TableProblem[] = [];
  let [contradictions, merges] = [0, 0];
  columns.forEach((column, i) => {
    if (effort.left < 0) return;
    if (impossible.length > 0 && subtract(column.box, impossible, 1, effort)?.combinations === 0n) {
      problems.push({ code: 'rule_impossible', rule: column.rule.id });
      return;
    }
    const alike: { readonly other: Column; readonly at: number }[] = [];
    const sharing = overlapping(model, column.box, byBits, columns.length);
    effort.left -= columns.length + 8 * sharing.length;
    for (const at of sharing) {
      const other = columns[at];
      if (other === undefined || at === i) continue;
      if (other.actions === column.actions) alike.push({ other, at });
      else if (at > i && contradictions < MOST_PAIRS) {
        const shared = meet(column.box, other.box);
        const real = shared === null ? undefined : subtract(shared, impossible, 1, effort)?.boxes[0];
        if (real === undefined) continue;
        contradictions += 1;
        problems.push({ code: 'rules_contradict', rules: [column.rule.id, other.rule.id], shared: real });
      }
    }
    problems.push(...containment(column, i, alike, effort));
  });
  for (const pair of mergeable(model, columns)) {
    if (merges === MOST_PAIRS) break;
    merges += 1;
    problems.push(pair);
  }
  return problems;
}

/** Of two equal rules the later one is contained; otherwise the smaller. */
function containment({ rule, box }: Column, at: number, alike: readonly { readonly other: Column; readonly at: number }[], effort: Effort): TableProblem[] {
  const whole = alike.find((a) => contains(a.other.box, box) && (a.at < at || !contains(box, a.other.box)));
  if (whole !== undefined) return [{ code: 'rule_contained', rule: rule.id, within: whole.other.rule.id }];
  const earlier = alike.filter((a) => a.at < at).map((a) => a.other.box);
  const left = earlier.length < 2 ? null : subtract(box, earlier, 1, effort);
  return left?.combinations === 0n ? [{ code: 'rule_contained', rule: rule.id, within: null }] : [];
}

/** For every condition and value the columns that hold for it, as bits in 32-bit words. */
function columnsByValue(model: DecisionTableModel, columns: readonly Column[]): Uint32Array[][] {
  const words = Math.ceil(columns.length / 32);
  return model.conditions.map((condition, c) =>
    condition.values.map((_, value) => {
      const bits = new Uint32Array(words);
      columns.forEach(({ box }, i) => {
        if (((box[c] ?? 0) >> value) & 1) bits[i >> 5] = (bits[i >> 5] ?? 0) | (1 << (i & 31));
      });
      return bits;
    }),
  );
}

/** Places of the columns that share a combination with the box, ascending. */
function overlapping(model: DecisionTableModel, box: Box, byValue: readonly (readonly Uint32Array[])[], count: number): number[] {
  const words = Math.ceil(count / 32);
  const together = new Uint32Array(words).fill(0xffffffff);
  const held = new Uint32Array(words);
  model.conditions.forEach((condition, c) => {
    held.fill(0);
    condition.values.forEach((_, value) => {
      const bits = byValue[c]?.[value];
      if (bits !== undefined && ((box[c] ?? 0) >> value) & 1) for (let w = 0; w < words; w += 1) held[w] = (held[w] ?? 0) | (bits[w] ?? 0);
    });
    for (let w = 0; w < words; w += 1) together[w] = (together[w] ?? 0) & (held[w] ?? 0);
  });
  const places: number[] = [];
  for (let i = 0; i < count; i += 1) if (((together[i >> 5] ?? 0) >>> (i & 31)) & 1) places.push(i);
  return places;
}

/** Pairs that do the same and differ in one condition only; each rule in at most one pair. Where nothing is said yet of what is done, nothing is the same. */
function mergeable(model: DecisionTableModel, columns: readonly Column[]): TableProblem[] {
  const paired = new Set<string>();
  const problems: TableProblem[] = [];
  model.conditions.forEach((condition, c) => {
    const waiting = new Map<string, Column>();
    for (const column of columns) {
      if (paired.has(column.rule.id) || Object.values(column.rule.actions).every((text) => text.trim() === '')) continue;
      const key = `${column.box.filter((_, i) => i !== c).join(' ')}|${column.actions}`;
      const partner = waiting.get(key);
      if (partner === undefined || partner.box[c] === column.box[c]) waiting.set(key, column);
      else {
        problems.push({ code: 'rules_mergeable', rules: [partner.rule.id, column.rule.id], condition: condition.id });
        paired.add(partner.rule.id).add(column.rule.id);
        waiting.delete(key);
      }
    }
  });
  return problems;
}
