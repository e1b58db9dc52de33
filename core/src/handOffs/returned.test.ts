import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '../cases/index.ts';
import { placeNow, withOffer } from '../remarks/index.ts';
import { EMPTY_SHARED, type Used } from '../shared/index.ts';
import { asJson } from '../versions/index.ts';
import { executedInstances, type HandedOff } from './executed.ts';
import { handOffNumber, type HandOffLine } from './handOff.ts';
import { HAND_OFF_COLUMNS, handOffRows } from './handOffFile.ts';
import { notedWords, notesOfTable, returnedProposals, withNames, type Returned } from './returned.ts';

const NAME = 'fc H-2';
const reading = { id: parameterId('p'), name: 'reading', type: 'text' as const, default: '', description: '' };
const rowOf = (id: string, name: string, value: string) => ({ ...newRow(rowId(id), name), cells: { p: value } });
const CASE: CaseContent = { ...EMPTY_CASE, title: 'Enter it', parameters: [reading], rows: [rowOf('a', 'low', '0'), rowOf('b', 'high', '99')], steps: [plainStep(stepId('s'), 'type <reading>', 'it is <reading>'), { kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] }] };
const OUT: Used = { kind: 'shared', id: 'S-1', version: 4, withdrawn: false, content: { ...EMPTY_SHARED, title: 'Sign out', steps: [plainStep(stepId('o'), 'press the bell')] } };
const SCENARIO: CaseContent = { ...EMPTY_CASE, title: 'A bill', steps: [plainStep(stepId('4'), 'Given a meter')] };
const LINES: HandOffLine[] = (['C-1', 'F-2/3'] as const).map((of) => ({ of, version: 3, title: '', module: '', owner: '', execution: 'byHand', configuration: null, instances: 1, minutes: 5, person: '' }));
const HANDED: HandedOff = { contents: new Map([['C-1', CASE], ['F-2/3', SCENARIO]]), library: new Map([['S-1', OUT]]), constants: [], configurations: [] };
const [NAMES = [], ...ROWS] = [...handOffRows(NAME, executedInstances(LINES, HANDED))];
const at = (column: (typeof HAND_OFF_COLUMNS)[number]): number => HAND_OFF_COLUMNS.indexOf(column);
const cell = (row: readonly string[], column: (typeof HAND_OFF_COLUMNS)[number], value: string): string[] => row.map((old, i) => (i === at(column) ? value : old));
const came = (rows: readonly (readonly string[])[], columns: readonly string[] = NAMES): Returned => returnedProposals(notesOfTable(columns, rows) ?? [], { handOff: NAME, lines: LINES, contents: HANDED.contents, library: HANDED.library, instances: executedInstances(LINES, HANDED) });

test('a sheet that nobody wrote in comes to nothing, whatever rows were taken out and however rows and columns were put', () => {
  expect(ROWS).toHaveLength(5);
  fc.assert(
    fc.property(fc.shuffledSubarray(ROWS), fc.shuffledSubarray(NAMES.map((_, i) => i), { minLength: NAMES.length }), (rows, order) => {
      const turned = (row: readonly string[]): string[] => order.map((i) => row[i] ?? '');
      expect(came(rows.map(turned), turned(NAMES).map((name) => ` ${name.toUpperCase()}`))).toEqual({ proposals: [], unplaced: [] });
    }),
  );
});

test('remarks, changed texts and minutes come to the place where it is written; what several instances say alike is one', () => {
  const [first = [], second = [], third = [], , fifth = []] = ROWS;
  const { proposals } = came([
    cell(cell(cell(first, 'remark', 'The field is <hidden>'), 'minutes needed', '9'), 'action', 'type 0 in the field'),
    cell(second, 'action', '[S-1 Sign out]\npress the bell twice'),
    cell(third, 'remark', 'The field is <hidden>'),
    cell(fifth, 'remark', 'No such meter'),
  ]);
  expect(proposals).toEqual([
    { of: 'C-1', version: 3, place: { path: 'steps/s', words: null }, said: 'type 0', text: 'The field is <hidden>', offer: null, instances: ['C-1·low', 'C-1·high'], step: 1 },
    { of: 'C-1', version: 3, place: { path: 'steps/s/action', words: null }, said: 'type 0', text: 'Executed as: type 0 in the field', offer: 'type <reading> in the field', instances: ['C-1·low'], step: 1 },
    { of: 'C-1', version: 3, place: { path: '', words: null }, said: '', text: 'Took 9 minutes, not 5.', offer: null, instances: ['C-1·low'], step: null },
    { of: 'S-1', version: 4, place: { path: 'steps/o/action', words: null }, said: 'press the bell', text: 'Executed as: press the bell twice', offer: 'press the bell twice', instances: ['C-1·low'], step: 2 },
    { of: 'F-2', version: 3, place: { path: '', words: null }, said: '', text: 'No such meter (A bill, step 1: Given a meter)', offer: null, instances: ['F-2/3'], step: 1 },
  ]);
  // Each place is there, and each offer fits it.
  for (const { of, place, offer } of proposals.filter((p) => p.of !== 'F-2')) {
    const content = asJson(of === 'S-1' ? OUT.content : CASE);
    expect([placeNow(content, place).kind, offer === null || withOffer(content, place, offer) !== null]).toEqual([place.path === '' ? 'whole' : 'there', true]);
  }
});

test('what is no number of minutes stands in their place as it was written', () => {
  const [first = [], , , , fifth = []] = ROWS;
  const { proposals } = came([cell(first, 'minutes needed', '7,5'), cell(fifth, 'minutes needed', 'half an hour, "no" power')]);
  expect(proposals.map((p) => p.text)).toEqual(['Took 7,5 minutes, not 5.', expect.stringMatching(/^Minutes needed.* \(A bill\): half an hour, "no" power$/)]);
});

test('rows of another hand-off, of no instance or step that was handed off are told, and the rest is kept', () => {
  const [first = []] = ROWS;
  const said = (row: readonly string[]) => cell(row, 'remark', 'no');
  const { proposals, unplaced } = came([said(cell(first, 'hand-off', 'other H-2')), said(cell(first, 'instance', 'C-9')), said(cell(first, 'step', '7')), said(cell(first, 'step', 'two')), said(first)]);
  expect([proposals.length, unplaced.map((u) => u.why)]).toEqual([1, ['otherHandOff', 'unknownInstance', 'unknownStep', 'unknownStep']]);
  expect(notesOfTable(['case', 'step'], [['C-1', '1']])).toBeNull();
  expect(came([NAMES.map(() => '')])).toEqual({ proposals: [], unplaced: [] });
});

test('a text changed around its values gets its names back; where nobody can say what is a value it is not offered', () => {
  expect(withNames('type <a> and <b>', 'type 1 and 22', 'please type 1, then 22!')).toBe('please type <a>, then <b>!');
  expect(withNames('type <a>', 'type 1', 'type 11')).toBeNull();
  expect(withNames('type <a>', 'type 1', 'type it')).toBeNull();
  expect(withNames('type <a><b>', 'type 12', 'now type 12')).toBeNull();
  expect(withNames('type it', 'type it', 'type <it>')).toBeNull();
  const word = fc.stringMatching(/^[a-z ]{1,8}$/);
  fc.assert(
    fc.property(fc.array(word, { minLength: 2, maxLength: 5 }), fc.array(word, { minLength: 5, maxLength: 5 }), (before, after) => {
      // Values that stand nowhere else: names come back exactly.
      const whole = (texts: readonly string[], name: (i: number) => string) => texts.map((t, i) => (i === 0 ? t : `${name(i)}${t}`)).join('');
      const [value, name] = [(i: number) => `#${i}#`, (i: number) => `<p${i}>`];
      const now = after.slice(0, before.length);
      expect(withNames(whole(before, name), whole(before, value).trim(), whole(now, value))).toBe(whole(now, name));
    }),
  );
});

test('what an executor wrote is what is executed once the offer is taken, and every note is there once', () => {
  const word = fc.constantFrom('open', 'the', 'form', 'of', 'meter', '7', 'twice', '(now)');
  const template = fc.array(fc.oneof(word, fc.constantFrom('<reading>', '<page>')), { minLength: 1, maxLength: 6 }).map((parts) => parts.join(' '));
  const noted = fc.record({ insert: word, at: fc.nat(6), remark: fc.constantFrom('', 'odd', 'not there'), field: fc.constantFrom('action' as const, 'expected' as const) });
  fc.assert(
    fc.property(fc.array(fc.tuple(template, template), { minLength: 1, maxLength: 4 }), fc.array(fc.option(noted), { minLength: 8, maxLength: 8 }), (texts, edits) => {
      const page = { ...reading, id: parameterId('q'), name: 'page' };
      const steps = texts.map(([action, expected], i) => plainStep(stepId(`s${i}`), action, expected));
      const content: CaseContent = { ...EMPTY_CASE, title: 'Enter it', parameters: [reading, page], rows: [{ ...newRow(rowId('a'), 'low'), cells: { p: '§0§', q: '§1§' } }], steps };
      const handed: HandedOff = { contents: new Map([['C-1', content]]), library: new Map(), constants: [], configurations: [] };
      const lines = LINES.slice(0, 1);
      const [names = [], ...rows] = [...handOffRows(NAME, executedInstances(lines, handed))];
      const written = rows.map((row, i) => {
        const edit = edits[i];
        if (edit == null) return { row, text: null, remark: '' };
        const parts = (row[at(edit.field)] ?? '').split(' ');
        const text = [...parts.slice(0, edit.at), edit.insert, ...parts.slice(edit.at)].join(' ');
        return { row: cell(cell(row, edit.field, text), 'remark', edit.remark), text: { field: edit.field, text }, remark: edit.remark };
      });
      const { proposals, unplaced } = returnedProposals(notesOfTable(names, written.map((w) => w.row)) ?? [], { handOff: NAME, lines, contents: handed.contents, library: handed.library, instances: executedInstances(lines, handed) });
      expect(unplaced).toEqual([]);
      expect(proposals.filter((p) => p.offer === null && !p.text.startsWith('Executed as')).map((p) => [p.place.path, p.text])).toEqual(written.flatMap((w, i) => (w.remark === '' ? [] : [[`steps/s${i}`, w.remark]])));
      expect(proposals.filter((p) => p.text.startsWith('Executed as')).map((p) => [p.place.path, p.text])).toEqual(written.flatMap((w, i) => (w.text === null ? [] : [[`steps/s${i}/${w.text.field}`, `Executed as: ${w.text.text}`]])));
      for (const { place, offer } of proposals) {
        if (offer === null) continue;
        const taken = withOffer(asJson(content), place, offer) as unknown as CaseContent;
        const [instance] = [...executedInstances(lines, { ...handed, contents: new Map([['C-1', taken]]) })];
        const [, id = '', field = ''] = place.path.split('/');
        const number = Number(id.slice(1));
        expect(instance?.steps[number]?.[field as 'action']).toBe(written[number]?.text?.text);
      }
    }),
  );
});

test('where something was noted is said in short, by whom where that is known', () => {
  const at = (...instances: readonly string[]) => ({ instances });
  expect([notedWords(handOffNumber(2), '', at('C-4·low')), notedWords(handOffNumber(2), 'Rui M.', at('a', 'b', 'c', 'd', 'e'))]).toEqual(['(H-2, C-4·low)', '(H-2, a, b, c and 2 more, Rui M.)']);
});
