import type { Attached } from '../attachments/index.ts';
import type { CaseContent } from '../cases/index.ts';

/** What is attached to a case and to steps written in it: that of the case first, then that of its steps. */
export function attachedOf({ attachments, steps }: CaseContent): Attached[] {
  return [...attachments.map((attachment) => ({ step: null, attachment })), ...steps.flatMap((step, i) => (step.kind === 'step' ? step.attachments.map((attachment) => ({ step: i + 1, attachment })) : []))];
}
