import { describe, expect, it } from '@jest/globals';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '../cases/index.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { columnsOfExamples, withExampleRows, withScenariosOf } from './fromCase.ts';
import { withNumbers, withText } from './identities.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);
const parameter = (name: string) => ({ id: parameterId(`p-${name}`), name, type: 'text' as const, default: '', description: '' });

const TWO_ROWS: CaseContent = {
  ...EMPTY_CASE,
  title: 'Readings\n at the edge',
  preconditions: 'The meter is on.\n\nIt is May.',
  steps: [plainStep(stepId('s1'), 'Give <reading>', ''), plainStep(stepId('s2'), 'Send it', '<answer> …'), plainStep(stepId('s3'), '', 'It ends.')],
  parameters: [parameter('reading'), parameter('answer')],
  rows: [newRow(rowId('r1'), 'below', { 'p-reading': '-1', 'p-answer': 'no | never' }), newRow(rowId('r2'), '', { 'p-reading': '""' })],
};

describe('cases written as scenarios', () => {
  it('stand behind the others, in the language and with the ends of lines of the file', () => {
    const { title, ...rest } = TWO_ROWS;
    const result = withScenariosOf(feature('# language: pt\r\nFuncionalidade: a\r\n\r\n  Regra: r\r\n    Exemplo: x\r\n      Dado 1\r\n'), [{ ...rest, title }, { ...EMPTY_CASE, title: 'Plain', steps: [plainStep(stepId('s'), 'Do it', 'Done')] }], newId);
    expect(textOf(result)).toBe(`# language: pt
Funcionalidade: a

  Esquema do Cenário: Readings at the edge
    Dado The meter is on
    E It is May
    Quando Give <reading>
    E Send it
    Então <answer> …
    E It ends

    Exemplos:
      | case  | reading | answer      |
      | below | -1      | no \\| never |
      |       | ""      |             |

  Cenário: Plain
    Quando Do it
    Então Done

  Regra: r
    Exemplo: x
      Dado 1
`.replaceAll('\n', '\r\n'));
  });

  it('rows go to the last examples, where they are set in line', () => {
    const content = feature('Feature: f\n  Scenario Outline: o\n    Given <a>\n\n    Examples:\n      | a |\n      | 1 |\n\n    Examples: more\n      | a | b |\n\n  Scenario: s\n    Given x\n');
    const [, outline, plain] = content.parts.map((p) => p.id);
    expect([columnsOfExamples(content, outline!), columnsOfExamples(content, plain!)]).toEqual([['a', 'b'], []]);
    const result = withExampleRows(content, outline!, [{ a: '100|', c: 'nowhere' }, { b: '2' }], newId);
    expect(textOf(result)).toBe(textOf(content).replace('      | a | b |\n', '      | a     | b |\n      | 100\\| |   |\n      |       | 2 |\n'));
    expect(withExampleRows(content, plain!, [{ a: '1' }], newId)).toBe(content);
    expect(withExampleRows(content, outline!, [], newId)).toBe(content);
  });
});
