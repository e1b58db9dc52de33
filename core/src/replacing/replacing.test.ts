import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_REQUIREMENT } from '../basis/index.ts';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '../cases/index.ts';
import { KINDS, type KindAndContent } from '../kinds/index.ts';
import { ARTEFACT_KINDS } from '../artefacts/index.ts';
import { ownTextFields } from '../fields/index.ts';
import { testField } from '../fields/testField/index.ts';
import { NO_OWN_TEXTS, TEXT_PARTS, finderOf, placeName, placesFound, replacedIn, textPlaces, withReplaced, type Search } from './index.ts';
import { pace } from '../../../scripts/pace.mjs';

const search = (text: string, replacement: string, more: Partial<Search> = {}): Search => ({ text, replacement, isPattern: false, matchCase: false, wholeWords: false, inNames: false, ...more });
const pattern = { isPattern: true };
const ALL = new Set(TEXT_PARTS);

describe('what is found in a text, and what stands there afterwards', () => {
  const replaced = (text: string, s: Search): string => replacedIn(text, finderOf(s)!(text));
  test.each<[string, Search, string]>([
    ['Read the Meter, a METER', search('meter', 'dial'), 'Read the dial, a dial'],
    ['Read the Meter, a METER', search('METER', 'dial', { matchCase: true }), 'Read the Meter, a dial'],
    ['bill, bills, rebill, bill_2', search('bill', 'note', { wholeWords: true }), 'note, bills, rebill, bill_2'],
    ['(bill)-bill', search('bill', 'note', { wholeWords: true }), '(note)-note'],
    ['ação, nação', search('ação', 'x', { wholeWords: true }), 'x, nação'],
    ['aaaa', search('aa', 'a'), 'aa'],
    ['İstanbul METER', search('meter', 'dial'), 'İstanbul dial'],
    ['enter <meter id> of the meter', search('meter', 'dial'), 'enter <meter id> of the dial'],
    ['enter <meter id> of the meter', search('meter', 'dial', { inNames: true }), 'enter <dial id> of the dial'],
    ['the <meter', search('meter', 'dial'), 'the <dial'],
    ['see https://meter.example/meter and the meter', search('meter', 'dial'), 'see https://meter.example/meter and the dial'],
    ['costs 1,234 and 5,678', search('(\\d),(\\d{3})', '$1.$2', pattern), 'costs 1.234 and 5.678'],
    ['Tap tap', search('^tap', '$$9', pattern), '$9 tap'],
    ['Tap tap', search('^tap', 'x', { ...pattern, matchCase: true }), 'Tap tap'],
    ['abc', search('x*', '!', pattern), 'abc'],
    ['a(b', search('a(b', 'c'), 'c'],
    ['one', search('(o)(x)?', '$1$2$7', pattern), 'one'],
  ])('%j', (text, s, expected) => expect(replaced(text, s)).toBe(expected));
  test('nothing, and what is no pattern, cannot be looked for', () => expect([finderOf(search('', 'x')), finderOf(search('a(', 'x', pattern)), finderOf(search('(?=a)', 'x', pattern))]).toEqual([null, null, null]));
  test('a pattern that begins with letters finds what it finds as a group, wherever it is tried first', () => {
    const piece = fc.constantFrom('a', 'A', 's', 'ſ', 'k', '\u212A', 'ß', 'ẞ', 'İ', 'é', ' ', '_', '😀', '-', '\n');
    const letters = fc.array(piece, { minLength: 1, maxLength: 3 }).map((all) => all.join(''));
    const rest = fc.constantFrom('', '*', '+', '?', '{2}', '[ak]', '$', '\\b', '.', '(a)?', '\\d*', '+?', '^');
    let found = 0;
    fc.assert(
      fc.property(letters, rest, fc.array(piece, { maxLength: 20 }).map((all) => all.join('')), fc.boolean(), (begin, end, text, matchCase) => {
        const more = { ...pattern, matchCase, inNames: true };
        // What stands in brackets says nothing plainly: it is tried at every place. A quantifier is of the last letter only.
        const all = [...begin];
        const [head, last] = [all.slice(0, -1).join(''), all.at(-1) ?? ''];
        const plain = finderOf(search(`${begin}${end}`, 'x', more))!(text);
        expect(plain).toEqual(finderOf(search(`(?:${head})(?:${last})${end}`, 'x', more))!(text));
        found += plain.length;
      }),
      { numRuns: 3_000 },
    );
    expect(found).toBeGreaterThan(100);
  });
  test('a pattern that others would choke on takes no longer than the text', () => {
    const begun = Date.now();
    expect(finderOf(search('(a+)+$', 'b', pattern))!(`${'a'.repeat(20_000)}!`)).toEqual([]);
    expect(Date.now() - begun).toBeLessThan(2_000 * pace());
  });
});

const content: CaseContent = {
  ...EMPTY_CASE, title: 'Read a meter', objective: 'A meter', preconditions: 'The meter <meter> hangs',
  steps: [plainStep(stepId('s1'), 'Read the meter', 'The meter turns'), { kind: 'shared', id: stepId('s2'), shared: 'S-1', pinned: null, arguments: [{ id: 'what', value: 'a meter' }] }],
  rows: [{ ...newRow(rowId('r1'), 'meter one', { [parameterId('p1')]: 'meter 7' }), description: 'for a meter' }],
};
const value: KindAndContent = { kind: 'case', content };
const find = finderOf(search('meter', 'dial'))!;

test('each text is named by where it stands; only the parts that are asked for are looked through', () => {
  expect(placesFound(value, find, ALL).map((p) => `${p.path}: ${p.part}, ${p.matches.length}`)).toEqual([
    'title: title, 1', 'objective: text, 1', 'preconditions: text, 1', 'steps/s1/action: steps, 1', 'steps/s1/expected: expected, 1', 'steps/s2/arguments/what/value: data, 1', 'rows/r1/name: data, 1', 'rows/r1/description: data, 1', 'rows/r1/cells/p1: data, 1',
  ]);
  expect(placesFound(value, find, new Set(['expected'] as const)).map((p) => p.path)).toEqual(['steps/s1/expected']);
});

test('what was not ticked, and what nothing was found in, is the very same', () => {
  const made = withReplaced(value, { find, parts: ALL, own: NO_OWN_TEXTS }, new Set(['steps/s1/action', 'rows/r1/cells/p1', 'steps/s2/arguments/what/value']));
  if (made.kind !== 'case') throw new Error('A case stays one');
  expect([made.content.title, made.content.preconditions, made.content.steps[0], made.content.rows[0]]).toMatchObject(['Read a dial', 'The dial <meter> hangs', { action: 'Read the meter', expected: 'The dial turns' }, { name: 'dial one', cells: { p1: 'meter 7' } }]);
  expect(made.content.steps[1]).toBe(content.steps[1]);
  expect(withReplaced(value, { find: finderOf(search('valve', 'x'))!, parts: ALL, own: NO_OWN_TEXTS }, new Set())).toBe(value);
  expect(withReplaced(value, { find, parts: ALL, own: NO_OWN_TEXTS }, new Set(textPlaces(value).map((p) => p.path)))).toBe(value);
});

test('texts in fields of the project’s own are looked through where they are texts, behind the others', () => {
  const fields = [testField('Where', 'text'), testField('Why', 'longText'), testField('Level', 'choice'), { ...testField('Old', 'text'), removed: true }];
  const own = ownTextFields(fields);
  const filled: KindAndContent = { kind: 'case', content: { ...content, own: Object.fromEntries([...fields.map((f) => [f.id, 'at the meter']), ['stray', 'a meter']]) } };
  const found = placesFound(filled, find, new Set(['fields'] as const), own);
  expect(found.map((p) => [p.part, placeName(filled, p.path, fields)])).toEqual([['fields', { kind: 'own', field: 'Where' }], ['fields', { kind: 'own', field: 'Why' }]]);
  const made = withReplaced(filled, { find, parts: new Set(['fields'] as const), own }, new Set([found[1]?.path ?? '']));
  expect(made.content).toEqual({ ...filled.content, own: { ...filled.content.own, [fields[0]!.id]: 'at the dial' } });
  expect(withReplaced(filled, { find, parts: new Set(['fields'] as const), own: NO_OWN_TEXTS }, new Set())).toBe(filled);
});

test('every kind has texts that can be looked through, its title first', () => {
  const lines = [{ id: 'l1', text: 'Feature: T' }, { id: 'l2', text: '' }, { id: 'l3', text: '  Scenario: one meter' }];
  const feature = { kind: 'feature', content: { ...KINDS.feature.empty, parts: [{ id: 'p', kind: 'head', number: 0, lines, covers: [] }] } } as unknown as KindAndContent;
  expect(textPlaces(feature)).toEqual([{ path: 'parts/p/lines/l1/text', part: 'steps', text: 'Feature: T' }, { path: 'parts/p/lines/l3/text', part: 'steps', text: '  Scenario: one meter' }]);
  for (const kind of ARTEFACT_KINDS.filter((k) => k !== 'feature')) expect(textPlaces({ kind, content: { ...KINDS[kind].empty, title: 'T' } } as KindAndContent)).toEqual([{ path: 'title', part: 'title', text: 'T' }]);
});

test('replaced, and the reverse replaced, is what it was where the new words stood nowhere before', () => {
  const text = fc.stringMatching(/^[ab <>]{0,20}$/);
  fc.assert(
    fc.property(text, text, fc.constantFrom('a', 'ab', 'b '), (title, body, sought) => {
      const before: KindAndContent = { kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title, text: body } };
      const there = withReplaced(before, { find: finderOf(search(sought, 'ÿ', { matchCase: true }))!, parts: ALL, own: NO_OWN_TEXTS }, new Set());
      expect(withReplaced(there, { find: finderOf(search('ÿ', sought, { matchCase: true, inNames: true }))!, parts: ALL, own: NO_OWN_TEXTS }, new Set())).toEqual(before);
    }),
    { seed: 9, numRuns: 300 },
  );
});
