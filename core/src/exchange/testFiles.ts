import { strToU8, zipSync } from 'fflate';
/** Small files for tests of the exchange. */
export const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

export const CSV = `ID;Title;Description;Priority;Parent;Owner
REQ-1;Readings;"How readings come in.
On two lines.";high;;Office
REQ-2;Valid reading;From 0 to 99 999 m³;must;REQ-1;Office
REQ-3;Leak allowance;"Once a year; a ""receipt"" is needed";urgent;REQ-9;
`;

const values = (name: string, requirement: string, text: string, level: string): string => `<VALUES>
  <ATTRIBUTE-VALUE-STRING THE-VALUE="${name}"><DEFINITION><ATTRIBUTE-DEFINITION-STRING-REF>ad-name</ATTRIBUTE-DEFINITION-STRING-REF></DEFINITION></ATTRIBUTE-VALUE-STRING>
  <ATTRIBUTE-VALUE-STRING THE-VALUE="${requirement}"><DEFINITION><ATTRIBUTE-DEFINITION-STRING-REF>ad-foreign</ATTRIBUTE-DEFINITION-STRING-REF></DEFINITION></ATTRIBUTE-VALUE-STRING>
  <ATTRIBUTE-VALUE-XHTML><DEFINITION><ATTRIBUTE-DEFINITION-XHTML-REF>ad-text</ATTRIBUTE-DEFINITION-XHTML-REF></DEFINITION><THE-VALUE><xhtml:div>${text}</xhtml:div></THE-VALUE></ATTRIBUTE-VALUE-XHTML>
  <ATTRIBUTE-VALUE-ENUMERATION><DEFINITION><ATTRIBUTE-DEFINITION-ENUMERATION-REF>ad-risk</ATTRIBUTE-DEFINITION-ENUMERATION-REF></DEFINITION><VALUES><ENUM-VALUE-REF>${level}</ENUM-VALUE-REF></VALUES></ATTRIBUTE-VALUE-ENUMERATION>
</VALUES>`;

const object = (id: string, inner: string): string => `<SPEC-OBJECT IDENTIFIER="${id}" LAST-CHANGE="2026-01-01T00:00:00Z"><TYPE><SPEC-OBJECT-TYPE-REF>st-req</SPEC-OBJECT-TYPE-REF></TYPE>${inner}</SPEC-OBJECT>`;
const place = (id: string, children = ''): string => `<SPEC-HIERARCHY IDENTIFIER="h-${id}"><OBJECT><SPEC-OBJECT-REF>${id}</SPEC-OBJECT-REF></OBJECT>${children && `<CHILDREN>${children}</CHILDREN>`}</SPEC-HIERARCHY>`;

/** Three requirements in two levels, a relation, an enumeration, XHTML and an attribute Caderno does not have. */
export const REQIF = `<?xml version="1.0" encoding="UTF-8"?>
<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd" xmlns:xhtml="http://www.w3.org/1999/xhtml">
<THE-HEADER><REQ-IF-HEADER IDENTIFIER="doc-7"><COMMENT>for the office</COMMENT><TITLE>Meters</TITLE></REQ-IF-HEADER></THE-HEADER>
<CORE-CONTENT><REQ-IF-CONTENT>
<DATATYPES>
  <DATATYPE-DEFINITION-STRING IDENTIFIER="dt-s" LONG-NAME="String" MAX-LENGTH="255"/>
  <DATATYPE-DEFINITION-XHTML IDENTIFIER="dt-x" LONG-NAME="Text"/>
  <DATATYPE-DEFINITION-ENUMERATION IDENTIFIER="dt-e" LONG-NAME="Level"><SPECIFIED-VALUES>
    <ENUM-VALUE IDENTIFIER="ev-c" LONG-NAME="Critical"><PROPERTIES><EMBEDDED-VALUE KEY="1" OTHER-CONTENT=""/></PROPERTIES></ENUM-VALUE>
    <ENUM-VALUE IDENTIFIER="ev-l" LONG-NAME="Low"><PROPERTIES><EMBEDDED-VALUE KEY="2" OTHER-CONTENT=""/></PROPERTIES></ENUM-VALUE>
  </SPECIFIED-VALUES></DATATYPE-DEFINITION-ENUMERATION>
</DATATYPES>
<SPEC-TYPES>
  <SPEC-OBJECT-TYPE IDENTIFIER="st-req" LONG-NAME="Requirement"><SPEC-ATTRIBUTES>
    <ATTRIBUTE-DEFINITION-STRING IDENTIFIER="ad-name" LONG-NAME="ReqIF.Name"><TYPE><DATATYPE-DEFINITION-STRING-REF>dt-s</DATATYPE-DEFINITION-STRING-REF></TYPE></ATTRIBUTE-DEFINITION-STRING>
    <ATTRIBUTE-DEFINITION-STRING IDENTIFIER="ad-foreign" LONG-NAME="ReqIF.ForeignID"><TYPE><DATATYPE-DEFINITION-STRING-REF>dt-s</DATATYPE-DEFINITION-STRING-REF></TYPE></ATTRIBUTE-DEFINITION-STRING>
    <ATTRIBUTE-DEFINITION-XHTML IDENTIFIER="ad-text" LONG-NAME="ReqIF.Text"><TYPE><DATATYPE-DEFINITION-XHTML-REF>dt-x</DATATYPE-DEFINITION-XHTML-REF></TYPE></ATTRIBUTE-DEFINITION-XHTML>
    <ATTRIBUTE-DEFINITION-ENUMERATION IDENTIFIER="ad-risk" LONG-NAME="Risk" MULTI-VALUED="false"><TYPE><DATATYPE-DEFINITION-ENUMERATION-REF>dt-e</DATATYPE-DEFINITION-ENUMERATION-REF></TYPE></ATTRIBUTE-DEFINITION-ENUMERATION>
  </SPEC-ATTRIBUTES></SPEC-OBJECT-TYPE>
  <SPECIFICATION-TYPE IDENTIFIER="st-spec" LONG-NAME="Module"/>
  <SPEC-RELATION-TYPE IDENTIFIER="st-rel" LONG-NAME="refines"/>
</SPEC-TYPES>
<SPEC-OBJECTS>
${object('o-1', values('Readings', '10', '<xhtml:p>How readings come in.</xhtml:p>', 'ev-c'))}
${object('o-2', values('Valid &amp; whole', '11', '<xhtml:p>From <xhtml:b>0</xhtml:b> to 99 999:</xhtml:p><xhtml:ul><xhtml:li>whole</xhtml:li><xhtml:li>in m³</xhtml:li></xhtml:ul>', 'ev-c'))}
${object('o-3', values('Estimate', '12', '<xhtml:p>From the mean &lt; 3 months</xhtml:p>', 'ev-l'))}
</SPEC-OBJECTS>
<SPEC-RELATIONS><SPEC-RELATION IDENTIFIER="r-1"><TYPE><SPEC-RELATION-TYPE-REF>st-rel</SPEC-RELATION-TYPE-REF></TYPE><SOURCE><SPEC-OBJECT-REF>o-3</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>o-2</SPEC-OBJECT-REF></TARGET></SPEC-RELATION></SPEC-RELATIONS>
<SPECIFICATIONS><SPECIFICATION IDENTIFIER="spec-1" LONG-NAME="Meter readings"><TYPE><SPECIFICATION-TYPE-REF>st-spec</SPECIFICATION-TYPE-REF></TYPE><CHILDREN>${place('o-1', place('o-2') + place('o-3'))}</CHILDREN></SPECIFICATION></SPECIFICATIONS>
</REQ-IF-CONTENT></CORE-CONTENT>
</REQ-IF>
`;

export const MARKDOWN = `Some words before.

# Readings

How readings come in.

## REQ-2 Valid reading

From 0 to 99 999.

\`\`\`
# no heading
\`\`\`

## Estimate {#EST}

#### Deep
`;

/** A document of a word processor with this in its body; chapters have the style that one in German gives them. `notes`: footnotes by their numbers. */
export function docxOf(body: string, notes: readonly string[] = []): Uint8Array {
  const w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing"';
  const relation = (id: string, kind: string, target: string): string => `<Relationship Id="${id}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${kind}" Target="${target}"/>`;
  const relations = (all: string): string => `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${all}</Relationships>`;
  const styles = [1, 2, 3].map((n) => `<w:style w:type="paragraph" w:styleId="berschrift${n}"><w:name w:val="heading ${n}"/></w:style>`).join('');
  const files: Record<string, string> = {
    '[Content_Types].xml': '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="png" ContentType="image/png"/></Types>',
    '_rels/.rels': relations(relation('a', 'officeDocument', 'word/document.xml')),
    'word/document.xml': `<w:document ${w}><w:body>${body}</w:body></w:document>`,
    'word/styles.xml': `<w:styles ${w}>${styles}</w:styles>`,
    'word/footnotes.xml': `<w:footnotes ${w}>${notes.map((text, i) => `<w:footnote w:id="${i + 1}">${paragraph(text)}</w:footnote>`).join('')}</w:footnotes>`,
    'word/media/one.png': 'none',
    'word/_rels/document.xml.rels': relations(relation('s', 'styles', 'styles.xml') + relation('f', 'footnotes', 'footnotes.xml') + relation('p', 'image', 'media/one.png')),
  };
  return zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])));
}

/** `style`: of a chapter, from 1. `inside`: what stands behind the words. */
export function paragraph(text: string, style: number | null = null, inside = ''): string {
  return `<w:p>${style === null ? '' : `<w:pPr><w:pStyle w:val="berschrift${style}"/></w:pPr>`}<w:r><w:t xml:space="preserve">${text}</w:t></w:r>${inside}</w:p>`;
}

export function tableOf(rows: readonly (readonly string[])[]): string {
  return `<w:tbl>${rows.map((cells) => `<w:tr>${cells.map((cell) => `<w:tc>${cell.split('\n').map((line) => paragraph(line)).join('')}</w:tc>`).join('')}</w:tr>`).join('')}</w:tbl>`;
}
