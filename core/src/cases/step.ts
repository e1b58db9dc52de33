import type { CaseId, Pin, SharedId } from '../artefacts/index.ts';
import type { CellText } from '../data/index.ts';
import type { Attachment } from '../attachments/index.ts';
import type { RowId } from './row.ts';

export type StepId = string & { readonly __brand: 'StepId' };

/** The one maker of step ids. */
export function stepId(text: string): StepId {
  return text as StepId;
}

/** A line of a case or of shared steps: written there, or a use of what is written elsewhere. */
export type Step = PlainStep | Use;
export type Use = SharedUse | CaseCall;

/** An action and, if not empty, its expected result; both may hold parameters. */
export interface PlainStep {
  readonly kind: 'step';
  readonly id: StepId;
  readonly action: string;
  readonly expected: string;
  /** Pictures that are seen beside it. */
  readonly attachments: readonly Attachment[];
}

/** A step as it is written first. */
export function plainStep(id: StepId, action: string, expected = ''): PlainStep {
  return { kind: 'step', id, action, expected, attachments: [] };
}

/** Shared steps stand here. */
export interface SharedUse {
  readonly kind: 'shared';
  readonly id: StepId;
  readonly shared: SharedId;
  readonly pinned: Pin;
  readonly arguments: readonly Argument[];
}

/** Another case is run here. */
export interface CaseCall {
  readonly kind: 'call';
  readonly id: StepId;
  readonly case: CaseId;
  readonly pinned: Pin;
  readonly rows: CalledRows;
  readonly arguments: readonly Argument[];
}

/** Where the values of a called case come from: one of its rows, chosen ones or all that run there in turn, or the caller alone. */
export type CalledRows = { readonly kind: 'own'; readonly row: RowId } | { readonly kind: 'chosen'; readonly rows: readonly RowId[] } | { readonly kind: 'every' } | { readonly kind: 'mine' };

/**
 * What the caller gives to a parameter of what it uses: a text in which parameters of the caller may stand, or
 * `(missing)`. The parameter is named, not identified: it may be one that surfaces from further down. A parameter
 * without an argument takes the caller's of the same name.
 */
export interface Argument {
  /** The parameter's name. */
  readonly id: string;
  readonly value: CellText;
}

export function isUse(step: Step): step is Use {
  return step.kind !== 'step';
}

export function isPlainStep(step: Step): step is PlainStep {
  return step.kind === 'step';
}

/** What a use leads to. */
export function usedBy(use: Use): SharedId | CaseId {
  return use.kind === 'shared' ? use.shared : use.case;
}

/** Whether a step says what is expected. */
export function expects(step: Step): boolean {
  return step.kind === 'step' && step.expected.trim() !== '';
}

/** The texts of a step in which parameters may stand, in reading order. */
export function textsOfStep(step: Step): readonly string[] {
  return step.kind === 'step' ? [step.action, step.expected] : step.arguments.map((a) => a.value);
}

/** The step with each of its texts replaced. */
export function withTexts<S extends Step>(step: S, change: (text: string) => string): S {
  return step.kind === 'step' ? { ...step, action: change(step.action), expected: change(step.expected) } : { ...step, arguments: step.arguments.map((a) => ({ ...a, value: change(a.value) })) };
}
