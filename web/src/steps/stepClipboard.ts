import { parametersIn, textsOfStep, type Parameter, type Step } from '@caderno/core/cases';
import { carriedStepsSchema, type CarriedSteps } from '@caderno/contract';

const TYPE = 'application/x-caderno-steps';

/** Puts steps on the clipboard: as they are, with the parameters they name, and as text for every other program. */
export function putSteps(data: Pick<DataTransfer, 'setData'>, project: string, steps: readonly Step[], parameters: readonly Parameter[]): void {
  const named = new Set(steps.flatMap(textsOfStep).flatMap(parametersIn));
  const carried = { project, steps, parameters: parameters.filter((p) => named.has(p.name)) };
  data.setData(TYPE, JSON.stringify(carried));
  data.setData('text/plain', steps.map(lineOf).join('\n'));
}

/** The steps on the clipboard, if they are of this project: what uses lead to and attached files are known in it only. */
export function takeSteps(data: Pick<DataTransfer, 'getData'>, project: string): CarriedSteps | null {
  const text = data.getData(TYPE);
  if (text === '') return null;
  const read = carriedStepsSchema.safeParse(parsed(text));
  return read.success && read.data.project === project ? read.data : null;
}

/** Any page may put anything there. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}

/** Action and expectation in two cells. */
function lineOf(step: Step): string {
  if (step.kind !== 'step') return step.kind === 'shared' ? step.shared : step.case;
  return step.expected === '' ? step.action : `${step.action}\t${step.expected}`;
}
