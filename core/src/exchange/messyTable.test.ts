import { describe, expect, test } from '@jest/globals';
import { FIRST_PRIORITIES } from '../artefacts/index.ts';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { GUESS_ALL, entriesOf, guessMapping, inModulesAsSpelled, readFile, writeXlsx, type Mapping, type ReadingOptions } from './index.ts';
import { idInSource } from '../basis/index.ts';
import { bytesOf } from './testFiles.ts';
import { readRisk } from './vocabulary.ts';

const LIMITS = { title: 300, name: 200, text: 200_000, relations: 500 };
const LONG = 'A reading is a whole number of cubic metres that is not lower than the previous one unless the meter was replaced or has rolled over.';

async function read(rows: readonly (readonly string[])[], part: { readonly reading?: Partial<ReadingOptions>; readonly sections?: Mapping['sections']; readonly merged?: readonly string[] } = {}) {
  const files = unzipSync(await writeXlsx('Requirements & more', rows));
  const sheet = 'xl/worksheets/sheet1.xml';
  const merges = (part.merged ?? []).map((ref) => `<mergeCell ref="${ref}"/>`).join('');
  const xml = strFromU8(files[sheet]!).replace('</sheetData>', `</sheetData>${merges === '' ? '' : `<mergeCells>${merges}</mergeCells>`}`);
  const document = await readFile('messy.xlsx', zipSync({ ...files, [sheet]: strToU8(xml) }), { ...GUESS_ALL, ...part.reading });
  const mapping = guessMapping(document, 'p', 'messy', [], null);
  const { entries, problems } = entriesOf(document, part.sections === undefined ? mapping : { ...mapping, sections: part.sections }, LIMITS, [], FIRST_PRIORITIES);
  return { document, mapping, entries, problems, lines: entries.map((e) => [e.key, e.fields.title, e.fields.module ?? '', e.parent ?? '']) };
}

const MESSY = [
  ['Requirements of billing, draft 3', '', '', ''],
  ['', 'printed for the assembly', '', ''],
  ['Req ID', 'Name', 'Description', 'Module'],
  ['Readings', '', '', ''],
  ['1', 'Valid reading', LONG, 'Meters'],
  ['2', 'Roll-over', 'first line\nsecond line', ''],
  ['Bills', '', '', ''],
  ['3', 'Rounding', 'To whole cents.', 'Tariff'],
];

describe('a workbook as people make it', () => {
  test('the row of names is found below a title; rows with one text are headings that the rows below stand under', async () => {
    const { document, mapping, lines, entries } = await read(MESSY);
    expect([document.names?.header, mapping.columns]).toEqual([3, { 'Req ID': 'id', Name: 'title', Description: 'text', Module: 'module' }]);
    expect(lines).toEqual([
      ['section: Readings', 'Readings', '', ''],
      ['1', 'Valid reading', 'Meters', 'section: Readings'],
      ['2', 'Roll-over', '', 'section: Readings'],
      ['section: Bills', 'Bills', '', ''],
      ['3', 'Rounding', 'Tariff', 'section: Bills'],
    ]);
    expect(entries[0]?.fields.type).toBe('heading');
    // What stands in for an id is not shown as one; a real id is.
    expect(entries.map((e) => idInSource(e.key))).toEqual(['', '1', '2', '', '3']);
    expect(entries[2]?.fields.text).toBe('first line\nsecond line');
  });

  test('they may be modules instead, which a row’s own goes before, or rows like all others', async () => {
    expect((await read(MESSY, { sections: 'module' })).lines).toEqual([['1', 'Valid reading', 'Meters', ''], ['2', 'Roll-over', 'Readings', ''], ['3', 'Rounding', 'Tariff', '']]);
    expect((await read(MESSY, { sections: 'rows' })).lines).toHaveLength(3);
  });

  test('another row can be said to name the columns', async () => {
    const { document } = await read(MESSY, { reading: { header: 5 } });
    expect(document.columns).toEqual(['1', 'Valid reading', LONG.slice(0, 120), 'Meters']);
    expect(document.names?.rows[2]).toBe('Req ID · Name · Description · Module');
  });

  test('a cell merged over rows stands in each, over columns in the first only', async () => {
    const rows = [['ID', 'Title', 'Text', 'Module'], ['A', 'One', 'a', 'Meters'], ['B', 'Two', 'b', ''], ['C', 'Three', 'c', ''], ['All of it is about bills', '', '', ''], ['D', 'Four', 'd', 'Bills']];
    const { lines } = await read(rows, { merged: ['D2:D4', 'A5:D5'] });
    expect(lines.map(([, title, module]) => `${title} ${module}`)).toEqual(['One Meters', 'Two Meters', 'Three Meters', 'All of it is about bills ', 'Four Bills']);
  });
});

describe('the guess looks at what columns hold', () => {
  const guess = async (csv: string) => guessMapping(await readFile('a.csv', bytesOf(csv), GUESS_ALL), 'p', 'a', [], null).columns;
  test('a “Requirement” with sentences is the text, with names the title', async () => {
    expect(await guess(`ID,Requirement\n1,"${LONG}"\n2,"${LONG} Twice."`)).toMatchObject({ Requirement: 'text' });
    expect(await guess('ID,Requirement\n1,Valid reading\n2,Roll-over')).toMatchObject({ Requirement: 'title' });
  });
  test('an empty column called text does not leave the texts out; without known names something is the title', async () => {
    expect(await guess(`ID,Title,Text,What it demands\n1,One,,"${LONG}"`)).toEqual({ ID: 'id', Title: 'title', Text: 'attribute', 'What it demands': 'text' });
    expect(await guess('A,B\nx,Valid reading\ny,Roll-over')).toEqual({ A: 'attribute', B: 'title' });
    // Filled everywhere, and another in each: the title, though what is said about some is longer.
    expect(await guess('Wo,Was,Hinweis\nHof,Zähler ablesen,Nur bei Tag und mit Schlüssel\nHof,Brief senden,')).toEqual({ Wo: 'attribute', Was: 'title', Hinweis: 'attribute' });
    expect(await guess('Was,Hinweis\n,Nur bei Tag und mit Schlüssel\nBrief senden,Zweimal im Jahr')).toEqual({ Was: 'attribute', Hinweis: 'title' });
  });
  test('a title above the table, and commas in its texts, do not mislead about what separates the columns', async () => {
    expect(await guess('Requirements, draft 3, of May\nNr;Titel\n1;Pumpen, Filter, Rohre\n2;Ventile, Hähne')).toEqual({ Nr: 'id', Titel: 'title' });
    expect(await guess('ID\tTitle\n1\tPumps; filters; pipes')).toEqual({ ID: 'id', Title: 'title' });
  });
  test('a first row that is numbered as all below it names no columns', async () => {
    const document = await readFile('a.csv', bytesOf('REQ-1,The meter is read,High\nREQ-2,The bill is sent,Low'), GUESS_ALL);
    expect([document.records.length, guessMapping(document, 'p', 'a', [], null).columns]).toEqual([2, { 'column 1': 'id', 'column 2': 'title', 'column 3': 'attribute' }]);
    // Numbered otherwise than what stands below it, it is a name.
    expect(Object.keys(await guess('plan1,input2\nA1,B7\nA2,B9'))).toEqual(['plan1', 'input2']);
    expect(await guess('Q1,Words\nREQ-1,The meter is read\n,The bill is sent')).toEqual({ Q1: 'attribute', Words: 'title' });
  });
  test('separators at the end of lines say nothing; a cell that a program wrote as a text is that text', async () => {
    const document = await readFile('a.csv', bytesOf('ID,Title,,\n="007",One,,\n="008","5"" pipe",,\n9,Three,,4\n'), GUESS_ALL);
    expect([document.records.map((r) => r.cells), document.problems.map((p) => [p.code, p.line])]).toEqual([[['007', 'One'], ['008', '5" pipe'], ['9', 'Three']], [['cell_count', 4]]]);
  });
  test('columns are known by their names in the languages that dates are written in, whatever signs stand between their words', async () => {
    const all = ['id', 'title', 'text', 'type', 'module', 'risk', 'priority', 'source'];
    for (const names of [
      'Anforderungs-Nr;TITEL;Beschreibung;Art;Modul;Risiko;Priorität;Quelle',
      'N°;Intitulé;Texte;Catégorie;Composant;Risque;Priorité;Origine',
      'Número;Título;Descripción;Tipo;Módulo;Riesgo;Prioridad;Fuente',
      'Identificador;Título;Conteúdo;Tipo;Módulo;Risco;Prioridade;Fonte',
      'Beteckning;Rubrik;Beskrivning;Typ;Delsystem;Risk;Prioritet;Källa',
    ]) {
      expect(Object.values(await guess(`Stand 3\n\n${names}\n1;Eins;Text;Regel;A;hoch;mittel;Heft`))).toEqual(all);
    }
    const { entries, problems } = await read([['Nr.', 'Titel', 'Risiko'], ['1', 'Eins', 'Hoch'], ['2', 'Zwei', 'gering'], ['3', 'Drei', 'egal']]);
    expect([entries.map((e) => (e.fields.risk === undefined ? null : readRisk(e.fields.risk))), problems.map((p) => [p.code, p.line])]).toEqual([['high', 'low', null], [['value_unknown', 4]]]);
  });
  test('what is numbered in every row is the id, whatever it is called; numbers alone, or twice the same, are none', async () => {
    expect(await guess('Requirement,Description\nREQ-1,Meter is read\nREQ-2,Bill is sent')).toEqual({ Requirement: 'id', Description: 'text' });
    expect(await guess('Title,Description\nStep 1,Meter is read\nStep 2,Bill is sent')).toEqual({ Title: 'title', Description: 'text' });
    expect(await guess('Requirement,Module\nREQ-1,Meters\nREQ-2,Bills')).toEqual({ Requirement: 'title', Module: 'module' });
    expect(await guess('Req,What\nW-1,Meter is read\nW-2.1,Bill is sent')).toEqual({ Req: 'id', What: 'title' });
    expect(await guess('Points,Title\n3,One\n5,Two')).toMatchObject({ Points: 'attribute' });
    expect(await guess('Release,Title\nV-1,One\nV-1,Two')).toMatchObject({ Release: 'attribute' });
    expect(await guess('ID,Story,Title\n1,US-1,One\n2,US-2,Two')).toMatchObject({ ID: 'id', Story: 'attribute' });
  });
});

test('spaces around the name of a module, and in it, make no other module of it; what we wrote out ourselves is as it was', async () => {
  const sheet = (name: string) => [[name, 'Title', 'Module'], ['R-1', 'Pump', 'Pumps '], ['R-2', 'Valve', '  Pumps'], ['R-3', 'Tap', 'Pumps'], ['R-4', 'Pipe', 'Main\n  pipes']];
  expect((await read(sheet('Req ID'))).lines.map(([, , module]) => module)).toEqual(['Pumps', 'Pumps', 'Pumps', 'Main pipes']);
  expect((await read(sheet('p id'))).lines.map(([, , module]) => module)).toEqual(['Pumps ', '  Pumps', 'Pumps', 'Main\n  pipes']);
});

test('a module is spelled as the project spells it, then as the file does first; what is spelled as one of the project, or ours, stays', () => {
  const entry = (module: string | undefined, ownId: string | null = null) => ({ ownId, fields: module === undefined ? {} : { module } });
  const spelled = (modules: readonly string[], known: readonly string[]) => inModulesAsSpelled(modules.map((m) => entry(m)), known).map((e) => e.fields.module);
  expect(spelled(['Pumps', 'pumps', 'PUMPS', 'Vannes', '', 'vannes'], [])).toEqual(['Pumps', 'Pumps', 'Pumps', 'Vannes', '', 'Vannes']);
  expect(spelled(['Pumps', 'pumps', 'Filters'], ['PUMPS', 'filters'])).toEqual(['PUMPS', 'PUMPS', 'filters']);
  expect(spelled(['Pumps', 'pumps', 'PUMPS'], ['Pumps', 'pumps'])).toEqual(['Pumps', 'pumps', 'Pumps']);
  expect(inModulesAsSpelled([entry('Pumps'), entry('pumps', 'C-1'), entry(undefined)], [])).toEqual([entry('Pumps'), entry('pumps', 'C-1'), entry(undefined)]);
});
