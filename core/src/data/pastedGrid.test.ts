import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parsePastedGrid, readCell } from './index.ts';

test('a range of a spreadsheet', () => {
  expect(parsePastedGrid('a\tb\r\nc\t\r\n')).toEqual([['a', 'b'], ['c', '']]);
  expect(parsePastedGrid('"two\nlines"\t"say ""hi"""\tx"y')).toEqual([['two\nlines', 'say "hi"', 'x"y']]);
  expect(parsePastedGrid('""\t007\t1e5')).toEqual([['""', '007', '1e5']]);
});

test('cells without quotes, tabs or breaks come back as they were', () => {
  const cell = fc.string({ unit: fc.constantFrom('a', '1', ' ', '<', 'é', '💧') });
  fc.assert(
    fc.property(fc.array(fc.array(cell, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 4 }), (grid) => {
      expect(parsePastedGrid(`${grid.map((row) => row.join('\t')).join('\n')}\n`)).toEqual(grid);
    }),
  );
});

test('what a cell says', () => {
  expect(['', '""', '(missing)', '0'].map(readCell)).toEqual([{ kind: 'notGiven' }, { kind: 'text', text: '' }, { kind: 'missing' }, { kind: 'text', text: '0' }]);
});
