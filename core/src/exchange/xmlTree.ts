import { SaxesParser } from 'saxes';
import { FILE_LIMITS } from './limits.ts';
import { at, error, type FileProblem } from './problem.ts';

/** An element of an XML document; names without their prefix. Text and elements in the order they stand. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (XmlElement | string)[];
  readonly line: number;
}

interface Building extends XmlElement {
  readonly children: (XmlElement | string)[];
}

export type XmlResult = { readonly kind: 'read'; readonly root: XmlElement } | { readonly kind: 'refused'; readonly problem: FileProblem };

/** Thrown inside the parser to stop it at once, and caught by {@link readXml}. */
class Stop extends Error {
  readonly problem: FileProblem;
  constructor(problem: FileProblem) {
    super(problem.code);
    this.problem = problem;
  }
}

/** Reads XML strictly. A document type is refused, so there are no entities but XML's own five; nothing is fetched. */
export function readXml(text: string): XmlResult {
  const parser = new SaxesParser({ position: true });
  const open: Building[] = [];
  let root: XmlElement | null = null;
  parser.on('error', (failure) => {
    throw new Stop(error({ code: 'xml_broken', reason: failure.message.replace(/^\d+:\d+: /, '').slice(0, 200) }, at(parser.line, String(parser.column + 1))));
  });
  parser.on('doctype', () => {
    throw new Stop(error({ code: 'xml_doctype' }, at(parser.line)));
  });
  parser.on('opentag', ({ name, attributes }) => {
    const element: Building = { name: localName(name), attributes: attributes as Record<string, string>, children: [], line: parser.line };
    if (open.length >= FILE_LIMITS.xmlDepth) throw new Stop(error({ code: 'xml_too_deep', limit: FILE_LIMITS.xmlDepth }, at(parser.line)));
    open.at(-1)?.children.push(element);
    root ??= element;
    open.push(element);
  });
  parser.on('closetag', () => void open.pop());
  const addText = (text: string): void => void open.at(-1)?.children.push(text);
  parser.on('text', addText);
  parser.on('cdata', addText);
  try {
    parser.write(text).close();
  } catch (cause) {
    if (cause instanceof Stop) return { kind: 'refused', problem: cause.problem };
    throw cause;
  }
  return root === null ? { kind: 'refused', problem: error({ code: 'file_empty' }) } : { kind: 'read', root };
}

function localName(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}

export function elementsOf(element: XmlElement | undefined): readonly XmlElement[] {
  return (element?.children ?? []).filter((child): child is XmlElement => typeof child !== 'string');
}

/** The first child of a name. */
export function childOf(element: XmlElement | undefined, name: string): XmlElement | undefined {
  return elementsOf(element).find((child) => child.name === name);
}

/** The children of the child of a name: ReqIF wraps every list. */
export function listOf(element: XmlElement | undefined, name: string): readonly XmlElement[] {
  return elementsOf(childOf(element, name));
}

/** All text within, as it stands. */
export function textOf(element: XmlElement | undefined): string {
  return (element?.children ?? []).map((child) => (typeof child === 'string' ? child : textOf(child))).join('');
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', '\n': '&#10;', '\r': '&#13;', '\t': '&#9;' };

/** Text for an attribute in double quotes. What XML cannot hold becomes the replacement character. */
export function attributeText(text: string): string {
  return text.replaceAll(/[&<>"\n\r\t]/g, (c) => ESCAPES[c] ?? c).replaceAll(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '\uFFFD');
}
