import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { OwnField } from '../fields/index.ts';
import { testField } from '../fields/testField/index.ts';
import { HAS_VALUES, completed, parseQuery, partAt, queryFieldsOf, queryNameOf, queryValuesFor, spanOf, type QueryNode } from './index.ts';

const NONE: readonly OwnField[] = [];

/** A query as somebody would draw it: `all(a, not b)`. */
function drawn(node: QueryNode): string {
  switch (node.kind) {
    case 'all':
    case 'any':
      return `${node.kind}(${node.of.map(drawn).join(', ')})`;
    case 'not':
      return `not ${drawn(node.of)}`;
    case 'words':
      return `“${node.words}”`;
    case 'field':
      return `${node.field} ${node.value}`;
    case 'number':
      return `${node.field} ${node.is} ${node.than}`;
    case 'updated':
      return `updated ${node.is} ${node.than.kind}`;
    case 'own':
      return `own ${node.field.name} ${node.asked === 'text' ? node.text : node.asked === 'number' ? `${node.is} ${node.than}` : node.asked === 'day' ? `${node.is} ${node.than.kind}` : node.asked}`;
  }
}
const read = (text: string, own = NONE): string => drawn(parseQuery(text, own).root);
const problems = (text: string, own = NONE): string[] => parseQuery(text, own).problems.map((p) => `${p.code} ${text.slice(p.at, p.at + p.length)}`);

test.each([
  ['', 'all()'],
  ['meter', '“meter”'],
  ['state:draft module:"Tariff bands" -has:row "roll over" meter', 'all(state draft, module Tariff bands, not has rows, “roll over”, “meter”)'],
  ['state:"in review" execution:byhand covers:k-3 state:ANY', 'all(state inReview, execution byHand, covers k-3, state any)'],
  ['a or b c', 'any(“a”, all(“b”, “c”))'],
  ['(a OR b) -c', 'all(any(“a”, “b”), not “c”)'],
  ['-(a b) or -(-c)', 'any(not all(“a”, “b”), not not “c”)'],
  ['minutes>10 steps<=3 coverage<50% rows:0 minutes=2,5', 'all(minutes > 10, steps <= 3, coverage < 50, rows = 0, minutes = 2.5)'],
  ['updated<7d updated:today updated>=2026-02-28', 'all(updated < ago, updated = today, updated >= day)'],
  ['-"or" or "x or y"', 'any(not “or”, “x or y”)'],
  // A colon behind a word that is no field, or a dash inside one.
  ['well-known 12:30', 'all(“well-known”, “12:30”)'],
])('%s', (text, expected) => {
  expect([read(text), problems(text)]).toEqual([expected, []]);
});

test.each([
  ['colour:red has:wings ok', '“ok”', ['query_field_unknown colour:red', 'query_value_unknown has:wings']],
  ['state:foo risk:urgent covers:C-3 requirement:K-1 id:x updated:2026-02-30 coverage:2000 steps:1.5', 'all()', ['state:foo', 'risk:urgent', 'covers:C-3', 'requirement:K-1', 'id:x', 'updated:2026-02-30', 'coverage:2000', 'steps:1.5'].map((t) => `query_value_unknown ${t}`)],
  ['tag: a', '“a”', ['query_value_missing tag:']],
  ['state>draft', 'all()', ['query_not_compared state>draft']],
  ['a "roll ov', 'all(“a”, “roll ov”)', ['query_quote_open "roll ov']],
  ['module:"Tar', 'module Tar', ['query_quote_open module:"Tar']],
  ['(a or b', 'any(“a”, “b”)', ['query_bracket_open (']],
  ['a) b', 'all(“a”, “b”)', ['query_bracket_stray )']],
  ['or a or', '“a”', ['query_or_alone or', 'query_or_alone or']],
  // What was not understood does not make everything hold.
  ['a or colour:red', '“a”', ['query_field_unknown colour:red']],
  ['() a', '“a”', []],
])('half-written %s is read as far as it goes', (text, expected, found) => {
  expect([read(text), problems(text)]).toEqual([expected, found]);
});

test('every text is read, and every problem stands in it', () => {
  const piece = fc.constantFrom('(', ')', '-', '"', ' ', 'or', 'state:', 'draft', '<', '=', 'x', 'updated>', '7d', '😀', 'has:rows');
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 14 }).map((pieces) => pieces.join('')), (text) => {
      for (const { at, length } of parseQuery(text, NONE).problems) expect([at >= 0, length > 0, at + length <= text.length]).toEqual([true, true, true]);
    }),
    { numRuns: 2_000, seed: 11 },
  );
});

test('brackets go so deep and no deeper, however many there are', () => {
  const { root, problems: found } = parseQuery(`${'('.repeat(30_000)}a`, NONE);
  expect([drawn(root), found.filter((p) => p.code === 'query_too_deep').length, found.filter((p) => p.code === 'query_bracket_open').length]).toEqual(['“a”', 29_950, 50]);
});

test('a closed set names what it knows; a kind is offered what it can have', () => {
  expect(parseQuery('has:wings', NONE).problems).toMatchObject([{ known: HAS_VALUES }]);
  expect([queryFieldsOf('case', NONE).includes('technique'), queryFieldsOf('condition', NONE).includes('technique'), queryFieldsOf('condition', NONE).includes('steps')]).toEqual([false, true, false]);
  expect([queryValuesFor('has', 'dataSet'), queryValuesFor('is', 'requirement'), queryValuesFor('owner', 'case')]).toEqual([['rows', 'tags', 'module', 'agreed'], ['broken', 'newer'], []]);
});

test('when something must have been updated', () => {
  const now = Date.parse('2026-11-28T10:00:00Z');
  const span = (text: string): string[] => {
    const [node] = [parseQuery(`updated${text}`, NONE).root];
    if (node?.kind !== 'updated') throw new Error(text);
    const { from, to } = spanOf(node.is, node.than, now);
    return [from, to].map((at) => (at === null ? '' : new Date(at).toISOString().slice(0, 16)));
  };
  expect(span('<2d')).toEqual(['2026-11-26T10:00', '']);
  expect(span('>12h')).toEqual(['', '2026-11-27T22:00']);
  expect(span(':today')).toEqual(['2026-11-28T00:00', '2026-11-29T00:00']);
  expect(span('>2026-11-02')).toEqual(['2026-11-03T00:00', '']);
  expect(span('<=2026-11-02')).toEqual(['', '2026-11-03T00:00']);
  expect(span('<2026-11-02')).toEqual(['', '2026-11-02T00:00']);
});

describe('completing', () => {
  /** `|` is the caret. */
  const at = (marked: string) => partAt(marked.replace('|', ''), marked.indexOf('|'), NONE);
  test.each([
    ['st|', { field: null, typed: 'st' }],
    ['a -mod|', { field: null, typed: 'mod' }],
    ['state:dr|', { field: 'state', typed: 'dr' }],
    ['-tag:"roll o|', { field: 'tag', typed: 'roll o' }],
    ['a |', { field: null, typed: '' }],
    ['(|', { field: null, typed: '' }],
  ])('%s', (marked, expected) => expect(at(marked)).toMatchObject(expected));
  test.each(['"roll ov|', 'minutes>1|', 'colour:r|', 'st|ate:x'])('%s offers nothing', (marked) => expect(at(marked)).toBeNull());
  test('puts a field’s colon, a value’s quotes and a space', () => {
    const put = (marked: string, chosen: string): string => {
      const part = at(marked);
      if (part === null) throw new Error(marked);
      const { text, caret } = completed(marked.replace('|', ''), part, chosen);
      return `${text.slice(0, caret)}|${text.slice(caret)}`;
    };
    expect([put('x mod|', 'module'), put('-module:bi|', 'Tariff bands'), put('state:d| y', 'draft')]).toEqual(['x module:|', '-module:"Tariff bands" |', 'state:draft |y']);
  });
});

describe('fields of the project’s own', () => {
  const own = [
    testField('Test environment', 'choices', { choices: ['Kiosk', 'Web, new'] }), testField('Priority', 'text'), testField('Due', 'date'), testField('Cost', 'number'), testField('Signed off', 'yesNo'), testField('Gone', 'text', { removed: true }), testField('Notes', 'longText'),
  ];
  test.each([
    ['test-environment:kiosk', 'own Test environment Kiosk'],
    ['Test-Environment:"web, new"', 'own Test environment Web, new'],
    ['own.priority:urgent priority:high', 'all(own Priority urgent, priority high)'],
    ['due<7d due:2026-11-28', 'all(own Due < ago, own Due = day)'],
    ['-cost>=2,5 cost:-3', 'all(not own Cost >= 2.5, own Cost = -3)'],
    ['signed-off:YES has:due -has:signed-off', 'all(own Signed off yes, own Due anything, not own Signed off anything)'],
    ['notes:"as agreed"', 'own Notes as agreed'],
    // What we have ourselves comes first.
    ['has:owner', 'has owner'],
  ])('%s', (text, expected) => expect([read(text, own), problems(text, own)]).toEqual([expected, []]));
  test.each([
    ['test-environment:moon', 'query_value_unknown test-environment:moon'],
    ['gone:x', 'query_field_unknown gone:x'],
    ['cost:much', 'query_value_unknown cost:much'],
    ['own.priority<x', 'query_not_compared own.priority<x'],
    ['due:', 'query_value_missing due:'],
    ['due:2026-02-30', 'query_value_unknown due:2026-02-30'],
  ])('%s is marked', (text, expected) => expect(problems(text, own)).toEqual([expected]));
  test('are offered where they stand, by the name that asks for them', () => {
    expect(queryFieldsOf('case', own).flatMap((f) => (typeof f === 'string' ? [] : [queryNameOf(f)]))).toEqual(['test-environment', 'own.priority', 'due', 'cost', 'signed-off', 'notes']);
    expect(partAt('test-environment:ki', 19, own)).toMatchObject({ field: own[0], typed: 'ki' });
  });
});
