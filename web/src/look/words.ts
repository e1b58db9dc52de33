import type { ArtefactKind, ArtefactState, Priority } from '@caderno/core/artefacts';
import type { RequirementType, Risk } from '@caderno/core/basis';
import type { ParameterType } from '@caderno/core/cases';
import type { BoundaryRule, ClassKind, ModelKind, Polarity, Technique } from '@caderno/core/conditions';
import type { ValueKind } from '@caderno/core/values';

/** The words screens use for closed sets; a new member does not compile until it has one. */
export const KIND_WORD: Record<ArtefactKind, string> = { requirement: 'requirement', condition: 'condition', case: 'case', question: 'question' };
export const STATE_WORD: Record<ArtefactState, string> = { draft: 'Draft', inReview: 'In review', agreed: 'Agreed', withdrawn: 'Withdrawn' };
export const RISK_WORD: Record<Risk, string> = { high: 'High risk', medium: 'Medium risk', low: 'Low risk' };
export const PRIORITY_WORD: Record<Priority, string> = { high: 'High', medium: 'Medium', low: 'Low' };
export const REQUIREMENT_TYPE_WORD: Record<RequirementType, string> = { rule: 'Rule', userStory: 'User story', quality: 'Quality', apiOperation: 'API operation' };
export const POLARITY_WORD: Record<Polarity, string> = { positive: 'positive', negative: 'negative', both: 'positive and negative' };
export const MODEL_WORD: Record<ModelKind, string> = { plain: 'plain', valueRanges: 'value ranges' };
export const BOUNDARY_WORD: Record<BoundaryRule, string> = { none: 'no boundary values', twoValue: 'two-value boundaries', threeValue: 'three-value boundaries' };
export const TECHNIQUE_WORD: Record<Technique, string> = { partitions: 'Partitions', boundaries: 'Boundary values', plain: 'Plain conditions' };
export const VALUE_WORD: Record<ValueKind, string> = {
  whole: 'whole number',
  decimal: 'decimal number',
  date: 'date',
  time: 'time',
  dateTime: 'date and time',
  textLength: 'text by length',
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
  return `${count.toLocaleString()} ${count === 1 ? one : many}`;
}
