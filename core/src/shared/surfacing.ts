import { isUse, type CalledRows, type CaseContent, type Parameter, type StepId, type Written } from '../cases/index.ts';
import { readCell } from '../data/index.ts';
import { keyOfUse, stepsUsed, type Library, type UsedSteps } from './library.ts';
import { calledRuns } from './rows.ts';

/** A parameter of what is used that the caller gives no argument for: whoever runs the caller may give it a value. */
export interface Surfaced {
  readonly parameter: Parameter;
  /** The use in the caller's own steps that it comes up through, first of several. */
  readonly use: StepId;
}

/**
 * The parameters that surface in a case or in shared steps, each name once, in order of first use: declared further
 * down, mapped by no argument, fixed by no row. A name that is declared here as well is among them: the declared one
 * gives it its value.
 */
export function surfacedParameters(content: Written, library: Library): Surfaced[] {
  return surfaced(content, library, new Map());
}

function surfaced(content: Written, library: Library, known: Map<string, readonly Parameter[]>): Surfaced[] {
  const found = new Map<string, Surfaced>();
  for (const use of content.steps.filter(isUse)) {
    const key = keyOfUse(use);
    const used = stepsUsed(library, use);
    if (used === undefined) continue;
    const given = new Set(use.arguments.filter((a) => a.value !== '').map((a) => a.id));
    const fixed = use.kind === 'call' && used.kind === 'case' ? fixedByRows(used.content, use.rows, library) : NOTHING;
    for (const parameter of openIn(key, used, library, known)) {
      if (!given.has(parameter.name) && !fixed.has(parameter.name) && !found.has(parameter.name)) found.set(parameter.name, { parameter, use: use.id });
    }
  }
  return [...found.values()];
}

/** The parameters that something used takes from whoever uses it: its own, then those that surface in it. */
export function openParameters(used: UsedSteps, library: Library): readonly Parameter[] {
  return openIn(`${used.id}@${used.version}`, used, library, new Map());
}

function openIn(key: string, used: UsedSteps, library: Library, known: Map<string, readonly Parameter[]>): readonly Parameter[] {
  const before = known.get(key);
  if (before !== undefined) return before;
  // Until it is known it has none: a circle, which no save lets in, would otherwise never end.
  known.set(key, []);
  const own = used.content.parameters;
  const open = [...own, ...surfaced(used.content, library, known).flatMap(({ parameter }) => (own.some((p) => p.name === parameter.name) ? [] : [parameter]))];
  known.set(key, open);
  return open;
}

const NOTHING: ReadonlySet<string> = new Set();

/** The names that every row that is run gives a value to. */
export function fixedByRows(content: CaseContent, rows: CalledRows, library: Library): ReadonlySet<string> {
  const run = calledRuns(content, rows, library) ?? [];
  if (run.length === 0) return NOTHING;
  return new Set(content.parameters.filter((p) => run.every((r) => readCell(r?.cells[p.id] ?? '').kind !== 'notGiven')).map((p) => p.name));
}
