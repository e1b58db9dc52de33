import type { CaseCall, PlainStep, SharedUse, StepId } from '@caderno/core/cases';

export type StepPart = 'action' | 'expected';
export interface Focus {
  readonly step: StepId;
  readonly part: StepPart;
  readonly turn: number;
  /** The step is pointed at, not written in. */
  readonly rests: boolean;
}

/** What the keys in a step ask for. */
export type StepCommand =
  | { readonly kind: 'change'; readonly part: Partial<Pick<PlainStep, StepPart | 'attachments'>> }
  | { readonly kind: 'changeUse'; readonly part: Partial<SharedUse> | Partial<CaseCall> }
  | { readonly kind: 'append' }
  | { readonly kind: 'insert' }
  | { readonly kind: 'remove' }
  | { readonly kind: 'go'; readonly part: StepPart }
  | { readonly kind: 'neighbour'; readonly direction: -1 | 1; readonly part: StepPart }
  | { readonly kind: 'move'; readonly direction: -1 | 1; readonly part: StepPart }
  | { readonly kind: 'paste'; readonly data: DataTransfer };

/** Carries out a command at a step (null: at the end); answers whether there was anything to do. */
export type Act = (at: StepId | null, command: StepCommand) => boolean;
