import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { z } from 'zod';
import { hasTexts } from './stored.ts';

/** Slow and obvious: what a content must be for its texts to be looked through. */
const withId = z.looseObject({ id: z.string() });
const TEXTS = z.looseObject({
  title: z.string(),
  steps: z.array(z.looseObject({ id: z.string(), kind: z.string(), arguments: z.array(withId).optional() })).optional(),
  rows: z.array(z.looseObject({ id: z.string(), cells: z.record(z.string(), z.string()) })).optional(),
  parameters: z.array(withId).optional(),
});

const odd = fc.oneof(fc.string(), fc.integer(), fc.constant(null), fc.constant(undefined), fc.constant([]), fc.constant({}));
const field = <T>(usual: fc.Arbitrary<T>) => fc.oneof({ weight: 8, arbitrary: usual as fc.Arbitrary<unknown> }, { weight: 1, arbitrary: odd });
const named = fc.record({ id: field(fc.string()) }, { requiredKeys: [] });
const step = fc.record({ id: field(fc.string()), kind: field(fc.constant('step')), arguments: field(fc.array(named, { maxLength: 2 })) }, { requiredKeys: ['id', 'kind'] });
const row = fc.record({ id: field(fc.string()), cells: field(fc.dictionary(fc.string(), field(fc.string()), { maxKeys: 2 })) });
const content = fc.record(
  { title: field(fc.string()), steps: field(fc.array(field(step), { maxLength: 3 })), rows: field(fc.array(row, { maxLength: 2 })), parameters: field(fc.array(named, { maxLength: 2 })) },
  { requiredKeys: ['title'] },
);

test('whether texts can be looked through is told as the schema tells it', () => {
  let both = [0, 0];
  fc.assert(
    fc.property(fc.oneof(content, odd), (stored) => {
      const told = TEXTS.safeParse(stored).success;
      both = told ? [both[0]! + 1, both[1]!] : [both[0]!, both[1]! + 1];
      expect(hasTexts(stored)).toBe(told);
    }),
    { seed: 17, numRuns: 2_000 },
  );
  expect(Math.min(...both)).toBeGreaterThan(100);
});
