import { bindCell, expects, isUse, type CaseContent, type Cover, type Row } from '../cases/index.ts';
import { carriedFields, combinationJudge, chooseRule, readCombinationRow, stateName, initialState, tableJudge, walk, type ConditionContent, type FieldValue, type WalkStep } from '../conditions/index.ts';
import { fieldValue, walkedEvents } from './evidence.ts';
import { whyUntold, type Untold } from './telling.ts';

/** A value as it reached a field. */
export interface DerivedValue {
  readonly field: string;
  /** The parameter that carries the field; null: none does. */
  readonly parameter: string | null;
  /** Null: no value. */
  readonly text: string | null;
  readonly from: 'row' | 'default' | 'missing' | 'unbound';
}

/** How an instance comes to show what it shows, as facts in the order of the derivation. */
export type Derivation =
  | { readonly kind: 'expectation'; readonly steps: readonly { readonly number: number; readonly expected: string }[] }
  | { readonly kind: 'values'; readonly values: readonly DerivedValue[] }
  | { readonly kind: 'path'; readonly start: string; readonly steps: readonly { readonly number: number; readonly step: WalkStep }[] };

/** The whole derivation of what an instance of a case shows of a condition; `row` null: the case's one instance. */
export function derivationOf(content: CaseContent, cover: Cover, condition: ConditionContent, row: Row | null): Derivation {
  const { model } = condition;
  switch (model.kind) {
    case 'plain':
      return { kind: 'expectation', steps: content.steps.flatMap((s, i) => (cover.expects.includes(s.id) && s.kind === 'step' && expects(s) ? [{ number: i + 1, expected: s.expected }] : [])) };
    case 'stateTransitions': {
      const start = cover.start ?? initialState(model)?.id;
      const numbers = content.steps.flatMap((s, i) => (cover.events.some((e) => e.id === s.id) ? [i + 1] : []));
      const steps = start === undefined ? [] : walk(model, start, walkedEvents(content, cover)).map((step, i) => ({ number: numbers[i] ?? 0, step }));
      return { kind: 'path', start: start === undefined ? '' : stateName(model, start), steps };
    }
    case 'valueRanges':
    case 'decisionTable':
    case 'combination':
      return { kind: 'values', values: derivedValues(content, cover, condition, row) };
  }
}

function derivedValues(content: CaseContent, cover: Cover, { model }: ConditionContent, row: Row | null): DerivedValue[] {
  return carriedFields(model).map((field): DerivedValue => {
    const mapping = cover.fields.find((f) => f.id === field.id);
    const parameter = content.parameters.find((p) => p.id === mapping?.parameter);
    if (parameter === undefined) return { field: field.name, parameter: null, text: null, from: 'unbound' };
    const bound = bindCell(parameter, row);
    if (bound.kind !== 'value') return { field: field.name, parameter: parameter.name, text: null, from: bound.kind };
    return { field: field.name, parameter: parameter.name, text: bound.text, from: bound.from };
  });
}

/** Why a row shows nothing of a decision table or a combination. */
export type RowRefusal =
  | { readonly code: 'value_unknown'; readonly field: string; readonly text: string }
  | { readonly code: 'constraint_broken'; readonly constraint: number }
  | { readonly code: 'invalid_together'; readonly fields: readonly string[] }
  | { readonly code: 'impossible' }
  | { readonly code: 'contradiction'; readonly rules: readonly [number, number] }
  | { readonly code: 'no_rule' }
  /** Its values or steps would show something, and nobody could tell whether it passes. */
  | { readonly code: 'untold'; readonly why: Untold };

/** What keeps a row from counting, its values first; null when nothing that is known does. Of a case that uses others only its values are judged. */
export function rowRefusal(content: CaseContent, cover: Cover, condition: ConditionContent, row: Row | null): RowRefusal | null {
  const refused = valuesRefused(content, cover, condition, row);
  if (refused !== null || content.steps.some(isUse)) return refused;
  const why = whyUntold(content, cover, condition, row);
  return why === null ? null : { code: 'untold', why };
}

/** Null too where the model does not ask for rows of named values. */
function valuesRefused(content: CaseContent, cover: Cover, condition: ConditionContent, row: Row | null): RowRefusal | null {
  const { model } = condition;
  const values = carriedFields(model).map((field): FieldValue | null => {
    const parameter = content.parameters.find((p) => p.id === cover.fields.find((f) => f.id === field.id)?.parameter);
    return parameter === undefined ? null : fieldValue(bindCell(parameter, row));
  });
  if (model.kind === 'decisionTable') {
    const judge = tableJudge(model);
    const choice = chooseRule(judge, values);
    const column = (place: number): number => judge.rules[place]?.column ?? 0;
    if (choice.kind === 'rule') return null;
    if (choice.kind === 'unknownValue') return { code: 'value_unknown', field: model.conditions.find((c) => c.id === choice.condition)?.name ?? '', text: choice.text };
    if (choice.kind === 'contradiction') return { code: 'contradiction', rules: [column(choice.places[0]), column(choice.places[1])] };
    return { code: choice.kind === 'impossible' ? 'impossible' : 'no_rule' };
  }
  if (model.kind !== 'combination') return null;
  const reading = readCombinationRow(combinationJudge(model), values);
  const name = (factor: number): string => model.factors[factor]?.name ?? '';
  if (reading.kind === 'unknownValue') return { code: 'value_unknown', field: name(reading.factor), text: reading.text };
  if (reading.kind === 'broken') return { code: 'constraint_broken', constraint: reading.constraint + 1 };
  return reading.kind === 'masked' ? { code: 'invalid_together', fields: reading.factors.map(name) } : null;
}
