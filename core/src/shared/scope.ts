import { parseParameterText, type BoundValue, type Parameter, type Row, type TextPart, type Use } from '../cases/index.ts';
import { withConstants, type Constants } from './constants.ts';
import { MISSING_CELL, isPlainCell, readCell } from '../data/index.ts';

/**
 * What a parameter is bound to where steps are opened: as in a case, and by the caller or a constant of the project.
 * `argumentOpen`: the caller gives an argument in which something has no value. No default stands in for it, here or
 * further down: what was asked for is missing.
 */
export type OpenedValue = BoundValue | { readonly kind: 'value'; readonly text: string; readonly from: 'caller' | 'constant' } | typeof ARGUMENT_OPEN;

const ARGUMENT_OPEN = { kind: 'unbound', argumentOpen: true } as const;

/** A part of a text with values in place. */
export type OpenedPart =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'parameter'; readonly name: string; readonly value: OpenedValue | { readonly kind: 'undeclared' } };

/** The rows a scope takes its values from, and which of them is bound now. */
export interface BoundRows {
  readonly rows: readonly (Row | null)[];
  at: number;
}

/**
 * Where names are looked up: one for the case itself, one for each use that is opened. The order is the row, what the
 * caller gives, the parameter's default, the project's constants. Answers are kept until a row is bound anew.
 */
export class Scope {
  readonly #caller: Scope | null;
  readonly #parameters: ReadonlyMap<string, Parameter>;
  readonly #arguments: ReadonlyMap<string, string>;
  readonly #rows: BoundRows | null;
  readonly #constants: Constants;
  readonly #known = new Map<string, OpenedValue | null>();
  /** Texts cut at their parameters: the same ones are opened for every instance. */
  readonly #cut = new Map<string, readonly TextPart[]>();
  readonly #opened = new Map<string, readonly OpenedPart[]>();

  constructor(caller: { readonly scope: Scope; readonly use: Use } | null, parameters: readonly Parameter[], rows: BoundRows | null, constants: Constants) {
    this.#caller = caller?.scope ?? null;
    this.#parameters = new Map(parameters.toReversed().map((p) => [p.name, p]));
    this.#arguments = new Map((caller?.use.arguments ?? []).filter((a) => a.value !== '').map((a) => [a.id, a.value]));
    this.#rows = rows;
    this.#constants = constants;
  }

  /** Forgets what was looked up: a row was bound anew, here or in a caller. */
  forget(): void {
    this.#known.clear();
    this.#opened.clear();
  }

  /** What a name comes to for what is used here: also one that is only handed through from the caller. Null when nothing knows it. */
  #valueOf(name: string): OpenedValue | null {
    const known = this.#known.get(name);
    if (known !== undefined) return known;
    const value = this.#find(name);
    this.#known.set(name, value);
    return value;
  }

  /** What a name means in a text that stands here: a parameter that is declared here, or a constant. */
  meaningOf(name: string): OpenedValue | { readonly kind: 'undeclared' } {
    if (this.#parameters.has(name)) return this.#valueOf(name) ?? { kind: 'unbound' };
    const constant = this.#constants.get(name);
    return constant === undefined ? { kind: 'undeclared' } : { kind: 'value', text: constant, from: 'constant' };
  }

  /** A text with values in place. */
  open(text: string): readonly OpenedPart[] {
    const known = this.#opened.get(text);
    if (known !== undefined) return known;
    const parts = this.#cut.get(text) ?? parseParameterText(text);
    this.#cut.set(text, parts);
    const opened = parts.map((part): OpenedPart => (part.kind === 'text' ? part : { kind: 'parameter', name: part.name, value: this.meaningOf(part.name) }));
    this.#opened.set(text, opened);
    return opened;
  }

  #find(name: string): OpenedValue | null {
    const parameter = this.#parameters.get(name);
    const own = parameter === undefined ? null : (this.#fromRow(parameter) ?? this.#fromCaller(name) ?? this.#fromDefault(parameter));
    const value = own ?? (parameter === undefined ? this.#fromCaller(name) : null);
    if (value !== null) return value;
    const constant = this.#constants.get(name);
    if (constant !== undefined) return { kind: 'value', text: constant, from: 'constant' };
    return parameter === undefined ? null : { kind: 'unbound' };
  }

  #fromRow(parameter: Parameter): OpenedValue | null {
    const cell = this.#rows?.rows[this.#rows.at]?.cells[parameter.id] ?? '';
    if (isPlainCell(cell)) return { kind: 'value', text: withConstants(cell, this.#constants), from: 'row' };
    const read = readCell(cell);
    return read.kind === 'notGiven' ? null : read.kind === 'missing' ? read : { kind: 'value', text: read.text, from: 'row' };
  }

  #fromDefault(parameter: Parameter): OpenedValue | null {
    const read = readCell(parameter.default);
    return read.kind === 'text' ? { kind: 'value', text: withConstants(read.text, this.#constants), from: 'default' } : null;
  }

  /** An argument, put together of the caller's values; without one, the caller's value of the same name. */
  #fromCaller(name: string): OpenedValue | null {
    if (this.#caller === null) return null;
    const argument = this.#arguments.get(name);
    if (argument === undefined) {
      const same = handedDown(this.#caller.#valueOf(name));
      // A constant is everybody's last resort, not something the caller gives.
      return same?.kind === 'value' && same.from === 'constant' ? null : same;
    }
    if (argument === MISSING_CELL) return { kind: 'missing' };
    const parts = this.#caller.open(argument);
    const [only] = parts;
    if (parts.length === 1 && only?.kind === 'parameter') return handedDown(only.value.kind === 'undeclared' ? null : only.value) ?? ARGUMENT_OPEN;
    let text = '';
    for (const part of parts) {
      if (part.kind === 'parameter' && part.value.kind !== 'value') return ARGUMENT_OPEN;
      text += part.kind === 'text' ? part.text : part.value.kind === 'value' ? part.value.text : '';
    }
    return { kind: 'value', text, from: 'caller' };
  }
}

/** What a caller does not know itself it does not give. */
function handedDown(value: OpenedValue | null): OpenedValue | null {
  if (value === null || value === ARGUMENT_OPEN) return value;
  if (value.kind === 'unbound') return null;
  return value.kind === 'value' && value.from !== 'constant' ? { kind: 'value', text: value.text, from: 'caller' } : value;
}
