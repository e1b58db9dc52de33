import { describe, expect, test } from '@jest/globals';
import { FIRST_PRIORITIES, ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { parseQuery } from '@caderno/core/find';
import { LIST_COLUMNS, columnsOf, groupsOf } from '@caderno/core/listing';
import { caseHead } from '../../test/heads.ts';
import { ownField } from '../../test/ownField.ts';
import type { ListedHead } from '../api/index.ts';
import { changeOf, changedFieldsOf, changedWord, choicesOf, type ChangedField, type Filled } from './changes.ts';
import { editedField } from './EditedCell.tsx';
import { idsOf, listLines } from './listLines.ts';
import { cellText, columnWord, emptyWords, groupName } from './listWords.ts';
import { queryProblemSentence } from './queryProblemSentence.ts';
import { firstView } from './useListView.ts';

const own = [ownField('Runs on', 'choices', ['Kiosk', 'Phone']), ownField('Ready', 'yesNo'), ownField('Cost', 'number'), ownField('Colour', 'choice', ['Red']), ownField('Notes', 'longText'), ownField('Old', 'text', [], { removed: true })];
const RULES = { fields: own, priorities: ['high', 'Someday'] };
const change = (field: ChangedField, value: string, picked: Filled['picked'] = null) => changeOf({ field, value, picked }, RULES);

describe('what is changed in many', () => {
  test.each<[ChangedField, string, object, string]>([
    ['state', 'agreed', { kind: 'state', state: 'agreed' }, 'set to agreed'],
    ['module', ' Bills ', { kind: 'edit', edit: { kind: 'module', module: 'Bills' } }, 'moved to Bills'],
    ['module', '', { kind: 'edit', edit: { kind: 'module', module: '' } }, 'moved to no module'],
    ['owner', '', { kind: 'edit', edit: { kind: 'owner', owner: '' } }, 'given to nobody'],
    ['priority', 'high', { kind: 'edit', edit: { kind: 'priority', priority: 'high' } }, 'set to priority high'],
    ['priority', ' SOMEDAY', { kind: 'edit', edit: { kind: 'priority', priority: 'Someday' } }, 'set to priority Someday'],
    ['risk', 'low', { kind: 'edit', edit: { kind: 'risk', risk: 'low' } }, 'set to low risk'],
    ['type', 'apiOperation', { kind: 'edit', edit: { kind: 'type', type: 'apiOperation' } }, 'set to API operation'],
    ['caseKind', 'charter', { kind: 'edit', edit: { kind: 'caseKind', caseKind: 'charter' } }, 'set to charter'],
    ['execution', 'automated', { kind: 'edit', edit: { kind: 'execution', execution: 'automated' } }, 'set to automated'],
    ['minutes', '2,5', { kind: 'edit', edit: { kind: 'minutes', minutes: 2.5 } }, 'set to 2.5 min'],
    ['minutes', '', { kind: 'edit', edit: { kind: 'minutes', minutes: null } }, 'left without minutes'],
    ['addTag', 'smoke', { kind: 'edit', edit: { kind: 'tag', tag: 'smoke', belongs: true } }, 'tagged smoke'],
    ['takeTag', 'smoke', { kind: 'edit', edit: { kind: 'tag', tag: 'smoke', belongs: false } }, 'no longer tagged smoke'],
    ['addDepth', 'core', { kind: 'edit', edit: { kind: 'depth', depth: 'core', belongs: true } }, 'put in the depth core'],
    ['takeDepth', 'core', { kind: 'edit', edit: { kind: 'depth', depth: 'core', belongs: false } }, 'taken out of the depth core'],
    ['own:runs-on', 'phone, kiosk', { kind: 'edit', edit: { kind: 'own', field: 'runs-on', value: ['kiosk', 'phone'] } }, 'set to Runs on: Kiosk, Phone'],
    ['own:ready', 'no', { kind: 'edit', edit: { kind: 'own', field: 'ready', value: 'no' } }, 'set to Ready: no'],
    ['own:colour', 'red', { kind: 'edit', edit: { kind: 'own', field: 'colour', value: 'red' } }, 'set to Colour: Red'],
    ['own:cost', '2,5', { kind: 'edit', edit: { kind: 'own', field: 'cost', value: '2.5' } }, 'set to Cost: 2.5'],
    ['own:cost', 'nothing', { kind: 'edit', edit: { kind: 'own', field: 'cost', value: null } }, 'left without Cost'],
  ])('%s %j', (field, value, done, what) => expect(change(field, value)).toEqual({ done, what }));

  test('a condition is linked as it is now, or unlinked', () => {
    expect([change('link', '', { id: 'K-3', version: 4 }), change('unlink', '', { id: 'K-3', version: 4 })]).toMatchObject([
      { done: { edit: { kind: 'covers', condition: 'K-3', seenVersion: 4, belongs: true } }, what: 'linked to K-3' },
      { done: { edit: { belongs: false } }, what: 'unlinked from K-3' },
    ]);
  });

  test('features are linked to a requirement as it is now, or unlinked, and to nothing else', () => {
    expect([change('writtenFor', '', { id: 'R-3', version: 4 }), change('notWrittenFor', '', { id: 'R-3', version: 4 }), change('writtenFor', '', { id: 'K-3', version: 4 }), change('link', '', { id: 'R-3', version: 4 })]).toMatchObject([
      { done: { edit: { kind: 'writtenFor', requirement: 'R-3', seenVersion: 4, belongs: true, tags: '' } }, what: 'written for R-3' },
      { done: { edit: { belongs: false } }, what: 'no longer written for R-3' },
      null,
      null,
    ]);
  });

  test('what is used is pinned as it is now, or followed; nothing that nobody uses', () => {
    expect([change('pin', '', { id: 'S-3', version: 4 }), change('follow', '', { id: 'D-2', version: 4 }), change('followAgreed', '', { id: 'C-2', version: 4 }), change('pin', '', { id: 'K-3', version: 4 }), change('link', '', { id: 'S-3', version: 4 })]).toMatchObject([
      { done: { edit: { kind: 'uses', of: 'S-3', pinned: 4 } }, what: 'pinned to v4 of S-3' },
      { done: { edit: { kind: 'uses', of: 'D-2', pinned: null } }, what: 'following the latest D-2' },
      { done: { edit: { kind: 'uses', of: 'C-2', pinned: 'agreed' } }, what: 'following what is agreed of C-2' },
      null,
      null,
    ]);
  });

  test('in a text “nothing” is a word; a cell that is emptied empties its field', () => {
    expect(change('own:notes', 'nothing')?.done).toMatchObject({ edit: { value: 'nothing' } });
    expect([change('own:notes', ''), changeOf({ field: 'own:notes', value: '', picked: null, empties: true }, RULES)?.done]).toMatchObject([null, { edit: { value: null } }]);
  });

  test('what says nothing is no change', () => {
    for (const [field, value] of [['state', ''], ['state', 'inReview'], ['priority', 'urgent'], ['risk', ''], ['minutes', 'two'], ['minutes', '-1'], ['addTag', ' '], ['takeDepth', ''], ['link', 'K-3'], ['own:cost', 'dear'], ['own:runs-on', 'moon'], ['own:colour', ''], ['own:gone', 'x']] as const) expect([field, change(field, value)]).toEqual([field, null]);
  });

  test('every kind has fields with words; a closed set offers nothing that is no change', () => {
    for (const kind of ARTEFACT_KINDS) {
      expect(changedFieldsOf(kind, own).length).toBeGreaterThan(0);
      for (const field of changedFieldsOf(kind, own)) {
        expect(changedWord(field, own)).not.toBe('');
        for (const { value } of choicesOf(field, RULES) ?? []) expect([kind, field, value, change(field, value)]).toEqual([kind, field, value, expect.objectContaining({ what: expect.any(String) })]);
      }
    }
  });

  test('cells are changed where the kind has the field, and nowhere else', () => {
    expect(columnsOf('case', own).filter((column) => editedField('case', column, own) !== null)).toEqual(['title', 'state', 'module', 'priority', 'owner', 'minutes', 'caseKind', 'execution', 'own:runs-on', 'own:ready', 'own:cost', 'own:colour']);
    expect(columnsOf('condition', []).filter((column) => editedField('condition', column, []) !== null)).toEqual(['title', 'state']);
    expect(columnsOf('question', []).filter((column) => editedField('question', column, []) !== null)).toEqual(['title', 'owner']);
  });
});

describe('words', () => {
  const noTitle = (): undefined => undefined;
  test('of groups: those of closed sets are ours, the others are as they were written', () => {
    expect([groupName('priority', 'high', noTitle, own), groupName('tags', 'roll over', noTitle, own), groupName('owner', null, noTitle, own), groupName('updated', 'week', noTitle, own), groupName('technique', 'decisionTable', noTitle, own)]).toEqual(['High', 'roll over', 'No owner', 'Less than a week ago', 'Decision table']);
    expect([groupName('requirement', 'R-3', () => 'Valid reading', own), groupName('requirement', 'R-9', noTitle, own)]).toEqual(['R-3 Valid reading', 'R-9']);
  });
  test('of cells', () => {
    expect([cellText('minutes', null, own), cellText('steps', 12_000, own), cellText('state', 'inReview', own), cellText('tags', ['a', 'b'], own), cellText('coverage', { part: 2, of: 3 }, own), cellText('coverage', { part: 0, of: 0 }, own)]).toEqual(['', '12,000', 'In review', 'a, b', '66 %', '']);
  });
  test('of the project’s own fields: by their names, and yes or no as words', () => {
    expect([columnWord('own:runs-on', own), columnWord('own:other', own), groupName('own:ready', 'yes', noTitle, own), groupName('own:ready', null, noTitle, own), cellText('own:ready', 'no', own), cellText('own:cost', 1200, own), cellText('own:colour', 'yes', own)]).toEqual(['Runs on', 'A field that is gone', 'Yes', 'No Ready', 'No', '1,200', 'yes']);
  });
  test('every column has one', () => {
    for (const column of LIST_COLUMNS) expect(columnWord(column, own)).toMatch(/^[A-Z]/);
  });
  test('where nothing is listed', () => {
    const empty = (query: string, list: readonly unknown[] | undefined) => emptyWords('dataSet', { list, view: { query } });
    expect([empty('', []), empty('x', []), empty('', undefined), empty('', [1])]).toEqual(['No data set yet.', 'No data set matches the query.', null, null]);
  });
  test.each([
    ['shade:x', 'There is no field shade: the fields are state, module'],
    ['state:x', 'state:x can match nothing: it is one of any, draft'],
    ['tag:', 'tag wants a value'],
    ['state<draft', 'state is not compared: write state:value.'],
    ['minutes>many', 'minutes wants a number: write minutes>3.'],
    ['coverage<half', '“half” is no share in whole percent'],
    ['updated<soon', 'updated:soon can match nothing: it is one of 7d'],
    ['covers:C-3', '“C-3” is no condition: write covers:K-3.'],
    ['requirement:K-3', '“K-3” is no requirement'],
    ['id:7', '“7” is no id'],
    ['"a', 'A quote is not closed'],
    ['(a', 'A bracket is not closed.'],
    ['a)', 'A bracket is closed that was not opened.'],
    ['or', 'There is nothing beside “or”.'],
  ])('%s is told', (query, sentence) => expect(parseQuery(query, own).problems.map((problem) => queryProblemSentence(problem, 'case', own)).join(' ')).toContain(sentence));
});

test('the lines of a list: what stands in two groups is one artefact, and a line of its own in each', () => {
  const head = caseHead(1, { tags: ['night', 'smoke'] });
  const listed = { ...head, modules: [''], head } as unknown as ListedHead<'case'>;
  const lines = listLines([listed], 'tags', null, 0, { fields: own, modules: [], priorities: FIRST_PRIORITIES });
  expect(lines.map((line) => (line.kind === 'group' ? line.value : line.key))).toEqual(['night', 'night C-1', 'smoke', 'smoke C-1']);
  expect(idsOf(lines)).toEqual(['C-1']);
});

test('a list begins with groups and columns that its kind has', () => {
  for (const kind of ARTEFACT_KINDS) {
    const { group, sort, columns } = firstView(kind, own);
    expect([group === null || groupsOf(kind, own).includes(group), sort === null || columnsOf(kind, own).includes(sort.column), columns.every((c) => columnsOf(kind, own).includes(c.column))]).toEqual([true, true, true]);
  }
});
