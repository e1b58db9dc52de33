import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ARTEFACT_KINDS, type CaseId } from '../artefacts/index.ts';
import { NO_ITEMS } from '../coverage/index.ts';
import { testField } from '../fields/testField/index.ts';
import { LIST_COLUMNS, columnsOf, grouped, groupsOf, ownColumn, sorted, valueIn, type Listed } from './index.ts';

const now = Date.parse('2026-11-28T10:00:00Z');
const listed = (id: CaseId, part: Partial<Listed> = {}): Listed => ({ kind: 'case', id, title: `Case ${id}`, state: 'draft', version: 1, author: '', at: '2026-11-28T09:00:00Z', broken: false, own: {}, modules: [''], ...part });
const fields = [testField('Runs on', 'choices', { choices: ['Phone', 'Kiosk'] }), testField('Cost', 'number'), testField('Story', 'link'), testField('Old', 'text', { removed: true }), testField('Asked by', 'person', { of: ['requirement'] })];
const project = { fields, modules: ['Zulu', 'Alpha'], priorities: ['must', 'should', 'could'] };
const ids = (list: readonly Listed[]): string => list.map((l) => l.id).join(' ');

describe('sorting', () => {
  test('ids and numbers as numbers, closed sets in their order, nothing last either way', () => {
    const list = [listed('C-10', { priority: 'low', estimate: 2, instances: 3 }), listed('C-9', { priority: 'high' }), listed('C-2', { estimate: 5 })];
    expect(ids(sorted(list, { column: 'id', descending: false }, project))).toBe('C-2 C-9 C-10');
    expect(ids(sorted(list, { column: 'priority', descending: false }, project))).toBe('C-9 C-10 C-2');
    expect(ids(sorted(list, { column: 'priority', descending: true }, project))).toBe('C-10 C-9 C-2');
    // 2 minutes three times are more than 5 once.
    expect(ids(sorted(list, { column: 'minutes', descending: true }, project))).toBe('C-10 C-2 C-9');
  });
  test('shares by themselves; of nothing there is none', () => {
    const of = (shown: number, gap: number) => ({ standings: { ...NO_ITEMS, shown, gap } });
    expect(ids(sorted([listed('C-1', of(1, 1)), listed('C-2', of(0, 0)), listed('C-3', of(3, 6)), listed('C-4', of(0, 2))], { column: 'coverage', descending: false }, project))).toBe('C-4 C-3 C-1 C-2');
  });
  test('keeps all, each once, and the order of equals', () => {
    const some = fc.record({ state: fc.constantFrom('draft', 'agreed'), owner: fc.constantFrom('', 'Rui', 'ana'), tags: fc.subarray(['b', 'a']), own: fc.record({ 'runs-on': fc.subarray(['kiosk', 'phone', 'moon']), cost: fc.constantFrom('10', '9', 'dear') }, { requiredKeys: [] }), steps: fc.option(fc.nat(3), { nil: undefined }) });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 30 }), fc.constantFrom(...LIST_COLUMNS, ...fields.map((f) => ownColumn(f.id))), fc.boolean(), (parts, column, descending) => {
        const list = parts.map(({ steps, ...part }, i) => listed(`C-${i + 1}`, steps === undefined ? part : { ...part, steps }));
        const result = sorted(list, { column, descending }, project);
        expect(new Set(result)).toEqual(new Set(list));
        expect(result).toHaveLength(list.length);
        // Sorted again nothing moves; and whoever says the same stays behind whom it was behind.
        expect(sorted(result, { column, descending }, project)).toEqual(result);
        for (const [i, one] of result.entries()) {
          const next = result[i + 1];
          if (next !== undefined && JSON.stringify(valueIn(column, one, fields)) === JSON.stringify(valueIn(column, next, fields))) expect(list.indexOf(one)).toBeLessThan(list.indexOf(next));
        }
      }),
      { seed: 5 },
    );
  });
});

describe('grouping', () => {
  const shown = (list: readonly Listed[], column: Parameters<typeof grouped>[1]): string => grouped(list, column, now, project).map((g) => `${g.value ?? '–'}: ${ids(g.members)}`).join('; ');

  test('in the order of the column; what has several values stands under each, what has none last', () => {
    const list = [listed('C-1', { tags: ['smoke', 'night'], priority: 'low' }), listed('C-2', { priority: 'high' }), listed('C-3', { tags: ['night'], priority: 'high' })];
    expect(shown(list, 'tags')).toBe('night: C-1 C-3; smoke: C-1; –: C-2');
    expect(shown(list, 'priority')).toBe('high: C-2 C-3; low: C-1');
    expect(shown([listed('C-1', { modules: ['Tariff 10'] }), listed('C-2', { modules: ['Tariff 9'] }), listed('C-3')], 'module')).toBe('Tariff 9: C-2; Tariff 10: C-1; –: C-3');
  });
  test('modules in the order of the project, those without a place behind them', () => {
    expect(shown([listed('C-1', { modules: ['Bravo'] }), listed('C-2', { modules: ['Alpha'] }), listed('C-3', { modules: ['Zulu'] }), listed('C-4')], 'module')).toBe('Zulu: C-3; Alpha: C-2; Bravo: C-1; –: C-4');
    expect(shown([listed('C-1', { priority: 'could' }), listed('C-2', { priority: 'high' }), listed('C-3', { priority: 'must' })], 'priority')).toBe('must: C-3; could: C-1; high: C-2');
  });
  test('ages', () => {
    const at = (id: CaseId, day: string) => listed(id, { at: `${day}T08:00:00Z` });
    expect(shown([at('C-1', '2025-01-01'), at('C-2', '2026-11-28'), at('C-3', '2026-11-22'), at('C-4', '2026-11-10')], 'updated')).toBe('today: C-2; week: C-3; month: C-4; earlier: C-1');
  });
  test('a condition stands where its worst item stands', () => {
    expect(shown([listed('C-1', { standings: { ...NO_ITEMS, shown: 9, gap: 1 } }), listed('C-2', { standings: { ...NO_ITEMS, shown: 2 } })], 'standing')).toBe('gap: C-1; shown: C-2');
  });
});

test('every kind has columns and groups of its own, and begins with what names it', () => {
  for (const kind of ARTEFACT_KINDS) {
    expect(columnsOf(kind, fields).slice(0, 2)).toEqual(['id', 'title']);
    expect(new Set(columnsOf(kind, fields)).size).toBe(columnsOf(kind, fields).length);
    expect(groupsOf(kind, fields).every((column) => columnsOf(kind, fields).includes(column))).toBe(true);
  }
});

describe('fields of the project’s own', () => {
  const list = [listed('C-1', { own: { 'runs-on': ['kiosk', 'phone'], cost: '10' } }), listed('C-2', { own: { cost: '9.5' } }), listed('C-3', { own: { 'runs-on': ['kiosk'], cost: 'dear' } })];
  test('are columns of the kinds that have them, until they are removed', () => {
    expect([columnsOf('case', fields).filter((c) => c.startsWith('own:')), columnsOf('requirement', fields).filter((c) => c.startsWith('own:asked')), groupsOf('case', fields).filter((c) => c.startsWith('own:'))])
      .toEqual([['own:runs-on', 'own:cost', 'own:story'], ['own:asked-by'], ['own:runs-on', 'own:cost']]);
  });
  test('numbers sort as numbers, choices in their order; a field that is gone says nothing', () => {
    expect([ids(sorted(list, { column: 'own:cost', descending: false }, project)), ids(sorted(list, { column: 'own:runs-on', descending: false }, project))]).toEqual(['C-2 C-1 C-3', 'C-1 C-3 C-2']);
    expect([valueIn('own:cost', list[1]!, fields), valueIn('own:runs-on', list[0]!, fields), valueIn('own:nothing', list[0]!, fields)]).toEqual([9.5, ['Phone', 'Kiosk'], null]);
    expect(grouped(list, 'own:runs-on', now, project).map((g) => `${g.value ?? '–'}: ${ids(g.members)}`)).toEqual(['Phone: C-1', 'Kiosk: C-1 C-3', '–: C-2']);
  });
});
