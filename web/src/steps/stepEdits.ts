import type { CaseId, SharedId } from '@caderno/core/artefacts';
import { parsePastedSteps, stepId, plainStep, type PlainStep, type Step, type StepId, type Use, type Written } from '@caderno/core/cases';

/** An edit of steps, whatever they stand in. */
export type StepsEdit = <W extends Written>(content: W) => W;

/** Edits of the list of steps. Each returns the content unchanged when there is nothing to do. */
export function newStep(action = '', expected = ''): PlainStep {
  return plainStep(newStepId(), action, expected);
}

export function newStepId(): StepId {
  return stepId(crypto.randomUUID().slice(0, 8));
}

/** The step with parts of it replaced, if it is of that kind. */
export function withStep<S extends Step>(id: StepId, kind: S['kind'], part: Partial<S>): StepsEdit {
  return (content) => ({ ...content, steps: content.steps.map((s) => (s.id === id && s.kind === kind ? { ...s, ...part } : s)) });
}

export function insertStep(after: StepId | null, step: Step): StepsEdit {
  return (content) => ({ ...content, steps: content.steps.toSpliced(content.steps.findIndex((s) => s.id === after) + 1, 0, step) });
}

export function removeStep(id: StepId): StepsEdit {
  return (content) => ({ ...content, steps: content.steps.filter((s) => s.id !== id) });
}

export function moveStep(id: StepId, direction: -1 | 1): StepsEdit {
  return (content) => {
    const from = content.steps.findIndex((s) => s.id === id);
    const to = from + direction;
    const [step, other] = [content.steps[from], content.steps[to]];
    if (step === undefined || other === undefined) return content;
    return { ...content, steps: content.steps.map((s, i) => (i === from ? other : i === to ? step : s)) };
  };
}

/** Pasted text as new steps. */
export function pastedSteps(text: string): PlainStep[] {
  return parsePastedSteps(text).map((s) => newStep(s.action, s.expected));
}

/** Puts steps in after one; an empty step there is replaced. */
export function insertSteps(at: StepId | null, steps: readonly Step[]): StepsEdit {
  return (content) => {
    const place = content.steps.findIndex((s) => s.id === at);
    const here = content.steps[place];
    const replaces = here?.kind === 'step' && here.action === '' && here.expected === '' && steps.length > 0;
    return { ...content, steps: content.steps.toSpliced(replaces ? place : place + 1, replaces ? 1 : 0, ...steps) };
  };
}

/** A use of shared steps or a call, taking its values from the caller by their names. */
export function newUse(id: SharedId | CaseId): Use {
  const base = { id: newStepId(), pinned: null, arguments: [] };
  return isShared(id) ? { kind: 'shared', shared: id, ...base } : { kind: 'call', case: id, rows: { kind: 'mine' }, ...base };
}

function isShared(id: SharedId | CaseId): id is SharedId {
  return id.startsWith('S-');
}
