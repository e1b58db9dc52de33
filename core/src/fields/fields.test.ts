import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { OWN_FIELD_TYPES, beginningValues, missingIn, ownFieldForColumn, ownFieldId, ownQueryName, ownText, readOwn, withOwnValue, writeOwn, type OwnField, type OwnFieldType } from './index.ts';
import { testField } from './testField/index.ts';

const CHOICES = ['Kiosk', 'Web, new', 'Phone "two"', 'kiosk; old'];
const field = (type: OwnFieldType): OwnField => testField('Runs on', type, { choices: CHOICES });

test.each([
  ['Severity of harm', 'Severity of harm'],
  ['  channel ', 'channel 2'],
  ['DUE-DATE', 'DUE-DATE 3'],
  ['Gone', 'Gone'],
  ['→ !', 'Field'],
  [`${'a'.repeat(55)} b c d`, 'a'.repeat(55)],
])('the field for a column %j is called %j, and no query takes it for another', (column, name) => {
  const fields = [testField('Channel', 'choice'), testField('due date', 'date'), testField('Due date 2', 'text'), testField('Gone', 'text', { removed: true })];
  const made = ownFieldForColumn(ownFieldId('made'), column, 'case', fields);
  expect(made).toMatchObject({ name, type: 'text', of: ['case'], removed: false });
  expect(fields.filter((f) => !f.removed).map((f) => ownQueryName(f.name))).not.toContain(ownQueryName(made.name));
});

describe('a value that is written', () => {
  test.each<[OwnFieldType, string, ReturnType<typeof writeOwn>]>([
    ['text', '  two  words ', 'two  words'],
    ['longText', ' as it is\n', ' as it is\n'],
    ['number', ' -2.50 ', '-2.50'],
    ['number', '2,5', '2.5'],
    ['number', '1,000,5', null],
    ['number', '1'.repeat(31), null],
    ['date', '2026-02-28', '2026-02-28'],
    ['date', '2026-02-30', null],
    ['date', '28.2.2026', null],
    ['yesNo', 'TRUE', 'yes'],
    ['yesNo', 'n', 'no'],
    ['yesNo', 'perhaps', null],
    ['link', 'https://fonte.example/7', 'https://fonte.example/7'],
    ['link', 'javascript:alert(1)', null],
    ['link', 'see there', null],
    ['person', 'Rui M.', 'Rui M.'],
    ['choice', 'KIOSK', 'kiosk'],
    ['choice', 'web, new', 'web-new'],
    ['choice', 'moon', null],
    ['choices', 'web, new', ['web-new']],
    ['choices', '"Web, new"; kiosk', ['kiosk', 'web-new']],
    ['choices', 'kiosk\nkiosk, "Phone ""two"""', ['kiosk', 'phone-two']],
    ['choices', 'kiosk, moon', null],
  ])('%s %j', (type, written, expected) => expect(writeOwn(field(type), written)).toEqual(expected));
  test('nothing is the empty value of every type', () => expect(OWN_FIELD_TYPES.map((type) => writeOwn(field(type), '  '))).toEqual(OWN_FIELD_TYPES.map(() => [])));
  test('choices, written down as one text, are read back', () => {
    const name = fc.stringMatching(/^[a-z,;" \n]{0,6}$/).map((s) => s.trim()).filter((s) => s !== '');
    fc.assert(fc.property(fc.uniqueArray(name, { minLength: 1, maxLength: 5 }), fc.nat(31), (names, some) => {
      const own = { ...testField('Some', 'choices'), choices: names.map((n, i) => ({ id: `0${i}`, name: n })) };
      const value = own.choices.filter((_, i) => (some >> i) % 2 === 1).map((c) => c.id);
      expect(writeOwn(own, ownText(own, value))).toEqual(value);
    }), { seed: 4, numRuns: 500 });
  });
});

describe('a change of type loses nothing', () => {
  test('what was chosen can still be read as text, and the other way round where a choice has that name', () => {
    expect(readOwn(field('text'), ['kiosk', 'web-new'])).toEqual({ shown: ['Kiosk, Web, new'], fits: true });
    expect(readOwn(field('choice'), 'Web, new')).toEqual({ shown: ['Web, new'], fits: true });
    expect(readOwn(field('choices'), 'kiosk')).toEqual({ shown: ['Kiosk'], fits: true });
  });
  test.each<[OwnFieldType, string | string[], readonly string[]]>([
    ['choice', ['kiosk', 'web-new'], ['Kiosk', 'Web, new']],
    ['choice', 'moon', ['moon']],
    ['choices', ['moon', 'kiosk'], ['Kiosk', 'moon']],
    ['number', 'dear', ['dear']],
    ['number', ['1', '2'], ['1, 2']],
    ['date', '2026-02-30', ['2026-02-30']],
    ['yesNo', 'Yes', ['Yes']],
    ['link', 'kiosk', ['Kiosk']],
  ])('%s %j does not fit and is shown as it is', (type, value, shown) => expect(readOwn(field(type), value)).toEqual({ shown, fits: false }));
});

test('setting a value makes a new record only where something is another now', () => {
  const values = { a: 'x', b: ['1', '2'] };
  const b = ownFieldId('b');
  expect([withOwnValue({}, b, null), withOwnValue(values, b, []), withOwnValue(values, b, ['2', '1'])]).toEqual([{}, { a: 'x' }, { a: 'x', b: ['2', '1'] }]);
  expect(withOwnValue(values, b, ['1', '2'])).toBe(values);
});

test('what a new artefact begins with, and what it lacks, are those of its kind', () => {
  const fields = [testField('A', 'text', { begins: 'x', of: ['case'] }), testField('B', 'choices', { begins: [], required: true }), testField('C', 'text', { begins: 'y', removed: true, required: true })];
  expect([beginningValues(fields, 'case'), beginningValues(fields, 'question')]).toEqual([{ a: 'x' }, {}]);
  expect([missingIn(fields, 'case', {}), missingIn(fields, 'case', { b: ['k'] })].map((l) => l.map((f) => f.name))).toEqual([['B'], []]);
});

test.each([['Test environment', 'test-environment'], ['  Ça va?  2', 'ça-va-2'], ['→', '']])('%s is asked for as “%s”', (name, expected) => expect(ownQueryName(name)).toBe(expected));
