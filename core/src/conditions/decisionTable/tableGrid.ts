import type { NamedValue } from '../namedValue.ts';
import { fieldId } from '../valueRanges.ts';
import type { DecisionTableModel, Rule, TableAction, TableCondition } from './decisionTable.ts';

/** Words of the first column of a table written as a grid. */
const CONDITION = 'condition';
const ACTION = 'action';
const IMPOSSIBLE = 'impossible';
const ANY = '–';
const SEPARATOR = ' / ';

/**
 * A decision table as a grid of texts, a line per condition and action, a column per rule: what is exported as CSV and
 * copied to a spreadsheet. The first column says what a line is, the second its name.
 */
export function tableAsGrid(model: DecisionTableModel): string[][] {
  const entry = (condition: TableCondition, rule: Rule): string => {
    const named = condition.values.filter((v) => (rule.entries[condition.id] ?? []).includes(v.id));
    return named.length === 0 || named.length === condition.values.length ? ANY : named.map((v) => v.value).join(SEPARATOR);
  };
  return [
    ['', 'rule', ...model.rules.map((_, i) => String(i + 1))],
    ...model.conditions.map((c) => [CONDITION, c.name, ...model.rules.map((r) => entry(c, r))]),
    ...model.actions.map((a) => [ACTION, a.name, ...model.rules.map((r) => r.actions[a.id] ?? '')]),
    ...(model.rules.some((r) => r.impossible) ? [[IMPOSSIBLE, '', ...model.rules.map((r) => (r.impossible ? 'x' : ''))]] : []),
  ];
}

/** What kept a grid from being read as a table. */
export type GridProblem = { readonly code: 'no_condition_lines' } | { readonly code: 'rules_too_many'; readonly rules: number; readonly most: number };

/** Most rules that are taken from a grid. */
export const MOST_TABLE_RULES = 10_000;

/**
 * Reads a grid as a decision table. Lines that say `condition`, `action` or `impossible` first are what they say;
 * without such a column the lines above the first empty one (or one that says only `actions`) are conditions and the
 * rest are actions. An empty entry, `-`, `–`, `*` and `any` mean any; `a / b` means either; values are collected from
 * the entries, in order of first use; `y` and `n` alone are read as yes and no. Names already in `known` keep their ids.
 */
export function tableFromGrid(grid: readonly (readonly string[])[], known: DecisionTableModel, newId: () => string): { readonly model: DecisionTableModel } | GridProblem {
  const lines = linesOf(grid);
  const conditions = lines.filter((l) => l.kind === CONDITION);
  if (conditions.length === 0) return { code: 'no_condition_lines' };
  const rules = Math.max(...lines.map((l) => l.cells.length));
  if (rules > MOST_TABLE_RULES) return { code: 'rules_too_many', rules, most: MOST_TABLE_RULES };
  const readConditions = conditions.map((line) => ({ line, condition: conditionFrom(line, known, newId) }));
  const readActions = lines.filter((l) => l.kind === ACTION).map((line) => ({ line, action: actionFrom(line, known, newId) }));
  const impossible = lines.find((l) => l.kind === IMPOSSIBLE);
  const ruleAt = (i: number): Rule => ({
    id: known.rules[i]?.id ?? newId(),
    entries: Object.fromEntries(readConditions.flatMap(({ line, condition }) => entryAt(line.cells[i] ?? '', condition))),
    actions: Object.fromEntries(readActions.flatMap(({ line, action }) => ((line.cells[i] ?? '') === '' ? [] : [[action.id, line.cells[i] ?? '']]))),
    impossible: (impossible?.cells[i] ?? '') !== '',
  });
  return { model: { kind: 'decisionTable', conditions: readConditions.map((r) => r.condition), actions: readActions.map((r) => r.action), rules: Array.from({ length: rules }, (_, i) => ruleAt(i)) } };
}

interface Line {
  readonly kind: typeof CONDITION | typeof ACTION | typeof IMPOSSIBLE;
  readonly name: string;
  readonly cells: readonly string[];
}

function linesOf(grid: readonly (readonly string[])[]): Line[] {
  const trimmed = grid.map((line) => line.map((cell) => cell.trim()));
  const said = trimmed.some((line) => [CONDITION, ACTION].includes((line[0] ?? '').toLowerCase()));
  if (said) {
    return trimmed.flatMap(([kind = '', name = '', ...cells]) => {
      const word = kind.toLowerCase();
      return word === CONDITION || word === ACTION || word === IMPOSSIBLE ? [{ kind: word, name, cells }] : [];
    });
  }
  const isHead = ([name = '', ...cells]: readonly string[]): boolean => /^(rules?|)$/i.test(name) && cells.length > 0 && cells.every((c) => /^(rule\s*|r)?\d+$/i.test(c));
  const isBreak = (line: readonly string[]): boolean => line.slice(1).every((c) => c === '') && /^(actions?|then|)$/i.test(line[0] ?? '');
  const body = trimmed.filter((line, i) => i > 0 || !isHead(line));
  const at = body.findIndex(isBreak);
  return body.flatMap((line, i): Line[] => {
    const [name = '', ...cells] = line;
    return isBreak(line) ? [] : [{ kind: at >= 0 && i > at ? ACTION : CONDITION, name, cells }];
  });
}

function isAny(text: string): boolean {
  return /^(|-|–|—|\*|any)$/i.test(text);
}

function spelledValues(text: string): string[] {
  return isAny(text) ? [] : text.split(/\s+\/\s+/);
}

function conditionFrom({ name, cells }: Line, known: DecisionTableModel, newId: () => string): TableCondition {
  const old = known.conditions.find((c) => c.name === name);
  const used = [...new Set(cells.flatMap(spelledValues))];
  const yesNo = used.every((t) => /^[yn]$/i.test(t));
  const spelled = yesNo && (used.length > 0 || old === undefined) ? ['yes', 'no'] : used;
  const fresh = spelled.filter((text) => !(old?.values ?? []).some((v) => isValue(v, text)));
  const values = [...(old?.values ?? []), ...fresh.map((value): NamedValue => ({ id: newId(), value, aliases: [] }))];
  return { id: old?.id ?? fieldId(newId()), name, values };
}

function actionFrom({ name }: Line, known: DecisionTableModel, newId: () => string): TableAction {
  return known.actions.find((a) => a.name === name) ?? { id: newId(), name };
}

function isValue(value: NamedValue, text: string): boolean {
  return value.value === text || value.aliases.includes(text) || (/^y$/i.test(text) && value.value === 'yes') || (/^n$/i.test(text) && value.value === 'no');
}

function entryAt(text: string, condition: TableCondition): [string, string[]][] {
  const ids = spelledValues(text).flatMap((spelled) => condition.values.find((v) => isValue(v, spelled))?.id ?? []);
  return ids.length === 0 ? [] : [[condition.id, ids]];
}
