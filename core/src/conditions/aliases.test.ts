import { expect, test } from '@jest/globals';
import { EMPTY_CONDITION, conditionKind, coverageItems, fieldId, namedValuesOf, withAlias, type CombinationModel, type ConditionContent, type DecisionTableModel } from './index.ts';

const f = fieldId('f');
const table: DecisionTableModel = {
  kind: 'decisionTable',
  conditions: [{ id: f, name: 'household', values: [{ id: 'v1', value: '1', aliases: [] }, { id: 'v2', value: '2', aliases: ['two'] }] }],
  actions: [],
  rules: [{ id: 'r', entries: { [f]: ['v1'] }, impossible: false, actions: {} }],
};
const combination: CombinationModel = { kind: 'combination', factors: [{ id: f, name: 'x', values: [{ id: 'v', value: 'a', aliases: [], valid: true, base: false, outcome: '' }] }], constraints: [], strength: 'pairs', groups: [], seed: 1 };
const content = (model: ConditionContent['model']): ConditionContent => ({ ...EMPTY_CONDITION, title: 'K', model });

test('another name of a value is taken once, is a name of that value alone, and changes neither meaning nor items', () => {
  const known = withAlias(withAlias(table, f, 'v1', 'one'), f, 'v1', 'one');
  expect(namedValuesOf(known, f)?.map((v) => v.aliases)).toEqual([['one'], ['two']]);
  expect(namedValuesOf(withAlias(table, f, 'v1', '1'), f)?.[0]?.aliases).toEqual([]);
  expect(conditionKind.meaning(content(known))).toEqual(conditionKind.meaning(content(table)));
  expect(coverageItems(content(known))).toEqual(coverageItems(content(table)));
  expect(conditionKind.meaning(content({ ...table, rules: [] }))).not.toEqual(conditionKind.meaning(content(table)));
  expect(namedValuesOf(withAlias(combination, f, 'v', 'alpha'), f)?.[0]?.aliases).toEqual(['alpha']);
  expect([namedValuesOf(table, fieldId('no such')), namedValuesOf({ kind: 'plain' }, f)]).toEqual([null, null]);
});
