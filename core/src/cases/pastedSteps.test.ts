import { describe, expect, test } from '@jest/globals';
import { parsePastedSteps, parsePastedTable, stepsOfTable, type PastedTable } from './pastedSteps.ts';

const steps = (text: string): readonly (readonly [string, string])[] => {
  const table = parsePastedTable(text);
  return (table === null ? parsePastedSteps(text) : stepsOfTable(table, table.roles)).map((s) => [s.action, s.expected]);
};
const rolesOf = (table: PastedTable | null): string => table?.roles.join(' ') ?? 'lines';

describe('tables pasted as steps', () => {
  test('quoted cells with line breaks stay one cell, heads and a column of numbers are recognised', () => {
    const text = 'Step\tAction\tTest data\tExpected result\r\n1\t"Open the form\nof a new reading."\tM-4182\t"The form is shown,\nempty"\r\n2\tSave it\t\tIt says ""saved""\r\n';
    expect(steps(text)).toEqual([
      ['Open the form of a new reading: M-4182', 'The form is shown, empty'],
      ['Save it', 'It says ""saved""'],
    ]);
    expect(parsePastedTable(text)?.sure).toBe(true);
  });

  test.each([
    ['#\tStep\tExpected', '1\tOpen\tIt opens', 'number action expected'],
    ['Description\tResult\tPass/Fail', 'Open\tIt opens\t', 'action expected leave'],
    ['Step No.\tInput\tWhat to do\tOutcome', '1\t42\tType it\ttaken', 'number data action expected'],
  ])('heads %s', (heads, row, roles) => expect(rolesOf(parsePastedTable(`${heads}\n${row}`))).toBe(roles));

  test('without heads two columns are sure, three are a guess to be chosen, numbers aside', () => {
    expect(parsePastedTable('1.\tOpen\tIt opens\n2.\tClose\tIt closes')).toMatchObject({ roles: ['number', 'action', 'expected'], sure: true });
    expect(parsePastedTable('Open\tM-1\tIt opens\nClose\tM-1\tIt closes')).toMatchObject({ roles: ['action', 'data', 'expected'], sure: false });
  });

  test('a row that only expects gives the step above its expectation; empty columns and rows are nothing', () => {
    expect(steps('Open\t\tIt opens\n\t\t\nClose\t\t\n\t\tIt closes')).toEqual([
      ['Open', 'It opens'],
      ['Close', 'It closes'],
    ]);
  });

  test('a single column of quoted cells is a step a cell; lines of text are no table', () => {
    expect(steps('"Open\nthe form"\nClose it')).toEqual([
      ['Open the form', ''],
      ['Close it', ''],
    ]);
    expect(rolesOf(parsePastedTable('1. Open => opens\n2. Close'))).toBe('lines');
    expect(rolesOf(parsePastedTable('He said "go\nnow"'))).toBe('lines');
    expect(rolesOf(parsePastedTable(''))).toBe('lines');
  });
});
