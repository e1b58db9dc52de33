import { bindCell, expects, isPlainStep, parseParameterText, type CaseContent, type Cover, type Parameter, type PlainStep, type Row } from '../cases/index.ts';
import type { ConditionContent } from '../conditions/index.ts';

/** An expected result that belongs to what a case shows of a condition. */
export interface SpokenResult {
  readonly step: PlainStep;
  /** Whether it says something whatever its parameters hold. */
  readonly hasWords: boolean;
  readonly names: readonly string[];
}

/** Why nothing in an instance could tell whether it passes. */
export const UNTOLD = ['noExpectation', 'noAction', 'repeatsTitle', 'emptyInRow'] as const;
export type Untold = (typeof UNTOLD)[number];

/**
 * What somebody could tell by whether an instance passes (coverage.md, “What shows an item”): the steps that the link
 * names, or its outcome; where it names neither, any expected result. Of a plain condition only a named step that says
 * what to do. A title repeated tells nothing.
 */
export interface Telling {
  readonly results: readonly SpokenResult[];
  /** The name of the parameter that holds the outcome: while it is empty, a result that puts it in tells nothing. */
  readonly outcome: string | null;
  /** Why there are no results; `emptyInRow`: there are, and it depends on the row. */
  readonly lacking: Untold;
}

/** What decides by the condition whether a result tells. */
export type ToldCondition = Pick<ConditionContent, 'title' | 'model'>;

/** Whether a parameter, by its name, has a value and is not empty; `at`: the place of the result it stands in, −1: of the outcome itself. */
export type IsGiven = (name: string, at: number) => boolean;

/** `steps`: those the links of the case may name, its own and those of shared steps. */
export function tellingOf(steps: readonly PlainStep[], content: Pick<CaseContent, 'title' | 'parameters'>, cover: Pick<Cover, 'expects' | 'outcome'>, condition: ToldCondition): Telling {
  const isPlain = condition.model.kind === 'plain';
  const outcome = isPlain ? null : (content.parameters.find((p) => p.id === cover.outcome)?.name ?? null);
  const named = steps.filter((s) => cover.expects.includes(s.id));
  const belonging = (isPlain || named.length > 0 || outcome !== null ? named : steps).filter(expects);
  const done = isPlain ? belonging.filter((s) => s.action.trim() !== '') : belonging;
  const titles = [condition.title, content.title].filter((title) => firstSign(title) !== '');
  const speaking = done.filter((s) => !titles.some((title) => sameWords(title, s.expected)));
  const lacking = speaking.length > 0 || outcome !== null ? 'emptyInRow' : done.length > 0 ? 'repeatsTitle' : belonging.length > 0 ? 'noAction' : 'noExpectation';
  return { results: speaking.map(spoken), outcome, lacking };
}

/** Whether somebody could tell, with the values that are given. */
export function tells({ results, outcome }: Telling, isGiven: IsGiven): boolean {
  if (outcome !== null && isGiven(outcome, -1)) return true;
  return results.some(({ hasWords, names }, at) => (outcome === null || !names.includes(outcome)) && (hasWords || names.some((name) => isGiven(name, at))));
}

/** Whether that depends on values at all: `null`, it does. */
export function tellsAlways(telling: Telling): boolean | null {
  if (tells(telling, () => false)) return true;
  return tells(telling, () => true) ? null : false;
}

/** The parameters of a case by whose values it is told. */
export function tellingParameters({ results, outcome }: Telling, { parameters }: Pick<CaseContent, 'parameters'>): Parameter[] {
  return parameters.filter((p) => p.name === outcome || results.some((r) => r.names.includes(p.name)));
}

/** What a row gives to the parameters of the case itself. */
export function givenIn(parameters: readonly Parameter[], row: Row | null): IsGiven {
  return (name) => {
    const parameter = parameters.find((p) => p.name === name);
    const value = parameter === undefined ? null : bindCell(parameter, row);
    return value?.kind === 'value' && value.text.trim() !== '';
  };
}

/** The rows of a case that uses nothing in which nobody could tell, each with the reason; `row` null: its one instance without a row. */
export function untoldRows(content: CaseContent, rows: readonly Row[], cover: Cover, condition: ToldCondition): { readonly row: Row | null; readonly why: Untold }[] {
  const telling = tellingOf(content.steps.filter(isPlainStep), content, cover, condition);
  const instances: readonly (Row | null)[] = rows.length === 0 ? [null] : rows;
  return instances.flatMap((row) => (tells(telling, givenIn(content.parameters, row)) ? [] : [{ row, why: telling.lacking }]));
}

/** Why nothing tells in an instance of a case that uses nothing; null: something does. */
export function whyUntold(content: CaseContent, cover: Cover, condition: ToldCondition, row: Row | null): Untold | null {
  return untoldRows(content, row === null ? [] : [row], cover, condition)[0]?.why ?? null;
}

function spoken(step: PlainStep): SpokenResult {
  const parts = parseParameterText(step.expected);
  return { step, hasWords: parts.some((p) => p.kind === 'text' && /[\p{L}\p{N}]/u.test(p.text)), names: parts.flatMap((p) => (p.kind === 'parameter' ? [p.name] : [])) };
}

function sameWords(a: string, b: string): boolean {
  // Of thousands of links nearly all differ in their first letter, which costs little to see.
  return firstSign(a) === firstSign(b) && worded(a) === worded(b);
}

/** The first letter or digit, in lower case; empty where there is none. */
function firstSign(text: string): string {
  return /[\p{L}\p{N}<>]/u.exec(text)?.[0].toLowerCase() ?? '';
}

/** A text by its words alone. */
function worded(text: string): string {
  return text.toLowerCase().replaceAll(/[^\p{L}\p{N}<>]+/gu, ' ').trim();
}
