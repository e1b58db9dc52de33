import { isUse, type CaseContent, type PlainStep, type Row, type Step, type Use } from '../cases/index.ts';
import { countExpanded } from './counting.ts';
import { DEEPEST, keyOfUse, type Library, type Used } from './library.ts';
import { Scope, type BoundRows, type Constants, type OpenedPart } from './scope.ts';

/** A use that is open, and what it leads to. */
export interface OpenedUse {
  readonly use: Use;
  readonly used: Used;
}

/** A line of an opened case. `through`: the uses it stands in, from the case inwards. */
export type OpenedStep =
  | { readonly kind: 'step'; readonly step: PlainStep; readonly through: readonly OpenedUse[]; readonly scope: Scope }
  /** What the use leads to is gone. */
  | { readonly kind: 'gone'; readonly step: Use; readonly through: readonly OpenedUse[]; readonly scope: Scope };

/** One execution of a case: a row of its own, and one of each call that runs every row. */
export interface OpenedInstance {
  readonly number: bigint;
  /** Null: without a row. */
  readonly rows: readonly (Row | null)[];
}

/** A case with all its uses opened. Values are those of the instance that was bound last. */
export interface OpenedCase {
  readonly steps: readonly OpenedStep[];
  /** The scope of the case itself. */
  readonly scope: Scope;
  readonly instances: bigint;
  /** Binds an instance, from 0. @throws RangeError beyond the last. */
  bind(number: bigint): OpenedInstance;
}

/** Why a case is not opened. */
export type NotOpened = { readonly kind: 'tooDeep'; readonly most: number } | { readonly kind: 'tooLong'; readonly steps: bigint; readonly most: number };

/** An instance with more steps is not opened. */
export const MOST_OPENED_STEPS = 50_000;

/** Opens a case: its steps with those of all it uses in their place, by the binding rules. */
export function openCase(content: CaseContent, library: Library, constants: Constants = new Map()): ({ readonly kind: 'opened' } & OpenedCase) | NotOpened {
  const count = countExpanded(content, library);
  if (count.depth > DEEPEST) return { kind: 'tooDeep', most: DEEPEST };
  if (count.steps > BigInt(MOST_OPENED_STEPS)) return { kind: 'tooLong', steps: count.steps, most: MOST_OPENED_STEPS };
  const own: BoundRows = { rows: rowsToRun(content), at: 0 };
  const scope = new Scope(null, content.parameters, own, constants);
  const opening: Opening = { library, constants, steps: [], scopes: [scope], wheels: [own] };
  openSteps(opening, content.steps, scope, []);
  const { steps, scopes, wheels } = opening;
  return { kind: 'opened', steps, scope, instances: count.instances, bind: (number) => bind(number, wheels, scopes) };
}

interface Opening {
  readonly library: Library;
  readonly constants: Constants;
  readonly steps: OpenedStep[];
  readonly scopes: Scope[];
  /** The rows that turn from instance to instance; the last turns fastest. */
  readonly wheels: BoundRows[];
}

function openSteps(opening: Opening, steps: readonly Step[], scope: Scope, through: readonly OpenedUse[]): void {
  for (const step of steps) {
    if (!isUse(step)) opening.steps.push({ kind: 'step', step, through, scope });
    else openUse(opening, step, scope, through);
  }
}

function openUse(opening: Opening, use: Use, caller: Scope, through: readonly OpenedUse[]): void {
  const used = opening.library.get(keyOfUse(use));
  if (used === undefined) {
    opening.steps.push({ kind: 'gone', step: use, through, scope: caller });
    return;
  }
  const rows = calledRows(use, used);
  if (use.kind === 'call' && use.rows.kind === 'every' && rows !== null) opening.wheels.push(rows);
  const scope = new Scope({ scope: caller, use }, used.content.parameters, rows, opening.constants);
  opening.scopes.push(scope);
  openSteps(opening, used.content.steps, scope, [...through, { use, used }]);
}

/** Null: no row of what is used takes part. A row that is gone gives nothing, which is marked at the call. */
function calledRows(use: Use, used: Used): BoundRows | null {
  if (use.kind === 'shared' || used.kind === 'shared' || use.rows.kind === 'mine') return null;
  const { rows } = use;
  if (rows.kind === 'every') return { rows: rowsToRun(used.content), at: 0 };
  return { rows: used.content.rows.filter((r) => r.id === rows.row), at: 0 };
}

function rowsToRun(content: Pick<CaseContent, 'rows'>): readonly (Row | null)[] {
  return content.rows.length === 0 ? [null] : content.rows;
}

function bind(number: bigint, wheels: readonly BoundRows[], scopes: readonly Scope[]): OpenedInstance {
  let rest = number;
  for (const wheel of wheels.toReversed()) {
    const size = BigInt(wheel.rows.length);
    wheel.at = Number(rest % size);
    rest /= size;
  }
  if (number < 0n || rest > 0n) throw new RangeError(`An instance is numbered from 0 to one below their count: got ${number}`);
  for (const scope of scopes) scope.forget();
  return { number, rows: wheels.map((w) => w.rows[w.at] ?? null) };
}

/** Instances from one on, one at a time: the bindings of an instance hold until the next is asked for. */
export function* instancesOf(opened: OpenedCase, from = 0n): Generator<OpenedInstance> {
  for (let number = from; number < opened.instances; number += 1n) yield opened.bind(number);
}

/** The name of an instance: of its rows, those that have one. */
export function instanceName({ rows }: OpenedInstance): string {
  return rows.flatMap((row) => (row === null || row.name === '' ? [] : [row.name])).join(' · ');
}

/** A text with values in place as plain text; what has no value stands as `<name>`. */
export function openedText(parts: readonly OpenedPart[]): string {
  return parts.map((part) => (part.kind === 'text' ? part.text : part.value.kind === 'value' ? part.value.text : `<${part.name}>`)).join('');
}
