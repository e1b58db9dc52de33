import { expect, test } from '@jest/globals';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { FIRST_PRIORITIES } from '../artefacts/index.ts';
import mammoth from 'mammoth';
import { GUESS_ALL, entriesOf, guessMapping, readFile as readAny } from './index.ts';
import { docxOf, paragraph, tableOf } from './testFiles.ts';

/** As the server does. */
const htmlOf = async (bytes: Uint8Array): Promise<string> => (await mammoth.convertToHtml({ buffer: Buffer.from(bytes) })).value;
const readFile = (name: string, bytes: Uint8Array, options: typeof GUESS_ALL) => readAny(name, bytes, options, { htmlOf });
const LIMITS = { title: 300, name: 200, text: 200_000, relations: 500 };
const LONG = 'A reading is a whole number of cubic metres. It is not lower than the previous one unless the meter was replaced.';
const picture = '<w:r><w:drawing><wp:inline><a:graphic><a:graphicData><pic:pic xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:blipFill><a:blip r:embed="p"/></pic:blipFill></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>';
const note = '<w:r><w:footnoteReference w:id="1"/></w:r>';
const removed = '<w:del w:id="9"><w:r><w:delText> or never</w:delText></w:r></w:del><w:ins w:id="8"><w:r><w:t> or twice</w:t></w:r></w:ins>';
const contents = '<w:p><w:hyperlink w:anchor="_Toc1"><w:r><w:t>Readings 3</w:t></w:r></w:hyperlink></w:p>';

async function read(body: string, notes: readonly string[] = []) {
  const document = await readFile('spec.docx', docxOf(body, notes), GUESS_ALL);
  const { entries, problems } = entriesOf(document, guessMapping(document, 'p', 'spec', [], null), LIMITS, [], FIRST_PRIORITIES);
  return { document, problems: document.problems.map((p) => [p.severity, p.code]), entries, more: problems, lines: entries.map((e) => [e.key, e.parent ?? '', e.fields.title, e.fields.text ?? '']) };
}

test('chapters are the outline, what stands below one is its text; contents, pictures, notes and what was taken out are not', async () => {
  const body = [
    paragraph('Handbook of billing'), contents, paragraph('Readings', 1), paragraph('Read once a month', null, removed + note), paragraph('', null, picture),
    paragraph('Valid reading', 2), paragraph('From 0 to <99> & more.'.replaceAll('&', '&amp;').replaceAll('<', '&lt;')), tableOf([['Case', 'Answer'], ['5', 'yes'], ['-1', 'no']]), paragraph('Bills', 1),
  ].join('');
  const { lines, problems, entries, document } = await read(body, ['Since May']);
  expect(lines).toEqual([
    ['/Readings', '', 'Readings', 'Read once a month or twice'],
    ['/Readings/Valid reading', '/Readings', 'Valid reading', 'From 0 to <99> & more.\n\n| Case | Answer |\n| ---- | ------ |\n| 5    | yes    |\n| -1   | no     |'],
    ['/Bills', '', 'Bills', ''],
  ]);
  expect([document.format, problems]).toEqual(['docx', [['warning', 'text_before_heading'], ['warning', 'document_left']]]);
  expect(document.problems[1]).toMatchObject({ pictures: 1, notes: 1 });
  expect(entries.map((e) => e.fields.type ?? '')).toEqual(['', '', '']);
});

test('paragraphs and points that begin with ids of one kind are requirements below their chapter; one alone, as the name of a standard, is a text', async () => {
  const item = (text: string): string => `<w:p><w:pPr><w:pStyle w:val="ListParagraph"/></w:pPr><w:r><w:t>${text}</w:t></w:r></w:p>`;
  const { lines, entries, more } = await read([paragraph('Readings', 1), paragraph('REQ-1 Once a month'), paragraph('Also in December.'), paragraph(`[REQ-2] ${LONG}`), paragraph('ISO-9001 applies.'), paragraph('Bills', 1), item('REQ-3: Monthly')].join(''));
  expect(lines).toEqual([
    ['/Readings', '', 'Readings', ''],
    ['REQ-1', '/Readings', 'Once a month', 'Also in December.'],
    ['REQ-2', '/Readings', 'A reading is a whole number of cubic metres', `${LONG}\n\nISO-9001 applies.`],
    ['/Bills', '', 'Bills', ''],
    ['REQ-3', '/Bills', 'Monthly', ''],
  ]);
  // A chapter that only holds others is a heading.
  expect([entries.map((e) => e.fields.type ?? ''), more]).toEqual([['heading', '', '', 'heading', ''], []]);
});

test('rows of a table are requirements where its first row has names of their columns; other columns come along', async () => {
  const { lines, entries, document } = await read(
    [paragraph('Readings', 1), tableOf([['Nr.', 'Anforderung', 'Priorität', 'Wer'], ['A-1', LONG, 'hoch', 'Rui'], ['A-2', 'Short', '', ''], ['', '', '', '']]), tableOf([['ID', 'Title', 'Description', 'Type'], ['B-1', 'Paid', 'In full\nand in time', 'rule']]), paragraph('End of the tables.')].join(''),
  );
  expect(document.columns).toEqual(['id', 'title', 'text', 'type', 'Priorität', 'Wer', 'Type (2)']);
  expect(lines).toEqual([
    ['/Readings', '', 'Readings', 'End of the tables.'],
    ['A-1', '/Readings', 'A reading is a whole number of cubic metres', LONG],
    ['A-2', '/Readings', 'Short', ''],
    ['B-1', '/Readings', 'Paid', 'In full\n\nand in time'],
  ]);
  expect(entries.map((e) => e.fields.priority ?? '')).toEqual(['', 'high', '', '']);
});

test('what is no such document, or holds no part, is said; nothing is thrown, and no document type is read', async () => {
  expect((await read(paragraph('Only words'))).problems).toEqual([['warning', 'text_before_heading'], ['error', 'document_without_parts']]);
  const files = unzipSync(docxOf(paragraph('A', 1)));
  const broken = async (part: Record<string, Uint8Array>) => (await readFile('a.docx', zipSync({ ...files, ...part }), GUESS_ALL)).problems.map((p) => p.code);
  expect(await broken({ 'word/document.xml': strToU8('<w:document') })).toEqual(['document_broken']);
  expect(await broken({ 'word/styles.xml': strToU8('<!DOCTYPE x [<!ENTITY a "b">]><x/>') })).toEqual(['xml_doctype']);
  expect(await broken({ '../x.xml': strToU8('x') })).toEqual(['archive_path']);
  const long = await readFile('a.docx', zipSync({ ...files, 'word/document.xml': new Uint8Array(21 * 1024 * 1024) }, { level: 0 }), GUESS_ALL);
  expect(long.problems.map((p) => p.code)).toEqual(['file_too_large']);
  expect((await read(Array.from({ length: 60 }, (_, i) => tableOf([['ID', 'Title', ...Array.from({ length: 5 }, (__, j) => `Field ${i} ${j}`)], [`X-${i}`, 'One']])).join(''))).problems).toEqual([['error', 'too_many_columns']]);
  const cases = await readAny('a.docx', docxOf(paragraph('A', 1)), GUESS_ALL, { table: { most: 10 } });
  expect(cases.problems.map((p) => p.code)).toEqual(['file_kind_unknown']);
});
