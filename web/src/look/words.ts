import type { Priority } from '@caderno/core/artefacts';
import type { RequirementType } from '@caderno/core/basis';
import type { CaseKind, Execution, ParameterType } from '@caderno/core/cases';
import type { BoundaryRule, ClassKind, ItemKind, ModelKind, Polarity, StateLevel, Strength } from '@caderno/core/conditions';
import type { ValueKind } from '@caderno/core/values';
import { locale, numberFormat } from './locale.ts';

/** The words screens use for closed sets; a new member does not compile until it has one. */
export { KIND_NAME, RISK_WORD, STANDING_WORD, STATE_WORD, TECHNIQUE_WORD } from '@caderno/contract';
/** A priority as it is shown: with a capital. */
export function priorityWord(priority: Priority): string {
  return priority.charAt(0).toUpperCase() + priority.slice(1);
}
export const CASE_KIND_WORD: Record<CaseKind, string> = { procedure: 'Procedure', charter: 'Charter' };
export const EXECUTION_WORD: Record<Execution, string> = { byHand: 'Run by hand', automated: 'Automated' };
export const REQUIREMENT_TYPE_WORD: Record<RequirementType, string> = { rule: 'Rule', userStory: 'User story', quality: 'Quality', apiOperation: 'API operation', heading: 'Heading' };
export const POLARITY_WORD: Record<Polarity, string> = { positive: 'positive', negative: 'negative', both: 'positive and negative' };
export const MODEL_WORD: Record<ModelKind, string> = { plain: 'plain', valueRanges: 'value ranges', decisionTable: 'decision table', stateTransitions: 'state transitions', combination: 'combination' };
export const BOUNDARY_WORD: Record<BoundaryRule, string> = { none: 'no boundary values', twoValue: 'two-value boundaries', threeValue: 'three-value boundaries' };
export const STATE_LEVEL_WORD: Record<StateLevel, string> = {
  states: 'all states',
  switch0: 'all transitions (0-switch)',
  switch1: 'all pairs of transitions (1-switch)',
  switch2: 'all runs of three (2-switch)',
  switch3: 'all runs of four (3-switch)',
  switch4: 'all runs of five (4-switch)',
};
export const STRENGTH_WORD: Record<Strength, string> = {
  eachChoice: 'each choice',
  baseChoice: 'base choice',
  pairs: 'pairs',
  threeWise: 'three at a time',
  fourWise: 'four at a time',
  fiveWise: 'five at a time',
  sixWise: 'six at a time',
  all: 'everything with everything',
};
export const ITEM_KIND_WORD: Record<ItemKind, string> = {
  condition: 'condition',
  partition: 'partition',
  boundary: 'boundary value',
  class: 'other kind of value',
  rule: 'rule',
  state: 'state',
  transition: 'transition',
  sequence: 'run of transitions',
  invalidPair: 'refused event',
  tuple: 'combination',
  invalidValue: 'invalid value',
};
export const VALUE_WORD: Record<ValueKind, string> = {
  whole: 'whole number',
  decimal: 'decimal number',
  date: 'date',
  time: 'time',
  dateTime: 'date and time',
  textLength: 'text by length',
  textPattern: 'text by pattern',
  choice: 'choice',
  yesNo: 'yes or no',
};
export const PARAMETER_TYPE_WORD: Record<ParameterType, string> = {
  text: 'text',
  whole: 'whole number',
  decimal: 'decimal number',
  date: 'date',
  time: 'time',
  dateTime: 'date and time',
  yesNo: 'yes or no',
};
export const CLASS_WORD: Record<ClassKind, string> = {
  missing: 'missing',
  empty: 'empty',
  letters: 'letters',
  specialCharacters: 'special characters',
  fraction: 'fraction',
  tooPrecise: 'too precise',
  impossibleDate: 'no such day',
  notListed: 'not in the list',
  tooLong: 'too long',
  example: 'one value',
};

/** `options(RISK_WORD)` for {@link Choose}. */
export function options<T extends string>(words: Record<T, string>): { value: T; name: string }[] {
  return (Object.keys(words) as T[]).map((value) => ({ value, name: words[value] }));
}

/** `1 row`, `2 rows`. */
export function countOf(count: number, one: string, many = `${one}s`): string {
  return `${numberFormat().format(count)} ${count === 1 ? one : many}`;
}

/** Minutes as a number of them, however many: where two are held against each other. */
export function minutesOf(minutes: number): string {
  return `${Math.round(minutes).toLocaleString(locale())}\u00a0min`;
}

/** `80 min`, `3 h`: hours from where nobody counts minutes. */
export function durationOf(minutes: number): string {
  return minutes < 90 ? `${Math.round(minutes)}\u00a0min` : `${Math.round(minutes / 60)}\u00a0h`;
}
