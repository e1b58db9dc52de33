import { parsePastedSteps, stepId, type CaseContent, type Step, type StepId } from '@caderno/core/cases';

/** Edits of the list of steps. Each returns the case unchanged when there is nothing to do. */
export function newStep(action = '', expected = ''): Step {
  return { kind: 'step', id: stepId(crypto.randomUUID().slice(0, 8)), action, expected };
}

export function withStep(content: CaseContent, id: StepId, part: Partial<Pick<Step, 'action' | 'expected'>>): CaseContent {
  return { ...content, steps: content.steps.map((s) => (s.id === id ? { ...s, ...part } : s)) };
}

export function insertStep(content: CaseContent, after: StepId | null, step: Step): CaseContent {
  const at = content.steps.findIndex((s) => s.id === after) + 1;
  return { ...content, steps: [...content.steps.slice(0, at), step, ...content.steps.slice(at)] };
}

/** Without the step; the links that named its expected result name it no longer. */
export function removeStep(content: CaseContent, id: StepId): CaseContent {
  const covers = content.covers.map((c) => (c.expects.includes(id) ? { ...c, expects: c.expects.filter((e) => e !== id) } : c));
  return { ...content, covers, steps: content.steps.filter((s) => s.id !== id) };
}

export function moveStep(content: CaseContent, id: StepId, direction: -1 | 1): CaseContent {
  const from = content.steps.findIndex((s) => s.id === id);
  const to = from + direction;
  const [step, other] = [content.steps[from], content.steps[to]];
  if (step === undefined || other === undefined) return content;
  return { ...content, steps: content.steps.map((s, i) => (i === from ? other : i === to ? step : s)) };
}

/** Pasted text as new steps. */
export function pastedSteps(text: string): Step[] {
  return parsePastedSteps(text).map((s) => newStep(s.action, s.expected));
}

/** Puts steps in after one; an empty step there is replaced. */
export function insertSteps(content: CaseContent, at: StepId | null, steps: readonly Step[]): CaseContent {
  let result = content;
  let after = at;
  for (const step of steps) {
    result = insertStep(result, after, step);
    after = step.id;
  }
  const place = content.steps.find((s) => s.id === at);
  return place !== undefined && place.action === '' && place.expected === '' && steps.length > 0 ? removeStep(result, place.id) : result;
}
