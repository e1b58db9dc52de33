import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readCsv } from './csv.ts';
import { GUESS_ALL } from './sourceDocument.ts';
import { guessTermColumns, planTerms, readTerms } from './tableOfTerms.ts';

const MOST = { term: 40, definition: 100, forms: 50 };
const table = (text: string) => readCsv(new TextEncoder().encode(text), GUESS_ALL, { header: null, most: 1_000 });

test('the columns are known by their names, else by where most is written', () => {
  expect(guessTermColumns(table('No;Term;Synonyms;What it means, its definition\n1;Reading;readings;A number on a counter\n'))).toEqual({ term: 'Term', definition: 'What it means, its definition', forms: 'Synonyms' });
  expect(['Nr;Begriff;Synonyme;Bedeutung', 'N°;Terme;Synonymes;Définition', 'Nº;Término;Sinónimos;Significado', 'Nº;Termo;Sinônimos;Definição', 'Nr;Begrepp;Synonymer;Förklaring'].map((names) => Object.values(guessTermColumns(table(`${names}\n1;Pegel;Pegel;Eine Höhe\n`)) ?? {}))).toEqual([['Begriff', 'Bedeutung', 'Synonyme'], ['Terme', 'Définition', 'Synonymes'], ['Término', 'Significado', 'Sinónimos'], ['Termo', 'Definição', 'Sinônimos'], ['Begrepp', 'Förklaring', 'Synonymer']]);
  expect(guessTermColumns(table('What;Owner;Notes\nReading;Rui;A number that is read on a counter\n'))).toEqual({ term: 'What', definition: 'Notes', forms: null });
  expect(guessTermColumns(table('Reading\nBill\n'))).toBeNull();
});

test('terms are read once each, the later line counts; what is too long is named by its line and not cut off', () => {
  const document = table(`Term,Meaning,Also\nReading,first,\n"  reading ",second,"readings; reads"\n,nothing,\nBand,${'x'.repeat(101)},\n`);
  const columns = guessTermColumns(document);
  expect(columns && readTerms(document, columns, MOST)).toEqual({ terms: [{ term: 'reading', definition: 'second', forms: ['readings', 'reads'] }], leftOut: [5] });
});

test('brought in again nothing changes; what is here keeps its id and loses nothing to an empty cell', () => {
  const glossary = [{ id: 'a', term: 'Reading', forms: ['reads'], definition: 'A number' }, { id: 'b', term: 'Bill', forms: [], definition: 'A sum' }];
  const plan = planTerms(glossary, [{ term: 'reading', forms: ['readings'], definition: '' }, { term: 'BILL', forms: [], definition: 'A sum' }, { term: 'Band', forms: [], definition: 'From, to' }], () => 'new', MOST.forms);
  expect(plan.glossary).toEqual([{ id: 'a', term: 'Reading', forms: ['reads', 'readings'], definition: 'A number' }, glossary[1], { id: 'new', term: 'Band', forms: [], definition: 'From, to' }]);
  expect([plan.added.length, plan.changed.length, plan.same]).toEqual([1, 1, 1]);

  const some = fc.record({ term: fc.constantFrom('a', 'A', 'b', 'c', 'D'), forms: fc.uniqueArray(fc.constantFrom('x', 'y', 'a', 'd')), definition: fc.constantFrom('', 'one', 'two') });
  fc.assert(
    fc.property(fc.uniqueArray(some, { selector: (t) => t.term.toLowerCase() }), fc.uniqueArray(some, { selector: (t) => t.term.toLowerCase() }), (here, read) => {
      let made = 0;
      const newId = () => `n${(made += 1)}`;
      const once = planTerms(here.map((t, i) => ({ id: `h${i}`, ...t })), read, newId, 3);
      const twice = planTerms(once.glossary, read, newId, 3);
      expect([twice.added, twice.changed, twice.same]).toEqual([[], [], read.length]);
      expect(new Set(once.glossary.map((t) => t.term.toLowerCase()))).toEqual(new Set([...here, ...read].map((t) => t.term.toLowerCase())));
      // The cap holds for what is added, and takes nothing away from what was there.
      expect(once.glossary.every((t, i) => t.forms.length <= Math.max(3, here[i]?.forms.length ?? 4) && (here[i]?.forms ?? []).every((form) => t.forms.includes(form)))).toBe(true);
    }),
  );
});
