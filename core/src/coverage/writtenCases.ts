import { EMPTY_CASE, parameterId, plainStep, stepId, type CarriedEvent, type CaseContent, type Step } from '../cases/index.ts';
import { carriedFields, eventWords, stateName, type StatePath, type StateTransitionsModel } from '../conditions/index.ts';
import { addProposedRows, coverOf, mapFields, withCover, type NewId, type SeenCondition } from './addRows.ts';
import type { GapFilling } from './gapFilling.ts';
import type { Filling, ProposedRow } from './rowsMade.ts';

const LONGEST_TITLE = 200;
const OUTCOME = 'outcome';

/** Whether what is written is to be a case, or a scenario: there each step says one thing, in the middle of a sentence. */
export type WrittenAs = 'case' | 'scenario';

/**
 * The cases that would show what a filling is for: one with a row for each proposed row (or, one per item, a case for
 * each), one per path, and one for what a plain condition expects. Steps say what is given and what is expected, from
 * the model's names and outcomes; they are a beginning to be edited.
 */
export function writtenCases(condition: SeenCondition, filling: GapFilling, how: Filling, module: string, newId: NewId, as: WrittenAs = 'case'): CaseContent[] {
  const empty = { ...EMPTY_CASE, title: condition.content.title, module };
  const groups = filling.rows.length === 0 ? [] : how === 'onePerItem' ? filling.rows.map((row) => [row]) : [filling.rows];
  return [
    ...groups.map((rows) => rowsCase(how === 'onePerItem' ? { ...empty, title: titled(condition, rows[0]?.name ?? '') } : empty, condition, rows, newId, as)),
    ...filling.paths.map((path) => pathCase(empty, condition, path, newId, as)),
    ...(filling.expectations.length > 0 ? [expectationCase(empty, condition, newId)] : []),
  ];
}

function titled({ content }: SeenCondition, what: string): string {
  return `${content.title}: ${what}`.slice(0, LONGEST_TITLE);
}

function rowsCase(empty: CaseContent, condition: SeenCondition, rows: readonly ProposedRow[], newId: NewId, as: WrittenAs): CaseContent {
  const mapped = mapFields(empty, condition, newId);
  const hasOutcome = rows.some((r) => r.outcome !== '');
  const outcome = { id: parameterId(newId()), name: OUTCOME, type: 'text' as const, default: '', description: `What ${condition.id} says happens` };
  const names = carriedFields(condition.content.model).flatMap((field) => {
    const carrier = coverOf(mapped, condition).fields.find((f) => f.id === field.id)?.parameter;
    return mapped.parameters.find((p) => p.id === carrier)?.name ?? [];
  });
  const actions = as === 'case' ? [`Give ${names.map((n) => `<${n}>`).join(', ')}`] : names.map((n) => `${n} is <${n}>`);
  const steps = actions.map((action, i): Step => plainStep(stepId(newId()), action, hasOutcome && i === actions.length - 1 ? `<${OUTCOME}>` : ''));
  const cover = { ...coverOf(mapped, condition), outcome: hasOutcome ? outcome.id : null, expects: steps.slice(-1).map((step) => step.id) };
  const written = withCover({ ...mapped, steps, parameters: hasOutcome ? [...mapped.parameters, outcome] : mapped.parameters }, cover);
  return addProposedRows(written, condition, rows, newId);
}

function pathCase(empty: CaseContent, condition: SeenCondition, path: StatePath, newId: NewId, as: WrittenAs): CaseContent {
  const { model } = condition.content;
  if (model.kind !== 'stateTransitions') return empty;
  const steps = pathSteps(model, path, newId, as);
  const states = [path.start, ...path.transitions.map((t) => t.to)].map((id) => stateName(model, id));
  const refused = path.refused === null ? '' : `, ${eventWords(model, { event: path.refused, guard: '' })} refused`;
  const title = titled(condition, `${states.join(' → ')}${refused}`);
  const cover = { ...coverOf(empty, condition), events: steps.map((s) => s.carried), expects: steps.map((s) => s.step.id) };
  return withCover({ ...empty, title, preconditions: as === 'case' ? `It is ${states[0] ?? ''}.` : `it is ${states[0] ?? ''}`, steps: steps.map((s) => s.step) }, cover);
}

/** One step per event, with the state that follows as its expected result. */
export function pathSteps(model: StateTransitionsModel, path: StatePath, newId: NewId, as: WrittenAs = 'case'): { readonly step: Step; readonly carried: CarriedEvent }[] {
  const begun = as === 'case' ? capital : (text: string): string => text;
  const taken = path.transitions.map((t) => {
    const id = stepId(newId());
    const expected = begun(`it is ${stateName(model, t.to)}${t.action === '' ? '' : `; ${t.action}`}`);
    return { step: plainStep(id, begun(eventWords(model, t)), expected), carried: { id, event: t.event, transition: t.id } };
  });
  if (path.refused === null) return taken;
  const id = stepId(newId());
  const state = path.transitions.at(-1)?.to ?? path.start;
  const action = begun(eventWords(model, { event: path.refused, guard: '' }));
  return [...taken, { step: plainStep(id, action, begun(`it is refused; it stays ${stateName(model, state)}`)), carried: { id, event: path.refused, transition: null } }];
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A plain condition's title says what is to be seen; it stands as the expected result until it is put better. */
function expectationCase(empty: CaseContent, condition: SeenCondition, newId: NewId): CaseContent {
  const step: Step = plainStep(stepId(newId()), '', condition.content.title);
  return withCover({ ...empty, steps: [step] }, { ...coverOf(empty, condition), expects: [step.id] });
}
