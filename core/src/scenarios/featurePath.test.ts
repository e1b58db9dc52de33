import { expect, it } from '@jest/globals';
import { fileNameFor, freePath } from './featurePath.ts';

it('makes a name of a file of any title, and a path that no feature has, in small letters or capitals', () => {
  expect(['Leitura à distância (2ª)', '  Bill! ', '…', 'x'.repeat(80), `${'a'.repeat(59)} b`].map(fileNameFor)).toEqual(['leitura-a-distancia-2a', 'bill', 'new', 'x'.repeat(60), 'a'.repeat(59)]);
  expect(freePath('', 'bill', [])).toBe('bill.feature');
  expect(freePath('bills', 'bill', ['bills/Bill.feature', 'bills/bill-2.feature', 'bill-3.feature'])).toBe('bills/bill-3.feature');
});
