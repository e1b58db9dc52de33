import { expect, test } from '@jest/globals';
import { newProjectSchema } from '@caderno/contract';
import fc from 'fast-check';
import { keyOfName } from './keyOfName.ts';

const RESERVED = ['reset', 'api', 'assets', 'new-project', 'healthz', 'livez', 'metrics'];

test.each([
  ['Água da Serra, billing', 'agua-da-serra-billing'],
  ['2nd try', 'nd-try'],
  ['  Many -- signs!  ', 'many-signs'],
  ['水', ''],
])('%s becomes %s', (name, key) => expect(keyOfName(name)).toBe(key));

test('a key is empty or one that may stand in addresses, but for reserved ones', () => {
  fc.assert(fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (name) => keyOfName(name) === '' || newProjectSchema.safeParse({ name: 'x', key: keyOfName(name) }).success || RESERVED.includes(keyOfName(name))));
});
