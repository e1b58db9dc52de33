import { expect, test, describe } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, bindRow, bindText, caseInstances, caseProblems, isParameterName, newRow, parameterId, parametersIn, parseParameterText, parsePastedSteps, removeParameter, renameParameter, plainStep, rowId, stepId, textsOfStep, type CaseContent } from './index.ts';

describe('parameters in a text', () => {
  test('are cut out, plain brackets stay', () => {
    expect(parseParameterText('enter <reading> if a < b and c > d, \\<tag>')).toEqual([
      { kind: 'text', text: 'enter ' },
      { kind: 'parameter', name: 'reading', from: 6, to: 15 },
      { kind: 'text', text: ' if a < b and c > d, <tag>' },
    ]);
  });
  test('may have spaces and any letters, not at the ends', () => {
    expect(parametersIn('<água fria 2> < x> <x > <> <a<b>')).toEqual(['água fria 2', 'b']);
  });
  test('every part together is the text again, escapes apart', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('<', '>', 'a', ' ', '\\', 'é') }), (text) => {
        const again = parseParameterText(text).map((p) => (p.kind === 'text' ? p.text : `<${p.name}>`)).join('');
        expect(again).toBe(text.replaceAll('\\<', '<'));
      }),
    );
  });
  test('a name is one exactly when it can stand in brackets', () => {
    expect(['x', 'a b', 'é1', '', ' a', 'a>', '<a', '-'].filter(isParameterName)).toEqual(['x', 'a b', 'é1']);
  });
});

const p = (id: string, name: string, fallback = '') => ({ id: parameterId(id), name, type: 'text' as const, default: fallback, description: '' });
const content: CaseContent = {
  ...EMPTY_CASE,
  title: 'T',
  preconditions: 'meter <meter>',
  steps: [plainStep(stepId('s'), 'enter <reading> for <meter>', '<answer>')],
  parameters: [p('m', 'meter', 'M-1'), p('r', 'reading'), p('u', 'unused')],
  rows: [
    newRow(rowId('1'), 'full', { m: 'M-2', r: '5' }),
    newRow(rowId('2'), 'odd', { r: '""', m: '(missing)' }),
    newRow(rowId('3'), 'bare'),
  ],
};

describe('binding', () => {
  test('the row first, then the default; empty and missing are said on purpose', () => {
    const values = caseInstances(content).map((i) => [i.values.get(parameterId('m')), i.values.get(parameterId('r'))]);
    expect(values).toEqual([
      [{ kind: 'value', text: 'M-2', from: 'row' }, { kind: 'value', text: '5', from: 'row' }],
      [{ kind: 'missing' }, { kind: 'value', text: '', from: 'row' }],
      [{ kind: 'value', text: 'M-1', from: 'default' }, { kind: 'unbound' }],
    ]);
  });
  test('a case without rows is one instance', () => expect(caseInstances({ ...content, rows: [] })).toHaveLength(1));
  test('undeclared names are told from unbound ones', () => {
    const parts = bindText('<reading> <answer>', content.parameters, bindRow(content.parameters, null));
    expect(parts.map((x) => (x.kind === 'text' ? x.text : x.value.kind))).toEqual(['unbound', ' ', 'undeclared']);
  });
});

test('problems are named with their place', () => {
  expect(caseProblems({ ...content, parameters: [...content.parameters, { ...p('d', 'day', '2026-02-30'), type: 'date' }] }).map((x) => x.code)).toEqual(['parameter_undeclared', 'parameter_unused', 'parameter_unused', 'default_not_of_type', 'row_unbound']);
});

test('renaming changes every use and nothing else; removing takes column and mappings along', () => {
  const renamed = renameParameter(content, parameterId('m'), 'dial');
  expect([renamed.preconditions, renamed.steps.flatMap(textsOfStep)[0], renamed.parameters[0]?.name, renamed.rows]).toEqual(['meter <dial>', 'enter <reading> for <dial>', 'dial', content.rows]);
  expect(renameParameter(content, parameterId('m'), 'meter')).toBe(content);
  expect(removeParameter(content, parameterId('m')).rows.map((r) => r.cells)).toEqual([{ r: '5' }, { r: '""' }, {}]);
});

test('pasted lines become steps', () => {
  const pasted = '1. Open the form\r\n2) Enter 5\tit is shown\n\n• Confirm => stored\n  ⇒ and told\n- a-b\n=> alone\nx';
  expect(parsePastedSteps(pasted)).toEqual([
    { action: 'Open the form', expected: '' },
    { action: 'Enter 5', expected: 'it is shown' },
    { action: 'Confirm', expected: 'stored' },
    { action: '', expected: 'and told' },
    { action: 'a-b', expected: 'alone' },
    { action: 'x', expected: '' },
  ]);
});
