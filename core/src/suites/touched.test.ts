import { describe, expect, test } from '@jest/globals';
import { artefactId, type ArtefactId, type CoveringId } from '../artefacts/index.ts';
import { EMPTY_CASE, newCover, newRow, parameterId, rowId, stepId, type CaseContent } from '../cases/index.ts';
import { EMPTY_DATA_SET, type DataSetContent } from '../dataSets/index.ts';
import { KINDS } from '../kinds/index.ts';
import { EMPTY_FEATURE, withText, type FeatureContent } from '../scenarios/index.ts';
import { entryId, touchOf, touchedEntries, touchedRows, touchedScenarios, type FeatureTouch, type TouchedMember } from './index.ts';

let ids = 0;
const newId = (): string => `i${(ids += 1)}`;
const NOTHING: FeatureTouch = { conditions: new Set(), requirements: new Set(), used: false, constants: [] };
const TEXT = 'Feature: Bill\n\n  Background:\n    Given a meter\n\n  Scenario: one\n    Then a bill\n\n  Scenario: two\n    Then no bill\n\n  Rule: late\n    Background:\n      Given a reminder\n\n    Scenario: three\n      Then a fee\n';
const numbered = (content: FeatureContent): FeatureContent => ({ ...content, parts: content.parts.map((part) => (part.kind === 'scenario' ? { ...part, number: ['one', 'two', 'three'].findIndex((n) => part.lines.some((l) => l.text.endsWith(`: ${n}`))) + 1 } : part)) });
const BEFORE = numbered(withText({ ...EMPTY_FEATURE, path: 'bill.feature' }, TEXT, newId));
const rewritten = (text: string): FeatureContent => numbered(withText(BEFORE, text, newId));
const touched = (content: FeatureContent, touch: Partial<FeatureTouch> = {}): number[] => touchedScenarios(content, { ...NOTHING, ...touch }).map((t) => t.number);

describe('scenarios that a change touches', () => {
  test('are those written otherwise, or under something that is', () => {
    const since = (text: string) => touched(rewritten(text), { before: BEFORE });
    expect(since(TEXT)).toEqual([]);
    expect(since(TEXT.replace('Then no bill', 'Then no bill at all'))).toEqual([2]);
    expect(since(TEXT.replace('a reminder', 'two reminders'))).toEqual([3]);
    expect(since(TEXT.replace('a meter', 'an old meter'))).toEqual([1, 2, 3]);
    // One that goes under a rule gets another background; the others stand as they stood.
    expect(since(TEXT.replace('  Scenario: two\n    Then no bill\n\n', '').concat('\n  Scenario: two\n    Then no bill\n'))).toEqual([2]);
    expect(touched(BEFORE, { before: null })).toEqual([1, 2, 3]);
    expect(touched(BEFORE)).toEqual([]);
  });

  test('cover a condition or serve a requirement that changed, or use it; that somebody looked at it changes nothing', () => {
    const [, , one, two] = BEFORE.parts;
    if (one === undefined || two === undefined) throw new Error('The feature has its parts: head, background, one, two');
    const covering: FeatureContent = { ...BEFORE, parts: BEFORE.parts.map((part) => (part.id === one.id ? { ...part, covers: [{ ...newCover('K-4', 1), expects: [stepId('s')] }] } : part)), requirements: [{ id: 'R-2', seenVersion: 1, parts: [two.id] }, { id: 'R-3', seenVersion: 1, parts: [] }] };
    expect(touched(covering, { conditions: new Set(['K-4', 'K-9']) })).toEqual([1]);
    expect(touched(covering, { requirements: new Set(['R-2']) })).toEqual([2]);
    expect(touched(covering, { requirements: new Set(['R-3']) })).toEqual([1, 2, 3]);
    expect(touched(covering, { used: true })).toEqual([1, 2, 3]);
    const seen = { ...covering, parts: covering.parts.map((part) => ({ ...part, covers: part.covers.map((c) => ({ ...c, seenVersion: 7 })) })) };
    expect(touched(seen, { before: covering })).toEqual([]);
  });

  test('hold a constant with another value, themselves or in what is said before them', () => {
    const named = rewritten(TEXT.replace('Then no bill', 'Then no bill over <limit>').replace('a reminder', 'a reminder by <mail>').replace('Then a fee', 'Then a fee of <limit>'));
    expect(touchedScenarios(named, { ...NOTHING, constants: ['limit', 'mail', 'lim'] })).toEqual([{ number: 2, constants: ['limit'] }, { number: 3, constants: ['limit', 'mail'] }]);
    expect(touchedScenarios(named, { ...NOTHING, used: true, constants: ['mail'] })).toEqual([{ number: 1, constants: [] }, { number: 2, constants: [] }, { number: 3, constants: ['mail'] }]);
  });
});

test('rows that are new or others are told where nothing else changed: of a case, of a data set, without those that are gone', () => {
  const parameter = { id: parameterId('p'), name: 'n', type: 'text' as const, default: '', description: '' };
  const row = (id: string, name: string, cell: string) => newRow(rowId(id), name, { p: cell });
  const before: CaseContent = { ...EMPTY_CASE, parameters: [parameter], rows: [row('a', 'low', '1'), row('b', '', '2'), row('c', 'high', '3')] };
  const rowsOf = (change: Partial<CaseContent>) => touchedRows(before, { ...before, ...change }, KINDS.case.meaning);
  expect(rowsOf({ rows: [row('a', 'low', '1'), row('b', '', '20'), row('d', 'new', '4')] })).toEqual(['2', 'new']);
  expect(rowsOf({ rows: [row('c', 'high', '3'), row('a', 'low', '1')], owner: 'Somebody' })).toEqual([]);
  expect(rowsOf({ rows: [row('a', 'low', '9')], parameters: [{ ...parameter, name: 'm' }] })).toBeNull();
  const set: DataSetContent = { ...EMPTY_DATA_SET, parameters: before.parameters, rows: before.rows };
  expect(touchedRows(set, { ...set, rows: [row('a', 'low', '1'), row('b', '', '2'), row('c', 'high', '30')] }, KINDS.dataSet.meaning)).toEqual(['high']);
});

test('a suite of them has a part for each reason, the strongest that holds', () => {
  const C = (n: number) => artefactId('case', n);
  const touch = (of: CoveringId, through: readonly ArtefactId[], ...constants: readonly string[]): TouchedMember => ({ of, through, constants, rows: null });
  const members = [touch(C(1), ['K-1', C(1)], 'limit'), touch(C(2), ['R-1', 'S-1']), touch('F-1/2', ['F-1']), touch(C(3), ['K-1']), touch(C(4), [], 'limit')];
  expect(members.map(touchOf)).toEqual(['itself', 'uses', 'itself', 'covers', 'uses']);
  const entries = touchedEntries(members, (touch) => touch.toUpperCase(), () => entryId(newId()));
  expect(entries.map((e) => (e.kind === 'part' ? e.title : e.of))).toEqual(['ITSELF', C(1), 'F-1/2', 'USES', C(2), C(4), 'COVERS', C(3)]);
  expect(new Set(entries.map((e) => e.id)).size).toBe(entries.length);
  expect(touchedEntries([], (touch) => touch, () => entryId(newId()))).toEqual([]);
});
