import { artefactId, type CaseId, type ConditionId, type RequirementId } from '../../artefacts/index.ts';
import { EMPTY_CASE, newCover, newRow, parameterId, rowId, plainStep, stepId, type CaseContent, type Cover, type Step } from '../../cases/index.ts';
import { EMPTY_CONDITION, DEFAULT_MOST_ITEMS, fieldId, type ConditionContent, type Field, type ValueRangesModel } from '../../conditions/index.ts';
import { DEFAULT_RISK_SCALE, type QuestionSubject } from '../../basis/index.ts';
import type { Design, DesignCase, DesignCondition, DesignQuestion, DesignRequirement } from '../design.ts';

/** Tiny builders for tests of coverage. */
export const R = (n: number): RequirementId => artefactId('requirement', n);
export const K = (n: number): ConditionId => artefactId('condition', n);
export const C = (n: number): CaseId => artefactId('case', n);

export const reading: Field = {
  id: fieldId('reading'),
  name: 'reading',
  type: { kind: 'whole' },
  unit: 'm³',
  required: true,
  intervals: [
    { id: 'below', name: 'below', from: '', to: '-1', valid: false, outcome: 'refused' },
    { id: 'valid', name: 'valid', from: '0', to: '99999', valid: true, outcome: 'stored' },
    { id: 'above', name: 'above', from: '100000', to: '', valid: false, outcome: 'refused' },
  ],
  choices: [], patterns: [],
  classes: [
    { id: 'letters', kind: 'letters', name: 'letters', example: '12a', limit: 0, valid: false, outcome: 'refused' },
    { id: 'empty', kind: 'empty', name: 'empty', example: '', limit: 0, valid: false, outcome: 'refused' },
    { id: 'fraction', kind: 'fraction', name: 'fraction', example: '12.5', limit: 0, valid: false, outcome: 'refused' },
  ],
};

export const ranges: ValueRangesModel = { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [reading] };

/** A whole design of the parts given. */
export function designOf(part: Partial<Design>): Design {
  return { requirements: [], conditions: [], cases: [], questions: [], library: [], riskWeights: DEFAULT_RISK_SCALE.weights, mostItems: DEFAULT_MOST_ITEMS, constants: [], ...part };
}

/** An open question about these subjects, unless said otherwise. */
export function question(n: number, about: readonly QuestionSubject[], status: 'open' | 'answered' = 'open'): DesignQuestion {
  return { id: artefactId('question', n), state: 'draft', content: { status, about } };
}

export function requirement(n: number, part: Partial<DesignRequirement> = {}): DesignRequirement {
  return { id: R(n), title: `requirement ${n}`, module: 'readings', risk: 'medium', state: 'draft', type: 'rule', meaningSince: 1, ...part };
}

export function condition(n: number, requirements: readonly number[], part: Partial<ConditionContent> = {}, outside: Partial<DesignCondition> = {}): DesignCondition {
  const links = requirements.map((r) => ({ id: R(r), seenVersion: 1, anchor: null }));
  const content: ConditionContent = { ...EMPTY_CONDITION, title: `condition ${n}`, requirements: links, ...part };
  return { id: K(n), state: 'draft', version: 1, meaningSince: 1, content, ...outside };
}

/** A case with the parameter `reading`, a row per value, and one step that expects something. */
export function testCase(n: number, values: readonly string[], covers: readonly Partial<Cover>[] = [], outside: Partial<DesignCase> = {}, uses: readonly Step[] = []): DesignCase {
  const content: CaseContent = {
    ...EMPTY_CASE,
    title: `case ${n}`,
    steps: [plainStep(stepId('s1'), 'enter <reading>', 'it is taken'), ...uses],
    parameters: [{ id: parameterId('p'), name: 'reading', type: 'text', default: '', description: '' }],
    rows: values.map((value, i) => newRow(rowId(`r${i}`), `row ${i}`, { p: value })),
    covers: covers.map((c) => ({ ...newCover(K(1), 1), ...c })),
  };
  return { id: C(n), state: 'draft', version: 1, content, ...outside };
}

export const byReading = { fields: [{ id: reading.id, parameter: parameterId('p') }] };
