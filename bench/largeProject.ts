import { artefactId } from '@caderno/core/artefacts';
import { DEFAULT_RISK_SCALE } from '@caderno/core/basis';
import { EMPTY_CASE, newRow, parameterId, rowId, stepId, plainStep } from '@caderno/core/cases';
import { EMPTY_CONDITION, DEFAULT_MOST_ITEMS, fieldId, type Field } from '@caderno/core/conditions';
import type { Design, DesignCase, DesignCondition, DesignRequirement } from '@caderno/core/coverage';

/** Sizes of the project that figures are measured on. */
export const LARGE: Sizes = { requirements: 2_000, conditions: 10_000, cases: 20_000 };

export interface Sizes {
  readonly requirements: number;
  readonly conditions: number;
  readonly cases: number;
}

const ROWS_A_CASE = 5;

/** A generator of whole numbers below a bound, the same for the same seed (mulberry32). */
export function seeded(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return Math.floor((((t ^ (t >>> 14)) >>> 0) / 4_294_967_296) * below);
  };
}

/** The large project: 2 000 requirements, 10 000 conditions, 20 000 cases, 100 000 rows. Deterministic for a seed. */
export function largeDesign(seed: number): Design {
  return designOf(seed, LARGE);
}

/** The same of other sizes. */
export function designOf(seed: number, sizes: Sizes): Design {
  const random = seeded(seed);
  const requirements = Array.from({ length: sizes.requirements }, (_, i): DesignRequirement => ({
    id: artefactId('requirement', i + 1),
    title: `Requirement ${i + 1}`,
    module: `Module ${Math.floor(i / 100) + 1}`,
    risk: (['high', 'medium', 'low'] as const)[random(3)] ?? 'low',
    state: 'draft',
    meaningSince: 1,
    type: 'rule' as const,
  }));
  const conditions = Array.from({ length: sizes.conditions }, (_, i) => condition(i + 1, (i % sizes.requirements) + 1, random));
  const cases = Array.from({ length: sizes.cases }, (_, i) => testCase(i + 1, (i % sizes.conditions) + 1, random));
  return { requirements, conditions, cases, questions: [],
    library: [], constants: [], riskWeights: DEFAULT_RISK_SCALE.weights, mostItems: DEFAULT_MOST_ITEMS };
}

function condition(n: number, requirement: number, random: (below: number) => number): DesignCondition {
  const plain = random(3) === 0;
  return {
    id: artefactId('condition', n),
    state: 'draft',
    version: 1,
    meaningSince: 1,
    content: {
      ...EMPTY_CONDITION,
      title: `Condition ${n}`,
      requirements: [{ id: artefactId('requirement', requirement), seenVersion: 1, anchor: null }],
      model: plain ? { kind: 'plain' } : { kind: 'valueRanges', boundaries: 'threeValue', allowInvalidTogether: false, fields: [field(random)] },
    },
  };
}

function field(random: (below: number) => number): Field {
  const low = random(1000);
  const high = low + 2 + random(1000);
  const interval = (id: string, from: string, to: string, valid: boolean) => ({ id, name: id, from, to, valid, outcome: '' });
  return {
    id: fieldId('f'),
    name: 'value',
    type: { kind: 'whole' },
    unit: '',
    required: true,
    intervals: [interval('below', '', String(low - 1), false), interval('valid', String(low), String(high), true), interval('above', String(high + 1), '', false)],
    choices: [], patterns: [],
    classes: [{ id: 'letters', kind: 'letters', name: 'letters', example: '1a', limit: 0, valid: false, outcome: '' }],
  };
}

function testCase(n: number, covered: number, random: (below: number) => number): DesignCase {
  const value = parameterId('p');
  const step = stepId('s');
  return {
    id: artefactId('case', n),
    state: 'draft',
    version: 1,
    content: {
      ...EMPTY_CASE,
      title: `Case ${n} of reading ${covered}`,
      module: `Module ${Math.floor(n / 1000) + 1}`,
      steps: [
        plainStep(stepId('s0'), 'Open the form'),
        plainStep(step, 'Enter <value>', 'It is taken or refused'),
      ],
      parameters: [{ id: value, name: 'value', type: 'text', default: '', description: '' }],
      rows: Array.from({ length: ROWS_A_CASE }, (_, i) => newRow(rowId(`r${i}`), `row ${i}`, { p: String(random(2000)) })),
      covers: [{ id: artefactId('condition', covered), seenVersion: 1, fields: [{ id: fieldId('f'), parameter: value }], outcome: null, expects: [step], start: null, events: [] }],
      estimate: 5,
    },
  };
}
