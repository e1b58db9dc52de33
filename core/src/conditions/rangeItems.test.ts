import { expect, test, describe } from '@jest/globals';
import fc from 'fast-check';
import { formatBound, type ValueType } from '../values/index.ts';
import { boundaryValues, coverageItems, fieldId, itemsShownByRow, rangeJudge, readIntervals, type BoundaryRule, type Field, type Interval, type ValueRangesModel } from './index.ts';

const interval = (name: string, from: string, to: string, valid = true): Interval => ({ id: name, name, from, to, valid, outcome: '' });
const field = (type: ValueType, intervals: readonly Interval[]): Field => ({ id: fieldId('f'), name: 'value', type, unit: '', required: true, intervals, choices: [], patterns: [], classes: [] });
const model = (boundaries: BoundaryRule, ...fields: Field[]): ValueRangesModel => ({ kind: 'valueRanges', boundaries, allowInvalidTogether: false, fields });
const extents = (m: ValueRangesModel, kind: string): string[] => coverageItems({ title: '', polarity: 'both', model: m }).filter((i) => i.kind === kind).map((i) => i.extent);

describe('worked examples', () => {
  const bands = field({ kind: 'whole' }, [interval('negative', '', '-1', false), interval('first', '0', '5'), interval('second', '6', '15'), interval('third', '16', '25'), interval('fourth', '26', '')]);

  test('2: tariff bands have 5 partitions and 8 two-value boundary items', () => {
    expect(extents(model('twoValue', bands), 'partition')).toEqual(['… -1', '0 … 5', '6 … 15', '16 … 25', '26 …']);
    expect(extents(model('twoValue', bands), 'boundary')).toEqual(['-1', '0', '5', '6', '15', '16', '25', '26']);
  });

  test('2: three-value boundaries add the neighbours of every edge, 16 in all', () => {
    expect(extents(model('threeValue', bands), 'boundary')).toEqual(['-2', '-1', '0', '1', '4', '5', '6', '7', '14', '15', '16', '17', '24', '25', '26', '27']);
  });

  test('3: the outside values of 64-bit limits are exact, digit for digit', () => {
    const int64 = field({ kind: 'whole' }, [interval('64-bit', '-9223372036854775808', '9223372036854775807')]);
    expect(extents(model('twoValue', int64), 'boundary')).toEqual(['-9223372036854775809', '-9223372036854775808', '9223372036854775807', '9223372036854775808']);
  });

  test('4: decimals step by 0.01 and keep their two places', () => {
    const percent = field({ kind: 'decimal', step: '0.01' }, [interval('below', '', '-0.01', false), interval('share', '0.00', '100.00'), interval('above', '100.01', '', false)]);
    expect(extents(model('twoValue', percent), 'boundary')).toEqual(['-0.01', '0.00', '100.00', '100.01']);
  });

  test('whole numbers 1 to 100: three-value items are 0, 1, 2, 99, 100, 101', () => {
    expect(extents(model('threeValue', field({ kind: 'whole' }, [interval('valid', '1', '100')])), 'boundary')).toEqual(['0', '1', '2', '99', '100', '101']);
  });

  test('0.1 + 0.2 lands on 0.3: thirty steps of 0.01', () => {
    const m = model('twoValue', field({ kind: 'decimal', step: '0.01' }, [interval('low', '0', '0.29'), interval('high', '0.30', '1')]));
    expect(extents(m, 'boundary')).toEqual(['-0.01', '0.00', '0.29', '0.30', '1.00', '1.01']);
  });

  test('dates follow the calendar at month ends and in leap years', () => {
    const m = (from: string, to: string) => extents(model('twoValue', field({ kind: 'date' }, [interval('month', from, to)])), 'boundary');
    expect(m('2028-02-01', '2028-02-29')).toEqual(['2028-01-31', '2028-02-01', '2028-02-29', '2028-03-01']);
    expect(m('2100-02-01', '2100-02-28')).toEqual(['2100-01-31', '2100-02-01', '2100-02-28', '2100-03-01']);
  });

  test('a length below zero and a time before midnight cannot be written and are no items', () => {
    expect(extents(model('twoValue', field({ kind: 'textLength' }, [interval('any', '0', '3')])), 'boundary')).toEqual(['0 characters', '3 characters', '4 characters']);
    expect(extents(model('twoValue', field({ kind: 'time', stepSeconds: 60 }, [interval('day', '00:00', '23:59')])), 'boundary')).toEqual(['00:00', '23:59', '24:00']);
  });

  test('a one-value interval shares its items with its neighbours', () => {
    const m = model('twoValue', field({ kind: 'whole' }, [interval('less', '', '4'), interval('five', '5', '5'), interval('more', '6', '')]));
    expect(extents(m, 'boundary')).toEqual(['4', '5', '6']);
  });
});

/** Cuts of a line into adjoining intervals, the outer two open or closed. */
const cutLine = fc
  .record({ cuts: fc.uniqueArray(fc.integer({ min: -40, max: 40 }), { minLength: 1, maxLength: 6 }), closedBelow: fc.boolean(), closedAbove: fc.boolean() })
  .map(({ cuts, closedBelow, closedAbove }) => {
    const sorted = [...cuts].sort((a, b) => a - b);
    const first = (sorted[0] ?? 0) - 5;
    const last = (sorted.at(-1) ?? 0) + 5;
    return [...sorted, null].map((cut, i) =>
      interval(`i${i}`, i === 0 ? (closedBelow ? String(first) : '') : String(sorted[i - 1]), cut === null ? (closedAbove ? String(last) : '') : String(cut - 1), i % 2 === 0),
    );
  });

describe('properties', () => {
  test('a value in a partition shows it and no other partition', () => {
    fc.assert(
      fc.property(cutLine, fc.integer({ min: -60, max: 60 }), (intervals, value) => {
        const judge = rangeJudge(model('none', field({ kind: 'whole' }, intervals)));
        const holding = intervals.filter((i) => (i.from === '' || Number(i.from) <= value) && (i.to === '' || value <= Number(i.to))).map((i) => `f:part:${i.id}`);
        expect(itemsShownByRow(judge, new Map([[fieldId('f'), { kind: 'value', text: String(value) }]]))).toEqual(holding);
      }),
    );
  });

  test('boundary sets equal their definition, tried on every value', () => {
    fc.assert(
      fc.property(cutLine, fc.constantFrom<BoundaryRule>('twoValue', 'threeValue'), (intervals, rule) => {
        const read = readIntervals({ kind: 'whole' }, intervals);
        const isEdge = (v: bigint) => read.some(({ from, to }) => v === from || v === to);
        const beyondEdge = (v: bigint) => read.some(({ from, to }) => v === (from ?? v) - 1n || v === (to ?? v) + 1n);
        const besideEdge = (v: bigint) => isEdge(v - 1n) || isEdge(v + 1n);
        const expected = Array.from({ length: 141 }, (_, i) => BigInt(i - 70)).filter((v) => isEdge(v) || (rule === 'twoValue' ? beyondEdge(v) : besideEdge(v)));
        expect(boundaryValues(read, rule)).toEqual(expected);
      }),
    );
  });

  test('every sample shows the item it is made for', () => {
    fc.assert(
      fc.property(cutLine, fc.constantFrom<BoundaryRule>('twoValue', 'threeValue'), fc.constantFrom<ValueType>({ kind: 'whole' }, { kind: 'decimal', step: '1' }, { kind: 'date' }), (cuts, rule, type) => {
        const intervals = type.kind === 'date' ? cuts.map((i) => ({ ...i, from: i.from && (formatBound(type, BigInt(i.from)) ?? ''), to: i.to && (formatBound(type, BigInt(i.to)) ?? '') })) : cuts;
        const m = model(rule, field(type, intervals));
        const judge = rangeJudge(m);
        for (const item of coverageItems({ title: '', polarity: 'both', model: m })) {
          expect(itemsShownByRow(judge, new Map([[fieldId('f'), { kind: 'value', text: item.sample ?? '' }]]))).toContain(item.key);
        }
      }),
    );
  });
});
