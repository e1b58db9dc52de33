import { describe, expect, test } from '@jest/globals';
import { EMPTY_QUESTION, EMPTY_REQUIREMENT } from '../basis/index.ts';
import { EMPTY_CASE, plainStep, stepId, type CaseContent, type Step } from '../cases/index.ts';
import { EMPTY_CONDITION } from '../conditions/index.ts';
import { EMPTY_DATA_SET } from '../dataSets/index.ts';
import { EMPTY_SHARED, type Used } from '../shared/index.ts';
import { readingCopy } from './readingCopy.ts';

const NONE = new Map<string, Used>();
const parameter = (name: string) => ({ id: name, name, type: 'text', default: '', description: '' }) as never;
const row = (id: string, cells: Record<string, string>) => ({ id, name: id, description: '', cells, mark: null, aside: false }) as never;
const use = { kind: 'shared', id: 'u', shared: 'S-1', pinned: null, arguments: [{ id: 'a', value: '<n>' }] } as unknown as Step;
const gone = { ...use, id: 'g', shared: 'S-9' } as unknown as Step;
const SHARED: Used = { kind: 'shared', id: 'S-1', version: 2, withdrawn: false, content: { ...EMPTY_SHARED, title: 'Log in', steps: [plainStep(stepId('x'), 'as <a>', 'in')], parameters: [parameter('a')] } } as never;
const CASE: CaseContent = { ...EMPTY_CASE, title: 'Read <n>', objective: 'To know <n>', steps: [plainStep(stepId('s'), 'Type <n> at <host> with <pass>', 'It is <unknown>'), use, gone], parameters: [parameter('n')], rows: [row('one', { n: '5' }), row('two', { n: '!missing' })] };

const words = (parts: readonly { kind: string; text: string }[]) => parts.map((p) => (p.kind === 'text' ? p.text : `${p.kind}(${p.text})`)).join('');

describe('the copy for reading', () => {
  test('of a case has values in place, what it uses opened, and nothing that is not there', () => {
    const copy = readingCopy({ kind: 'case', content: CASE }, new Map([['S-1', SHARED]]), new Map([['host', 'h.example'], ['pass', '••••••']]));
    expect(copy.instances.map((i) => [i.name, i.texts.map((t) => [t.field, words(t.parts)])])).toEqual([['one', [['objective', 'To know value(5)']]], ['two', [['objective', expect.stringMatching(/^To know /) as unknown]]]]);
    expect(copy.instances[0]?.steps.map((s) => [s.from, words(s.action), words(s.expected)])).toEqual([
      ['', 'Type value(5) at value(h.example) with value(••••••)', 'It is unbound(unknown)'],
      ['S-1 Log in', 'as value(5)', 'in'],
      ['', 'gone(S-9)', ''],
    ]);
    expect(copy.beyond).toBe(0n);
  });

  test('of what has too many instances or steps holds some, and counts the rest', () => {
    const many = { ...CASE, steps: [plainStep(stepId('s'), 'go')], rows: Array.from({ length: 70 }, (_, i) => row(`r${i}`, { n: String(i) })) };
    const copy = readingCopy({ kind: 'case', content: many }, NONE, new Map());
    expect([copy.instances.length, copy.beyond]).toEqual([20, 50n]);
    const long = { ...many, steps: Array.from({ length: 900 }, (_, i) => plainStep(stepId(`s${i}`), 'go')) };
    const short = readingCopy({ kind: 'case', content: long }, NONE, new Map());
    expect([short.instances.length, short.beyond]).toEqual([2, 68n]);
    const longest = readingCopy({ kind: 'case', content: { ...long, steps: Array.from({ length: 2_001 }, (_, i) => plainStep(stepId(`s${i}`), 'go')) } }, NONE, new Map());
    expect([longest.instances, longest.beyond]).toEqual([[], 70n]);
  });

  test('of other kinds has their texts, rows and items; an answer that was taken back is none', () => {
    const of = (artefact: Parameters<typeof readingCopy>[0]) => readingCopy(artefact, NONE, new Map());
    expect(of({ kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'R', text: 'A *reading*' } })).toMatchObject({ title: 'R', texts: [{ field: 'text', text: 'A *reading*' }], table: null });
    const question = { ...EMPTY_QUESTION, title: 'Q', text: 'Which?', answer: 'The last.' };
    expect(of({ kind: 'question', content: { ...question, status: 'open' } }).texts.map((t) => t.field)).toEqual(['text']);
    expect(of({ kind: 'question', content: { ...question, status: 'answered' } }).texts.map((t) => t.field)).toEqual(['text', 'answer']);
    expect(of({ kind: 'condition', content: { ...EMPTY_CONDITION, title: 'K' } }).table?.[0]).toEqual(['coverage item']);
    const factor = (name: string) => ({ id: name, name, values: Array.from({ length: 60 }, (_, i) => ({ id: `v${i}`, value: String(i), aliases: [], valid: true, base: false, outcome: '' })) });
    const huge = of({ kind: 'condition', content: { ...EMPTY_CONDITION, title: 'K', model: { kind: 'combination', factors: [factor('a'), factor('b')], constraints: [], strength: 'pairs', groups: [], seed: 1 } as never } });
    expect([huge.table, huge.beyond]).toEqual([null, 3_600n]);
    const set = of({ kind: 'dataSet', content: { ...EMPTY_DATA_SET, title: 'D', parameters: [parameter('n')], rows: Array.from({ length: 510 }, (_, i) => row(`r${i}`, i === 0 ? {} : { n: String(i) })) } });
    expect([set.table?.slice(0, 3), set.table?.length, set.beyond]).toEqual([[['row', 'n'], ['r0', ''], ['r1', '1']], 501, 10n]);
  });
});
