import type { CaseId, SharedId } from '@caderno/core/artefacts';
import { stepId, plainStep, type PastedStep, type PlainStep, type Step, type StepId, type Use, type Written } from '@caderno/core/cases';

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

export function removeSteps(ids: readonly StepId[]): StepsEdit {
  return (content) => ({ ...content, steps: content.steps.filter((s) => !ids.includes(s.id)) });
}

/** Each of the steps one place up or down; what stands at the end stays there. */
export function moveSteps(ids: readonly StepId[], direction: -1 | 1): StepsEdit {
  return (content) => {
    const steps = direction === -1 ? [...content.steps] : content.steps.toReversed();
    for (let at = 1; at < steps.length; at += 1) {
      const [before, step] = [steps[at - 1], steps[at]];
      if (before !== undefined && step !== undefined && ids.includes(step.id) && !ids.includes(before.id)) [steps[at - 1], steps[at]] = [step, before];
    }
    const moved = direction === -1 ? steps : steps.toReversed();
    return moved.every((step, i) => step === content.steps[i]) ? content : { ...content, steps: moved };
  };
}

/** The same steps under ids of their own. */
export function freshSteps(steps: readonly Step[]): Step[] {
  return steps.map((step) => ({ ...step, id: newStepId() }));
}

/** Pasted lines as new steps. */
export function writtenSteps(pasted: readonly PastedStep[]): PlainStep[] {
  return pasted.map((s) => newStep(s.action, s.expected));
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
