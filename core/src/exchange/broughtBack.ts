import type { AsBroughtBack } from './importPlan.ts';
import type { FileFormat } from './sourceDocument.ts';
import { markdownOfXhtml, xhtmlOfMarkdown } from './xhtml.ts';
import { readXml } from './xmlTree.ts';

/** What becomes of a value that is written in a format and read again: tables keep every sign, Markdown no space around a text, ReqIF the text but not its way of writing. */
export function broughtBackBy(format: FileFormat): AsBroughtBack {
  switch (format) {
    case 'markdown':
      return (field, text) => (field === 'title' ? inOneLine(text) : text.trim());
    case 'reqif':
    case 'reqifz':
      return (field, text) => (field === 'title' ? inOneLine(text) : field === 'text' ? throughXhtml(text) : text.trim());
    default:
      return (field, text) => (field === 'title' ? inOneLine(text) : text);
  }
}

function inOneLine(text: string): string {
  return text.replaceAll(/\s+/g, ' ').trim();
}

/** Twice, as what came from there once may settle only the second time. */
function throughXhtml(text: string): string {
  return once(once(text));
}

function once(text: string): string {
  const read = readXml(`<xhtml:div xmlns:xhtml="http://www.w3.org/1999/xhtml">${xhtmlOfMarkdown(text)}</xhtml:div>`);
  return read.kind === 'refused' ? text : markdownOfXhtml(read.root);
}
