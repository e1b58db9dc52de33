import type { CellText } from '../data/index.ts';

export type ParameterId = string & { readonly __brand: 'ParameterId' };

/** The one maker of parameter ids. */
export function parameterId(text: string): ParameterId {
  return text as ParameterId;
}

export const PARAMETER_TYPES = ['text', 'whole', 'decimal', 'date', 'time', 'dateTime', 'yesNo'] as const;
export type ParameterType = (typeof PARAMETER_TYPES)[number];

/** A named hole in texts, and a column of data. */
export interface Parameter {
  readonly id: ParameterId;
  /** As written between angle brackets. */
  readonly name: string;
  readonly type: ParameterType;
  /** A valid value, as a cell; empty when there is none. */
  readonly default: CellText;
  readonly description: string;
}
