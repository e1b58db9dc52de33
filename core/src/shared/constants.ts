import { parseParameterText } from '../cases/index.ts';

/** A value of the project's own that any text and any cell may use by its name: an address, an account, a limit. */
export interface Constant {
  readonly id: string;
  readonly name: string;
  readonly value: string;
  /** Masked on screens and never exported. */
  readonly secret: boolean;
  readonly description: string;
}

/** The project's constants, by name. */
export type Constants = ReadonlyMap<string, string>;

const SECRET_MASK = '••••••';

/** Constants by name, as they are used. Of several with one name the first counts. */
export function constantsByName(constants: readonly Constant[]): Constants {
  return new Map(constants.toReversed().map((c) => [c.name, c.value]));
}

/** The same as they may be seen: a secret one shows a mask. */
export function visibleConstants(constants: readonly Constant[]): Constants {
  return constantsByName(constants.map((c) => (c.secret ? { ...c, value: SECRET_MASK } : c)));
}

/** A cell with constants put in; other names stay as they stand. */
export function withConstants(cell: string, constants: Constants): string {
  if (constants.size === 0 || !cell.includes('<')) return cell;
  return parseParameterText(cell).map((part) => (part.kind === 'text' ? part.text : (constants.get(part.name) ?? `<${part.name}>`))).join('');
}
