import { describe, expect, test } from '@jest/globals';
import { FIRST_PRIORITIES } from '../artefacts/index.ts';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import { openArchive } from './archive.ts';
import { entriesOf, guessMapping, readFile, writeXlsx, GUESS_ALL, type FileProblem, type SourceDocument } from './index.ts';
import { CSV, MARKDOWN, REQIF, bytesOf } from './testFiles.ts';

const LIMITS = { title: 300, name: 200, text: 200_000, relations: 500 };
const read = (name: string, content: string | Uint8Array) => readFile(name, typeof content === 'string' ? bytesOf(content) : content, GUESS_ALL);
const entries = (document: SourceDocument) => entriesOf(document, guessMapping(document, 'p', 'file', [], null), LIMITS, [], FIRST_PRIORITIES);
const told = (problems: readonly FileProblem[]) => problems.map((p) => `${p.severity} ${p.code}${p.line === null ? '' : ` at ${p.line}`}${p.column === null ? '' : ` in ${p.column}`}`);
const taken = async (name: string, content: string | Uint8Array) => {
  const { entries: list, problems } = entries(await read(name, content));
  return { list: list.map((e) => [e.key, e.parent ?? null, e.fields.title]), problems: told(problems) };
};

describe('CSV', () => {
  test('columns are guessed; what is not understood is named by line and column', async () => {
    expect(guessMapping(await read('a.csv', CSV), 'p', 'a', [], null).columns).toEqual({ ID: 'id', Title: 'title', Description: 'text', Priority: 'priority', Parent: 'parent', Owner: 'attribute' });
    expect(await taken('a.csv', CSV)).toEqual({
      list: [['REQ-1', null, 'Readings'], ['REQ-2', 'REQ-1', 'Valid reading'], ['REQ-3', null, 'Leak allowance']],
      problems: ['warning value_unknown at 5 in Priority', 'warning parent_unknown at 5'],
    });
    expect(entries(await read('a.csv', CSV)).entries[0]?.fields).toMatchObject({ text: 'How readings come in.\nOn two lines.', priority: 'high', 'attribute:Owner': 'Office' });
  });

  const utf16 = (text: string, big: boolean) => Uint8Array.from([...text].flatMap((c) => (big ? [0, c.charCodeAt(0)] : [c.charCodeAt(0), 0])));
  test.each([
    ['UTF-8 with a mark', bytesOf('\uFEFFid,title\n1,ä\n'), 'ä', []],
    ['UTF-16 little end with a mark', Uint8Array.from([0xff, 0xfe, ...utf16('id,title\n1,ä\n', false)]), 'ä', []],
    ['UTF-16 big end without', utf16('id,title\n1,ab\n', true), 'ab', ['warning encoding_guessed']],
    ['Windows-1252', Uint8Array.from([...bytesOf('id,title\n1,'), 0xe4, 10]), 'ä', ['warning encoding_guessed']],
    ['mixed line ends', bytesOf('id,title\r\n1,a\n2,b\r3,c\r\n'), 'a', []],
    ['tabs', bytesOf('id\ttitle\n1\ta, b\n'), 'a, b', []],
  ])('%s', async (_, bytes, title, problems) => {
    const got = await taken('a.csv', bytes);
    expect([got.list[0]?.[2], got.problems]).toEqual([title, problems]);
  });

  test.each([
    ['nothing', '', ['error file_empty']],
    ['a header alone', 'id,title\n', ['error file_empty']],
    ['a quote that is never closed', 'id,title\n1,"abc\n2,d\n', ['error quote_unclosed at 3']],
    ['quotes within cells', 'id,title\n1,a 5" pipe\n2,say "no"\n3,"as ""it"" should"\n', ['warning quotes_kept at 2']],
    ['a quote that ends before its cell does', 'id,title\n1,"two, or\nthree" pipes\n2,"whole"\n', []],
    ['ids missing and doubled', 'id,title\n,a\n7,b\n7,c\n', ['error id_missing at 2 in id', 'error id_doubled at 4']],
    ['no title', 'id,title,text\n1,,\n2,,Some words. More.\n', ['error title_missing at 2 in title', 'warning title_from_text at 3 in title']],
    ['a circle of parents', 'id,title,parent\n1,a,2\n2,b,1\n3,c,1\n', ['error parent_circle at 2', 'warning parent_unknown at 4']],
    ['no ids at all', 'title\na\n', ['warning id_missing']],
    ['a row longer than the header', 'id,title\n1,a,b,c\n', ['warning cell_count at 2']],
    ['a title beyond its limit', `id,title\n1,${'x'.repeat(301)}\n`, ['error field_too_long at 2 in title']],
    ['a NUL', 'id,title\n1,a\0b\n', ['error control_characters at 2 in title']],
    ['a hundred thousand columns', `${'a,'.repeat(100_000)}\n${'b,'.repeat(100_000)}\n`, ['error too_many_columns at 1']],
    ['an outline deeper than outlines go', `id,title,parent\n${Array.from({ length: 14 }, (_, i) => `${i + 1},t,${i || ''}\n`).join('')}`, ['error outline_too_deep at 14', 'error outline_too_deep at 15']],
  ])('%s', async (_, text, problems) => expect((await taken('a.csv', text)).problems).toEqual(problems));

  test('quotes that quote no whole cell are letters', async () => {
    const { list } = await taken('a.csv', 'id,title\n1,a 5" pipe\n2,"two, or\nthree" pipes\n3,"as ""it"" should"\n');
    expect(list.map((e) => e[2])).toEqual(['a 5" pipe', '"two, or three" pipes', 'as "it" should']);
  });

  test('levels and outline numbers are an outline', async () => {
    expect((await taken('a.csv', 'level,title\n1,a\n2,b\n3,c\n2,d\n')).list).toEqual([['a', null, 'a'], ['b', 'a', 'b'], ['c', 'b', 'c'], ['d', 'a', 'd']]);
    expect((await taken('a.csv', 'section,title\n1,a\n1.1,b\n1.1.1,c\n2,d\n')).list.map((e) => e[1])).toEqual([null, 'a', 'b', null]);
  });
});

test('an archive whose directory lies about sizes never unpacks to more than it said', async () => {
  const zip = zipSync({ 'a.reqif': new Uint8Array(8_000_000).fill(65) });
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  for (let at = 0; at < zip.length - 4; at += 1) {
    const signature = view.getUint32(at, true);
    if (signature === 0x04034b50) view.setUint32(at + 22, 100, true);
    if (signature === 0x02014b50) view.setUint32(at + 24, 100, true);
  }
  const archive = await openArchive(zip, () => true);
  const unpacked = archive.kind === 'open' ? [...archive.files.values()].reduce((n, f) => n + f.length, 0) : 0;
  expect(unpacked).toBeLessThanOrEqual(100);
  expect((await read('a.reqifz', zip)).records).toEqual([]);
});

describe('XLSX', () => {
  test('is read like a table; every cell stays as written', async () => {
    const bytes = await writeXlsx('Sheet', [['ID', 'Title', 'Version of it'], ['007', '=1+1', '12345678901234567']]);
    const document = await read('a.xlsx', bytes);
    expect(document.records[0]?.cells).toEqual(['007', '=1+1', '12345678901234567']);
    expect(document.sheets).toEqual(['Sheet']);
  });

  test('formulas, dates, merged cells and numbers', async () => {
    const bytes = workbook('<row r="1"><c r="A1" t="inlineStr"><is><t>ID</t></is></c><c r="B1" t="inlineStr"><is><t>Title</t></is></c><c r="C1" t="inlineStr"><is><t>Since</t></is></c></row><row r="2"><c r="A2"><v>1</v></c><c r="B2" t="str"><f>1+1</f><v>two</v></c><c r="C2" s="1"><v>46056</v></c></row>', '<mergeCells count="1"><mergeCell ref="A4:B4"/></mergeCells>');
    const document = await read('a.xlsx', bytes);
    expect(document.records[0]?.cells).toEqual(['1', 'two', '2026-02-03']);
    expect(told(document.problems)).toEqual(['warning formulas_taken_as_values', 'warning cells_merged']);
  });

  test.each([
    ['cut off', async () => (await writeXlsx('S', [['id'], ['1']])).subarray(0, 900), 'archive_broken'],
    ['a path that leads out', async () => zipSync({ '../evil.xml': bytesOf('x'), 'xl/workbook.xml': bytesOf('<a/>') }), 'archive_path'],
    ['packed a thousandfold', async () => zipSync({ 'xl/workbook.xml': new Uint8Array(30_000_000) }), 'archive_bomb'],
    ['an archive of something else', async () => zipSync({ 'a.txt': bytesOf('x') }), 'archive_without'],
    ['broken inside', async () => zipSync({ 'xl/workbook.xml': bytesOf('<not-closed') }), 'sheet_broken'],
    ['entities', async () => workbook('', '', '<!DOCTYPE a [<!ENTITY b "c">]>'), 'xml_doctype'],
    ['a cell in the last row there can be', async () => workbook('<row r="1048576"><c r="A1048576"><v>1</v></c></row>', ''), 'sheet_too_tall'],
    ['a cell a hundred thousand columns out', async () => workbook('<row r="1"><c r="EQXD1"><v>1</v></c></row>', ''), 'too_many_columns'],
  ])('%s', async (_, bytes, code) => expect((await read('a.xlsx', await bytes())).problems.map((p) => p.code)).toContain(code));
});

function workbook(rows: string, after: string, before = ''): Uint8Array {
  const main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
  const rel = 'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"';
  const kind = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  return zipSync({
    'xl/workbook.xml': bytesOf(`<workbook ${main}><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>`),
    'xl/_rels/workbook.xml.rels': bytesOf(`<Relationships ${rel}><Relationship Id="r1" Type="${kind}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="${kind}/styles" Target="styles.xml"/></Relationships>`),
    'xl/styles.xml': bytesOf(`<styleSheet ${main}><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="14" applyNumberFormat="1"/></cellXfs></styleSheet>`),
    'xl/worksheets/sheet1.xml': bytesOf(`${before}<worksheet ${main}><sheetData>${rows}</sheetData>${after}</worksheet>`),
  });
}

test('Markdown: headings are the outline, ids stand in them', async () => {
  expect(await taken('a.md', MARKDOWN)).toEqual({
    list: [['/Readings', null, 'Readings'], ['REQ-2', '/Readings', 'Valid reading'], ['EST', '/Readings', 'Estimate'], ['/Readings/Estimate/Deep', 'EST', 'Deep']],
    problems: ['warning text_before_heading at 1', 'warning heading_level_skipped at 17'],
  });
  expect((await read('a.md', MARKDOWN)).records[1]?.cells[2]).toContain('# no heading');
});

describe('ReqIF', () => {
  test('objects, hierarchy, enumerations, XHTML, relations', async () => {
    const { entries: list, problems } = entries(await read('a.reqif', REQIF));
    expect(told(problems)).toEqual([]);
    expect(list.map((e) => [e.key, e.parent, e.fields.title, e.fields.risk, e.fields['attribute:ReqIF.ForeignID']])).toEqual([
      ['o-1', null, 'Readings', 'Critical', '10'],
      ['o-2', 'o-1', 'Valid & whole', 'Critical', '11'],
      ['o-3', 'o-1', 'Estimate', 'Low', '12'],
    ]);
    expect(list[1]?.fields.text).toBe('From **0** to 99 999:\n\n- whole\n- in m³');
    expect(list[2]?.relations).toEqual([{ id: 'r-1', kind: 'refines', to: 'o-2' }]);
  });

  test('in an archive, with what lies beside it named', async () => {
    const document = await read('a.reqifz', zipSync({ 'doc.reqif': bytesOf(REQIF), 'files/plan.png': bytesOf('x') }));
    expect([document.format, document.records.length, told(document.problems)]).toEqual(['reqifz', 3, ['warning attachment_left']]);
  });

  test.each([
    ['cut off', REQIF.slice(0, 3000), 'error xml_broken at 30 in'],
    ['a document type', `<!DOCTYPE REQ-IF [<!ENTITY x SYSTEM "file:///etc/passwd">]>${REQIF.slice(REQIF.indexOf('<REQ-IF'))}`, 'error xml_doctype at 1'],
    ['an entity', REQIF.replace('for the office', '&x;'), 'error xml_broken'],
    ['nested without end', `<REQ-IF>${'<a>'.repeat(100_000)}`, 'error xml_too_deep at 1'],
    ['another XML', '<REQ-IF><b/></REQ-IF>', 'error not_reqif at 1'],
    ['an object that is not there', REQIF.replace('<SPEC-OBJECT-REF>o-3</SPEC-OBJECT-REF></OBJECT>', '<SPEC-OBJECT-REF>o-9</SPEC-OBJECT-REF></OBJECT>'), 'error reference_unknown'],
    ['an object that stands nowhere', REQIF.replace(/<SPEC-HIERARCHY IDENTIFIER="h-o-3">.*?<\/SPEC-HIERARCHY>/, ''), 'warning object_not_placed'],
    ['an object twice', REQIF.replace('IDENTIFIER="o-3"', 'IDENTIFIER="o-2"'), 'error id_doubled'],
  ])('%s', async (_, text, problem) => expect((await taken('a.reqif', text)).problems.join('\n')).toContain(problem));
});

describe('whatever a file holds, it is read or refused with its problems', () => {
  const survives = async (name: string, bytes: Uint8Array) => {
    const document = await read(name, bytes);
    const { entries: list, problems } = entries(document);
    expect(list.length + problems.length).toBeGreaterThan(0);
    expect(new Set(list.map((e) => e.key)).size).toBe(list.length);
  };
  const name = fc.constantFrom('a.csv', 'a.xlsx', 'a.md', 'a.reqif', 'a.reqifz', 'a');

  test('bytes without sense', () => fc.assert(fc.asyncProperty(name, fc.uint8Array({ maxLength: 400 }), survives), { seed: 4711, numRuns: 400 }));

  test('good files, damaged', async () => {
    const good: [string, Uint8Array][] = [['a.csv', bytesOf(CSV)], ['a.md', bytesOf(MARKDOWN)], ['a.reqif', bytesOf(REQIF)], ['a.xlsx', await writeXlsx('S', [['id', 'title'], ['1', 'a']])], ['a.reqifz', zipSync({ 'a.reqif': bytesOf(REQIF) })]];
    const damage = fc.array(fc.record({ at: fc.double({ min: 0, max: 0.999, noNaN: true }), kind: fc.constantFrom('flip', 'cut', 'drop', 'double'), byte: fc.integer({ min: 0, max: 255 }) }), { minLength: 1, maxLength: 4 });
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...good), damage, async ([file, bytes], damages) => {
        let damaged = Uint8Array.from(bytes);
        for (const { at, kind, byte } of damages) {
          const place = Math.floor(at * damaged.length);
          if (kind === 'flip') damaged[place] = byte;
          else if (kind === 'cut') damaged = damaged.slice(0, place);
          else if (kind === 'drop') damaged = Uint8Array.from([...damaged.slice(0, place), ...damaged.slice(place + 20)]);
          else damaged = Uint8Array.from([...damaged.slice(0, place), ...damaged.slice(Math.max(0, place - 50))]);
        }
        await survives(file, damaged);
      }),
      { seed: 815, numRuns: 500 },
    );
  });
});
