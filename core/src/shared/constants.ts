import { parseParameterText } from '../cases/index.ts';

/** A value of the project's own that any text and any cell may use by its name: an address, an account, a limit. */
export interface Constant {
  readonly id: string;
  readonly name: string;
  readonly value: string;
  /** Masked on screens and never exported. */
  readonly secret: boolean;
  readonly description: string;
  /** Other values, by the configuration they hold in. */
  readonly others: Readonly<Record<string, string>>;
}

/** An environment to run in: named factors, as platform, browser or role, each with its value. */
export interface Configuration {
  readonly id: string;
  readonly name: string;
  readonly factors: readonly { readonly name: string; readonly value: string }[];
}

/** What a configuration is besides its name, in short; empty where the name says it already. */
export function configurationValues({ name, factors }: Pick<Configuration, 'name' | 'factors'>): string {
  const values = factors.map((f) => f.value).join(', ');
  return values === name ? '' : values;
}

/** The project's constants, by name. */
export type Constants = ReadonlyMap<string, string>;

/** Stands for a value that is kept and not shown. */
export const SECRET_MASK = '••••••';

/** Constants by name, as they are used in a configuration, or in none. Of several with one name the first counts. */
export function constantsByName(constants: readonly Constant[], configuration: Configuration['id'] | null = null): Constants {
  return new Map(constants.toReversed().map((c) => [c.name, (configuration === null ? undefined : c.others[configuration]) ?? c.value]));
}

/** The names that stand for another value than before, in some configuration: changed, new or gone. A new value of a secret is not seen. */
export function changedConstants(before: readonly Constant[], after: readonly Constant[]): string[] {
  const [was, is] = [before, after].map((constants) => new Map(constants.toReversed().map((c) => [c.name, saidOf(c)])));
  return [...new Set([...(was?.keys() ?? []), ...(is?.keys() ?? [])])].filter((name) => was?.get(name) !== is?.get(name)).sort();
}

function saidOf({ value, secret, others }: Constant): string {
  return JSON.stringify([value, secret, Object.entries(others).sort(([a], [b]) => (a < b ? -1 : 1))]);
}

/** The constants with a mask in place of what is secret. */
export function masked(constants: readonly Constant[]): Constant[] {
  return constants.map((c) => (c.secret ? { ...c, value: SECRET_MASK, others: {} } : c));
}

/** The same by name, as they may be seen. */
export function visibleConstants(constants: readonly Constant[], configuration: Configuration['id'] | null = null): Constants {
  return constantsByName(masked(constants), configuration);
}

/** A cell with constants put in; other names stay as they stand. */
export function withConstants(cell: string, constants: Constants): string {
  if (constants.size === 0 || !cell.includes('<')) return cell;
  return parseParameterText(cell).map((part) => (part.kind === 'text' ? part.text : (constants.get(part.name) ?? `<${part.name}>`))).join('');
}
