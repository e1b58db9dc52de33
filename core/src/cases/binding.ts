import { isPlainCell, readCell } from '../data/index.ts';
import { parseParameterText } from './parameterText.ts';
import type { Parameter, ParameterId } from './parameter.ts';
import type { Row, RowId } from './row.ts';
import type { CaseContent } from './testCase.ts';

/** What a parameter is bound to in an instance. */
export type BoundValue =
  | { readonly kind: 'value'; readonly text: string; readonly from: 'row' | 'default' }
  /** The row says there is no value, on purpose. */
  | { readonly kind: 'missing' }
  /** Looked for in the row, then the default, and not found. */
  | { readonly kind: 'unbound' };

/** A case with one row bound: what would be executed once. A case without rows has one instance, without a row. */
export interface Instance {
  readonly row: RowId | null;
  readonly rowName: string;
  readonly values: ReadonlyMap<ParameterId, BoundValue>;
}

/** The instances of a case, in the order of its rows. */
export function caseInstances(content: Pick<CaseContent, 'rows' | 'parameters'>): Instance[] {
  if (content.rows.length === 0) return [{ row: null, rowName: '', values: bindRow(content.parameters, null) }];
  return content.rows.map((row) => ({ row: row.id, rowName: row.name, values: bindRow(content.parameters, row) }));
}

/** Binds every declared parameter: the row first, then the parameter's default. */
export function bindRow(parameters: readonly Parameter[], row: Row | null): Map<ParameterId, BoundValue> {
  return new Map(parameters.map((p) => [p.id, bindCell(p, row)]));
}

/** Binds one parameter. */
export function bindCell(parameter: Parameter, row: Row | null): BoundValue {
  const cell = row?.cells[parameter.id] ?? '';
  // Almost all cells are plain texts, and a project has a million of them.
  if (isPlainCell(cell)) return { kind: 'value', text: cell, from: 'row' };
  const own = readCell(cell);
  if (own.kind === 'missing') return own;
  if (own.kind === 'text') return { kind: 'value', text: own.text, from: 'row' };
  const given = readCell(parameter.default);
  return given.kind === 'text' ? { kind: 'value', text: given.text, from: 'default' } : { kind: 'unbound' };
}

/** A part of a text with values in place. `undeclared`: the name stands in no parameter of the case. */
export type BoundPart =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'parameter'; readonly name: string; readonly value: BoundValue | { readonly kind: 'undeclared' } };

/** Puts an instance's values into a text. */
export function bindText(text: string, parameters: readonly Parameter[], values: ReadonlyMap<ParameterId, BoundValue>): BoundPart[] {
  return parseParameterText(text).map((part): BoundPart => {
    if (part.kind === 'text') return part;
    const declared = parameters.find((p) => p.name === part.name);
    const value = declared === undefined ? ({ kind: 'undeclared' } as const) : (values.get(declared.id) ?? ({ kind: 'unbound' } as const));
    return { kind: 'parameter', name: part.name, value };
  });
}
