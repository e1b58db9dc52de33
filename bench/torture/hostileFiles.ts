import { strToU8, zipSync } from 'fflate';

/** Files made to take as much as they can of whoever reads them. */
export interface HostileFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const markdown = (name: string, text: string): HostileFile => ({ name: `${name}.md`, bytes: strToU8(text) });

/** A ReqIF document with so many objects and relations between the first two. */
function reqif(objects: number, relations: number): HostileFile {
  const object = (i: number): string =>
    `<SPEC-OBJECT IDENTIFIER="o${i}"><TYPE><SPEC-OBJECT-TYPE-REF>t</SPEC-OBJECT-TYPE-REF></TYPE><VALUES><ATTRIBUTE-VALUE-STRING THE-VALUE="Title ${i}"><DEFINITION><ATTRIBUTE-DEFINITION-STRING-REF>a</ATTRIBUTE-DEFINITION-STRING-REF></DEFINITION></ATTRIBUTE-VALUE-STRING></VALUES></SPEC-OBJECT>`;
  const relation = (i: number): string =>
    `<SPEC-RELATION IDENTIFIER="r${i}"><SOURCE><SPEC-OBJECT-REF>o0</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>o1</SPEC-OBJECT-REF></TARGET></SPEC-RELATION>`;
  const many = (count: number, make: (i: number) => string): string => Array.from({ length: count }, (_, i) => make(i)).join('');
  return {
    name: 'relations.reqif',
    bytes: strToU8(
      `<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd"><CORE-CONTENT><REQ-IF-CONTENT><SPEC-TYPES><SPEC-OBJECT-TYPE IDENTIFIER="t"><SPEC-ATTRIBUTES><ATTRIBUTE-DEFINITION-STRING IDENTIFIER="a" LONG-NAME="ReqIF.Name"/></SPEC-ATTRIBUTES></SPEC-OBJECT-TYPE></SPEC-TYPES><SPEC-OBJECTS>${many(objects, object)}</SPEC-OBJECTS><SPEC-RELATIONS>${many(relations, relation)}</SPEC-RELATIONS></REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>`,
    ),
  };
}

/** A workbook whose only cells are the first one and one in a row far below. */
function workbook(row: number): HostileFile {
  const sheet = `<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>Title</t></is></c></row><row r="${row}"><c r="Z${row}" t="inlineStr"><is><t>x</t></is></c></row></sheetData></worksheet>`;
  const files = {
    '[Content_Types].xml':
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
    '_rels/.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
    'xl/workbook.xml':
      '<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="One" sheetId="1" r:id="rId1"/></sheets></workbook>',
    'xl/_rels/workbook.xml.rels':
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/worksheets/sheet1.xml': sheet,
  };
  return { name: `row${row}.xlsx`, bytes: zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)]))) };
}

export const HOSTILE_FILES: readonly HostileFile[] = [
  markdown('quotations', `# A\n\n${`${'>'.repeat(4_000)} x\n`.repeat(40)}`),
  markdown('lists', `# A\n\n${Array.from({ length: 2_000 }, (_, i) => `${'  '.repeat(i)}- x`).join('\n')}`),
  markdown('lists on a line', `# A\n\n${'- '.repeat(20_000)}x`),
  markdown('brackets', `# A\n\n${'['.repeat(200_000)}`),
  markdown('emphasis', `# A\n\n${'*a _b '.repeat(60_000)}`),
  markdown('headings', '# A\n'.repeat(400_000)),
  reqif(2_000, 120_000),
  workbook(1_048_576),
  workbook(99_000),
  { name: 'quotes.csv', bytes: strToU8(`ID,Title\n${'"'.repeat(5_000_000)}`) },
  { name: 'commas.csv', bytes: strToU8(`${','.repeat(299)}\n`.repeat(60_000)) },
];
