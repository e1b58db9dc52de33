import { expect, test, describe } from '@jest/globals';
import { coverageItems, fieldId, itemsShownByRow, moveBoundary, offeredClasses, rangeJudge, rangeProblems, type ClassKind, type Field, type FieldValue, type ValueRangesModel } from './index.ts';
import type { ValueKind } from '../values/index.ts';

const text = (t: string): FieldValue => ({ kind: 'value', text: t });
const role: Field = {
  id: fieldId('role'),
  name: 'role',
  type: { kind: 'choice' },
  unit: '',
  required: true,
  intervals: [],
  patterns: [],
  choices: [
    { id: 'clerk', value: 'clerk', aliases: ['Clerk', 'c'], valid: true, outcome: '' },
    { id: 'member', value: 'member', aliases: [], valid: false, outcome: '' },
  ],
  classes: [{ id: 'none', kind: 'missing', name: 'missing', example: '', limit: 0, valid: false, outcome: '' }],
};
const amount: Field = {
  ...role,
  id: fieldId('amount'),
  name: 'amount',
  type: { kind: 'whole' },
  choices: [], patterns: [],
  classes: [],
  intervals: [
    { id: 'low', name: 'low', from: '', to: '0', valid: false, outcome: '' },
    { id: 'ok', name: 'ok', from: '1', to: '', valid: true, outcome: '' },
  ],
};
const model = (part: Partial<ValueRangesModel> = {}): ValueRangesModel => ({ kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [role, amount], ...part });
const shown = (m: ValueRangesModel, roleValue: FieldValue | null, amountValue: FieldValue | null) =>
  itemsShownByRow(rangeJudge(m), new Map([...(roleValue ? [[role.id, roleValue] as const] : []), ...(amountValue ? [[amount.id, amountValue] as const] : [])]));

describe('invalid values stand alone', () => {
  test('one invalid value shows its item, beside valid ones', () => {
    expect(shown(model(), text('member'), text('7'))).toEqual(['amount:part:ok', 'role:part:member']);
  });
  test('two invalid values mask each other and show neither', () => {
    expect(shown(model(), text('member'), text('0'))).toEqual([]);
    expect(shown(model(), { kind: 'missing' }, text('-3'))).toEqual([]);
  });
  test('a value outside everything counts as invalid too', () => {
    expect(shown(model(), text('plumber'), text('0'))).toEqual([]);
  });
  test('a model may allow them together', () => {
    expect(shown(model({ allowInvalidTogether: true }), text('member'), text('0'))).toEqual(['role:part:member', 'amount:part:low', 'amount:edge:0']);
  });
  test('a field without a value shows nothing and masks nothing', () => {
    expect(shown(model(), null, text('0'))).toEqual(['amount:part:low', 'amount:edge:0']);
  });
});

test('aliases stand for their choice, letter for letter', () => {
  expect(shown(model(), text('c'), null)).toEqual(['role:part:clerk']);
  expect(shown(model(), text('C'), null)).toEqual([]);
});

test('every offered class holds its own example and no value of the type', () => {
  const good: Record<ValueKind, string> = { whole: '12', decimal: '1.25', date: '2026-02-28', time: '12:30', dateTime: '2026-02-28T12:30', textLength: 'abc', textPattern: 'M-2207', choice: 'clerk', yesNo: 'yes' };
  const types = { whole: { kind: 'whole' }, decimal: { kind: 'decimal', step: '0.01' }, date: { kind: 'date' }, time: { kind: 'time', stepSeconds: 60 }, dateTime: { kind: 'dateTime', stepSeconds: 60 }, textLength: { kind: 'textLength' }, textPattern: { kind: 'textPattern' }, choice: { kind: 'choice' }, yesNo: { kind: 'yesNo' } } as const;
  const wrong: [ValueKind, ClassKind][] = [];
  let tried = 0;
  for (const kind of Object.keys(types) as ValueKind[]) {
    for (const offered of offeredClasses(kind)) {
      const choices = kind === 'choice' ? role.choices : [{ id: 'yes', value: 'yes', aliases: [], valid: true, outcome: '' }];
      const field: Field = { ...role, id: fieldId('x'), type: types[kind], choices, intervals: [], classes: [{ id: 'k', kind: offered.kind, name: '', example: offered.example, limit: 3, valid: false, outcome: '' }] };
      const judge = rangeJudge(model({ fields: [field] }));
      const value: FieldValue = offered.kind === 'missing' ? { kind: 'missing' } : text(offered.example);
      const holds = itemsShownByRow(judge, new Map([[field.id, value]])).includes(coverageItems({ title: '', polarity: 'both', model: model({ fields: [field] }) }).at(-1)!.key);
      const strict = !itemsShownByRow(judge, new Map([[field.id, text(good[kind])]])).some((k) => k.includes(':class:'));
      if (!holds || !strict) wrong.push([kind, offered.kind]);
      tried += 1;
    }
  }
  expect(wrong).toEqual([]);
  expect(tried).toBeGreaterThan(25);
});

test('a text shows the pattern it matches as a whole; a pattern that takes others for ever takes no time', () => {
  const part = (id: string, pattern: string, valid = true, example = 'M-2207') => ({ id, name: id, pattern, example, valid, outcome: '' });
  const field: Field = { ...role, id: fieldId('number'), type: { kind: 'textPattern' }, choices: [], classes: [], patterns: [part('meter', 'M-[0-9]{4}'), part('old', '[0-9]+', false, 'x'), part('endless', '(a+)+$'), part('broken', '(?=a)')] };
  const one = model({ fields: [field] });
  const shows = (t: string) => itemsShownByRow(rangeJudge(one), new Map([[field.id, text(t)]]));
  expect([shows('M-2207'), shows('M-22071'), shows('77'), shows(`${'a'.repeat(5_000)}!`)]).toEqual([['number:part:meter'], [], ['number:part:old'], []]);
  expect(rangeProblems(one)).toEqual([
    { code: 'example_apart', field: 'number', name: 'old', example: 'x' },
    { code: 'example_apart', field: 'number', name: 'endless', example: 'M-2207' },
    { code: 'pattern_unreadable', field: 'number', name: 'broken', pattern: '(?=a)' },
  ]);
  expect(coverageItems({ title: '', polarity: 'both', model: one }).map((i) => [i.name, i.sample])).toEqual([['meter', 'M-2207'], ['old', null], ['endless', null]]);
});

test('a boundary moves as far as both intervals keep a value', () => {
  const moved = (steps: bigint) => moveBoundary({ ...amount, intervals: amount.intervals.map((i) => (i.id === 'ok' ? { ...i, to: '5' } : i)) }, 'low', 'ok', steps).intervals.map((i) => `${i.from}…${i.to}`);
  expect([moved(2n), moved(-3n), moved(99n)]).toEqual([['…2', '3…5'], ['…-3', '-2…5'], ['…4', '5…5']]);
});

test('length counts characters, not UTF-16 units', () => {
  const name: Field = { ...amount, type: { kind: 'textLength' }, intervals: [{ id: 'two', name: 'two', from: '2', to: '2', valid: true, outcome: '' }] };
  expect(itemsShownByRow(rangeJudge(model({ fields: [name] })), new Map([[name.id, text('💧💧')]]))).toEqual(['amount:part:two', 'amount:edge:2']);
});

describe('problems are reported with their place, not repaired', () => {
  const problems = (...intervals: [string, string, string][]) => rangeProblems(model({ fields: [{ ...amount, intervals: intervals.map(([id, from, to]) => ({ id, name: id, from, to, valid: true, outcome: '' })) }] }));
  test('adjoining intervals are clean', () => expect(problems(['a', '', '5'], ['b', '6', ''])).toEqual([]));
  test('a hole names its first and last value', () => expect(problems(['a', '', '5'], ['b', '9', ''])).toEqual([{ code: 'intervals_leave_hole', field: 'amount', lower: 'a', upper: 'b', from: '6', to: '8' }]));
  test('an overlap names both', () => expect(problems(['a', '0', '5'], ['b', '5', '9'])).toEqual([{ code: 'intervals_overlap', field: 'amount', lower: 'a', upper: 'b' }]));
  test('an interval inside a wide one overlaps, and what follows is measured from the wide one', () =>
    expect(problems(['wide', '0', '100'], ['inner', '10', '20'], ['next', '101', ''])).toEqual([{ code: 'intervals_overlap', field: 'amount', lower: 'wide', upper: 'inner' }]));
  test('crossed bounds are an empty interval', () => expect(problems(['a', '9', '5'])).toEqual([{ code: 'interval_empty', field: 'amount', interval: 'a' }]));
  test('unreadable bounds are named by side', () =>
    expect(problems(['a', 'x', '1.5'])).toEqual([
      { code: 'bound_unreadable', field: 'amount', interval: 'a', side: 'from', text: 'x' },
      { code: 'bound_unreadable', field: 'amount', interval: 'a', side: 'to', text: '1.5' },
    ]));
});
