import type { CaseId } from '../artefacts/index.ts';
import { isUse, type CaseContent, type PlainStep, type Row, type RowId, type Step, type Use } from '../cases/index.ts';
import { countExpanded } from './counting.ts';
import { DEEPEST, stepsUsed, type Library, type UsedSteps } from './library.ts';
import { calledRuns, runsOf } from './rows.ts';
import type { Constants } from './constants.ts';
import { Scope, type BoundRows, type OpenedPart } from './scope.ts';

/** A use that is open, and what it leads to. */
export interface OpenedUse {
  readonly use: Use;
  readonly used: UsedSteps;
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

/** A case in what is opened, the outermost or one that is called: where its steps stand, and what its names mean. */
export interface OpenedPlace {
  /** Null: the case that is opened itself. */
  readonly id: CaseId | null;
  readonly content: CaseContent;
  readonly scope: Scope;
  /** How many uses lead to it. */
  readonly depth: number;
  /** Its steps and those of all it uses: from this place among the steps, up to another that is not among them. */
  readonly from: number;
  readonly to: number;
  /** The rows its values depend on: places among the wheels that {@link OpenedCase.turn} sets. */
  readonly wheels: readonly number[];
}

/** A case with all its uses opened. Values are those of the instance that was bound last. */
export interface OpenedCase {
  readonly steps: readonly OpenedStep[];
  /** The case itself, then those that are called, in order of their first steps. */
  readonly cases: readonly OpenedPlace[];
  /** How many rows each wheel has; the first are those of the case itself. */
  readonly wheels: readonly number[];
  /** Binds a row of one wheel, and leaves the others as they are. */
  turn(wheel: number, row: number): void;
  /** The scope of the case itself. */
  readonly scope: Scope;
  readonly instances: bigint;
  /** Binds an instance, from 0. @throws RangeError beyond the last. */
  bind(number: bigint): OpenedInstance;
}

/** Why a case is not opened. */
export type NotOpened = { readonly kind: 'tooDeep'; readonly most: number } | { readonly kind: 'tooLong'; readonly steps: bigint; readonly most: number };

/** An instance with more steps is not opened. */
const MOST_OPENED_STEPS = 50_000;

/** Opens a case: its steps with those of all it uses in their place, by the binding rules. */
export function openCase(content: CaseContent, library: Library, constants: Constants = new Map()): ({ readonly kind: 'opened' } & OpenedCase) | NotOpened {
  const count = countExpanded(content, library);
  if (count.depth > DEEPEST) return { kind: 'tooDeep', most: DEEPEST };
  if (count.steps > BigInt(MOST_OPENED_STEPS)) return { kind: 'tooLong', steps: count.steps, most: MOST_OPENED_STEPS };
  const own: BoundRows = { rows: runsOf(content, library), at: 0 };
  const scope = new Scope(null, content.parameters, own, constants);
  const opening: Opening = { library, constants, steps: [], scopes: [{ scope, wheels: [0] }], wheels: [own], cases: [] };
  openCaseSteps(opening, null, content, { scope, through: [], wheels: [0] });
  const { steps, scopes, wheels, cases } = opening;
  return {
    kind: 'opened',
    steps,
    scope,
    cases: cases.toSorted((a, b) => a.from - b.from || b.to - a.to),
    wheels: wheels.map((w) => w.rows.length),
    instances: count.instances,
    bind: (number) => bind(number, wheels, scopes),
    turn: (wheel, row) => turn(wheel, wheels[wheel], row, scopes),
  };
}

interface Opening {
  readonly library: Library;
  readonly constants: Constants;
  readonly steps: OpenedStep[];
  /** With the wheels that its values depend on. */
  readonly scopes: DependentScope[];
  /** The rows that turn from instance to instance; the last turns fastest. */
  readonly wheels: BoundRows[];
  readonly cases: OpenedPlace[];
}

interface DependentScope {
  readonly scope: Scope;
  readonly wheels: readonly number[];
}

/** Where one is while opening. */
interface Inside {
  readonly scope: Scope;
  readonly through: readonly OpenedUse[];
  readonly wheels: readonly number[];
}

function openCaseSteps(opening: Opening, id: CaseId | null, content: CaseContent, inside: Inside): void {
  const from = opening.steps.length;
  openSteps(opening, content.steps, inside);
  opening.cases.push({ id, content, scope: inside.scope, depth: inside.through.length, from, to: opening.steps.length, wheels: inside.wheels });
}

function openSteps(opening: Opening, steps: readonly Step[], inside: Inside): void {
  for (const step of steps) {
    if (!isUse(step)) opening.steps.push({ kind: 'step', step, through: inside.through, scope: inside.scope });
    else openUse(opening, step, inside);
  }
}

function openUse(opening: Opening, use: Use, { scope: caller, through, wheels }: Inside): void {
  const used = stepsUsed(opening.library, use);
  if (used === undefined) {
    opening.steps.push({ kind: 'gone', step: use, through, scope: caller });
    return;
  }
  const rows = calledRows(use, used, opening.library);
  const turns = use.kind === 'call' && use.rows.kind !== 'own' && rows !== null;
  if (turns) opening.wheels.push(rows);
  const scope = new Scope({ scope: caller, use }, used.content.parameters, rows, opening.constants);
  const inside: Inside = { scope, through: [...through, { use, used }], wheels: turns ? [...wheels, opening.wheels.length - 1] : wheels };
  opening.scopes.push({ scope, wheels: inside.wheels });
  if (used.kind === 'case') openCaseSteps(opening, used.id, used.content, inside);
  else openSteps(opening, used.content.steps, inside);
}

/** Null: no row of what is used takes part. A row that is gone gives nothing, which is marked at the call. */
function calledRows(use: Use, used: UsedSteps, library: Library): BoundRows | null {
  const rows = use.kind === 'shared' || used.kind === 'shared' ? null : calledRuns(used.content, use.rows, library);
  return rows === null ? null : { rows, at: 0 };
}

function bind(number: bigint, wheels: readonly BoundRows[], scopes: readonly DependentScope[]): OpenedInstance {
  let rest = number;
  for (let at = wheels.length - 1; at >= 0; at -= 1) {
    const wheel = wheels[at];
    if (wheel === undefined) continue;
    const size = BigInt(wheel.rows.length);
    turn(at, wheel, Number(((rest % size) + size) % size), scopes);
    rest /= size;
  }
  if (number < 0n || rest > 0n) throw new RangeError(`An instance is numbered from 0 to one below their count: got ${number}`);
  return { number, rows: wheels.map((w) => w.rows[w.at] ?? null) };
}

/** Only what depends on the wheel is looked up anew. */
function turn(at: number, wheel: BoundRows | undefined, row: number, scopes: readonly DependentScope[]): void {
  if (wheel === undefined || row < 0 || row >= wheel.rows.length) throw new RangeError(`A wheel has a row to be bound: expected one of ${wheel?.rows.length ?? 0}, got ${row}`);
  if (wheel.at === row) return;
  wheel.at = row;
  for (const { scope, wheels } of scopes) if (wheels.includes(at)) scope.forget();
}

/** Which instance: by its number from 0 (the last where there are fewer), or the first in which a row of the case runs (null: the first of all). */
export type InstanceChoice = { readonly kind: 'number'; readonly number: bigint } | { readonly kind: 'row'; readonly row: RowId | null };

/** A case opened at one instance of its own: its values stay those of this one. `instance` is null when there is none. */
export type OpenedAt = { readonly kind: 'opened'; readonly instance: OpenedInstance | null } & Omit<OpenedCase, 'bind' | 'turn'>;

/** Opens a case at an instance. What is answered never changes, as nobody else binds it. */
export function openInstance(content: CaseContent, library: Library, constants: Constants, choice: InstanceChoice): OpenedAt | NotOpened {
  const opened = openCase(content, library, constants);
  if (opened.kind !== 'opened') return opened;
  const { bind, turn: _, ...rest } = opened;
  return { ...rest, instance: opened.instances === 0n ? null : bind(instanceNumber(opened, content, library, choice)) };
}

function instanceNumber({ instances }: OpenedCase, content: CaseContent, library: Library, choice: InstanceChoice): bigint {
  if (choice.kind === 'number') return choice.number < 0n ? 0n : choice.number >= instances ? instances - 1n : choice.number;
  const runs = runsOf(content, library);
  const at = Math.max(0, runs.findIndex((r) => r?.id === choice.row));
  return (instances / BigInt(Math.max(1, runs.length))) * BigInt(at);
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
