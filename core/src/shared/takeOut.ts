import { freeName, isUse, parameterId, parametersIn, parseParameterText, textsOfStep, withTexts, type Argument, type Parameter, type Step, type StepId, type Use, type Written } from '../cases/index.ts';
import { MISSING_CELL, readCell } from '../data/index.ts';
import { stepsUsed, type Library } from './library.ts';
import { openParameters, surfacedParameters } from './surfacing.ts';

/** A run of steps made into shared steps. */
export interface TakenOut {
  readonly steps: readonly Step[];
  readonly parameters: readonly Parameter[];
  /** The place among the steps where the run stood and the use is to stand. */
  readonly at: number;
  /** What stays of the steps, the run taken away. */
  readonly rest: readonly Step[];
}

/**
 * Takes a run of steps out: parameters used in it become parameters of the shared steps, by the same names, so that
 * they take the same values. Null when the steps are not a run: not there, or with others between them.
 */
export function takeOut(content: Written, ids: readonly StepId[]): TakenOut | null {
  const at = content.steps.findIndex((s) => ids.includes(s.id));
  const steps = content.steps.slice(at, at + ids.length);
  if (at < 0 || steps.length !== ids.length || !steps.every((s) => ids.includes(s.id))) return null;
  const used = new Set(steps.flatMap(textsOfStep).flatMap(parametersIn));
  return { steps, parameters: content.parameters.filter((p) => used.has(p.name)), at, rest: content.steps.toSpliced(at, ids.length) };
}

/**
 * Shared steps put back as plain ones, or the parameters that hinder it: those whose argument is *missing*, which no
 * text can say, and those that have a default only in the shared steps, while other steps here are to go without.
 */
export type PutBack<W> = { readonly kind: 'done'; readonly content: W } | { readonly kind: 'hindered'; readonly parameters: readonly string[] };

/**
 * Puts shared steps back in place of one use, with the same values: arguments are written into the texts, parameters
 * that have none are declared where they are used now. `newId` makes ids for steps and parameters that would stand twice.
 */
export function putBack<W extends Written>(content: W, use: Use, shared: Written, library: Library, newId: () => StepId): PutBack<W> {
  const given = new Map(use.arguments.filter((a) => a.value !== '').map((a) => [a.id, a.value]));
  const others = content.steps.filter((s) => s.id !== use.id);
  const usedElsewhere = new Set([...namesTaken({ ...content, steps: others }, library), ...textsOfStep(use).flatMap(parametersIn)]);
  const defaults = defaultsToTake(content, shared, given);
  const hindering = [...[...given].flatMap(([name, value]) => (value === MISSING_CELL ? [name] : [])), ...[...defaults.keys()].filter((name) => usedElsewhere.has(name))];
  if (hindering.length > 0) return { kind: 'hindered', parameters: hindering };
  const taken = new Set([...usedElsewhere, ...content.parameters.map((p) => p.name)]);
  const declared: Parameter[] = [];
  const texts = new Map(given);
  for (const parameter of shared.parameters) {
    if (given.has(parameter.name) || content.parameters.some((p) => p.name === parameter.name)) continue;
    // One without a default gives nothing to others of its name; one that has a default would.
    const name = hasDefault(parameter) ? freeName(parameter.name, taken) : parameter.name;
    taken.add(name);
    declared.push({ ...parameter, id: parameterId(newId()), name });
    if (name !== parameter.name) texts.set(parameter.name, `<${name}>`);
  }
  const ids = new Set(others.map((s) => s.id));
  const steps = shared.steps.map((step) => {
    const own = withTexts(withArguments(step, texts, library), (text) => substituted(text, texts));
    return ids.has(step.id) ? { ...own, id: newId() } : own;
  });
  const place = content.steps.findIndex((s) => s.id === use.id);
  return { kind: 'done', content: { ...content, steps: content.steps.toSpliced(place, 1, ...steps), parameters: [...content.parameters.map((p) => ({ ...p, default: defaults.get(p.name) ?? p.default })), ...declared] } };
}

/** Names that mean something here already: in a text, or surfacing through another use. */
function namesTaken(content: Written, library: Library): Set<string> {
  return new Set([...content.steps.flatMap(textsOfStep).flatMap(parametersIn), ...surfacedParameters(content, library).map((s) => s.parameter.name)]);
}

/** Parameters declared here without a default that take the one of the shared steps as long as these stand alone. */
function defaultsToTake(content: Written, shared: Written, given: ReadonlyMap<string, string>): Map<string, string> {
  return new Map(shared.parameters.flatMap((p) => {
    const own = content.parameters.find((o) => o.name === p.name);
    return own !== undefined && !given.has(p.name) && hasDefault(p) && !hasDefault(own) ? [[p.name, p.default] as const] : [];
  }));
}

/** A use inside took what the shared steps knew by name: it is given to it as an argument now. */
function withArguments(step: Step, texts: ReadonlyMap<string, string>, library: Library): Step {
  const used = isUse(step) ? stepsUsed(library, step) : undefined;
  if (!isUse(step) || used === undefined) return step;
  const more = openParameters(used, library).flatMap(({ name }): Argument[] => {
    const hasOwn = step.arguments.some((a) => a.id === name && a.value !== '');
    // The name itself: its meaning is put in its place with those in all other texts.
    return hasOwn || !texts.has(name) ? [] : [{ id: name, value: `<${name}>` }];
  });
  return { ...step, arguments: [...step.arguments.filter((a) => !more.some((m) => m.id === a.id)), ...more] };
}

function substituted(text: string, texts: ReadonlyMap<string, string>): string {
  let result = '';
  let at = 0;
  for (const part of parseParameterText(text)) {
    const means = part.kind === 'parameter' ? texts.get(part.name) : undefined;
    if (part.kind !== 'parameter' || means === undefined) continue;
    result += text.slice(at, part.from) + means;
    at = part.to;
  }
  return result + text.slice(at);
}

function hasDefault(parameter: Parameter): boolean {
  return readCell(parameter.default).kind === 'text';
}
