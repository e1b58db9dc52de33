import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEFAULT_RISK_SCALE, RISKS, effectiveRisk, ratedRisk, resizeScale, type RiskScale } from './index.ts';

const names = (length: number): string[] => Array.from({ length }, (_, i) => `step ${i}`);
const scale: fc.Arbitrary<RiskScale> = fc.tuple(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 2, max: 6 })).chain(([l, i]) =>
  fc.array(fc.array(fc.constantFrom(...RISKS), { minLength: i, maxLength: i }), { minLength: l, maxLength: l }).map((risks) => ({ ...DEFAULT_RISK_SCALE, likelihood: names(l), impact: names(i), risks })),
);

test('a rating has the risk of its pair of steps, and goes before what is said outright', () => {
  expect(ratedRisk(DEFAULT_RISK_SCALE, { likelihood: 2, impact: 0 })).toBe('medium');
  expect(ratedRisk(DEFAULT_RISK_SCALE, { likelihood: 0, impact: 2 })).toBe('medium');
  expect(effectiveRisk(DEFAULT_RISK_SCALE, { risk: 'low', rating: { likelihood: 2, impact: 2 } })).toBe('high');
  expect(effectiveRisk(DEFAULT_RISK_SCALE, { risk: 'low', rating: null })).toBe('low');
});

test('a step beyond a shortened scale counts as its last; a resized scale keeps the pairs it had, and new ones take their neighbour’s risk', () => {
  fc.assert(
    fc.property(scale, fc.integer({ min: 2, max: 6 }), fc.integer({ min: 2, max: 6 }), (before, l, i) => {
      const after = resizeScale(before, names(l), names(i));
      expect([after.risks.length, ...after.risks.map((row) => row.length)]).toEqual([l, ...Array.from({ length: l }, () => i)]);
      after.risks.forEach((row, a) => row.forEach((risk, b) => expect(risk).toBe(before.risks[Math.min(a, before.likelihood.length - 1)]?.[Math.min(b, before.impact.length - 1)])));
      expect(ratedRisk(after, { likelihood: 9, impact: 9 })).toBe(after.risks.at(-1)?.at(-1));
    }),
  );
});
